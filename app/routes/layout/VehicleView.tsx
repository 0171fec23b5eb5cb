/** The lines of a plan in the vehicle from one side: the chosen one with its points, which are dragged or moved by keys. */
import { type KeyboardEvent, type PointerEvent as ReactPointerEvent, useRef } from "react";
import styled from "styled-components";
import { leastApartM } from "~/core/findings/hoses/nearDanger";
import { isConsumer } from "~/core/kinds/families";
import type { Part } from "~/core/kinds/index";
import type { Id, Position } from "~/core/kinds/record";
import { type Extreme, placeAlong } from "~/core/plan/along";
import { fromTank } from "~/core/plan/ports";
import type { Neighbour, Run, Tank } from "~/core/plan/types";
import { boundsOf } from "~/core/tanks/shape";
import { heightsOf } from "~/core/tanks/tank";
import { type UnitChoice } from "~/core/units/format";
import { tradeIn } from "~/core/units/trade";
import { nameOf } from "~/messages/notes";
import { useJob } from "~/state/job";

export type Axis = "xM" | "yM" | "zM";

export interface Aspect {
  id: "side" | "plan";
  name: string;
  /** Of a vehicle with a front and a left. */
  roadName: string;
  across: Axis;
  up: Axis;
  /** +1 where the axis points up on the screen. */
  sign: 1 | -1;
}

/** Both look with forward to the left, one under the other in the same scale; from above port is below. */
export const aspects: Aspect[] = [
  { id: "side", name: "From port side", roadName: "From the left", across: "xM", up: "zM", sign: 1 },
  { id: "plan", name: "From above", roadName: "From above", across: "xM", up: "yM", sign: -1 },
];

export interface DrawnRun {
  run: Run;
  points: Position[];
}

/** What the two views share: the same place has the same height or width in both. */
export interface Frame {
  widthPx: number;
  pxPerM: number;
  middle: Record<Axis, number>;
}

/** The line that is worked on. */
export interface Chosen extends DrawnRun {
  endNames: readonly (string | undefined)[];
  lengthM: number;
  extremes: readonly Extreme[];
  /** What stays where it humps and where it sags; nothing is said where that is absent. */
  stays: { high?: string; low: string };
}

const STEP_M = 0.01;
const LONG_STEP_M = 0.1;

const View = styled.svg`
  width: 100%; height: 100%; min-height: 0; display: block; border-top: 1px solid var(--hairline); touch-action: pan-y; background: var(--ground);
  text { font-stretch: 78%; paint-order: stroke; stroke: var(--ground); stroke-width: 3px; stroke-linejoin: round; }
  .point { cursor: grab; outline: none; } .point:focus-visible circle { stroke: var(--act); stroke-width: 4; }
  .line { cursor: pointer; outline: none; } .line:focus-visible path:last-child { stroke: var(--act); stroke-width: 4; }
`;

const neighbourSigns: Record<Neighbour["kind"], string> = {
  hot: "hot",
  moving: "moves",
  sharp: "sharp",
  line: "line",
  battery: "battery",
};

/** The lowest and the highest corner of the box round a tank. */
export function tankCorners(tank: Tank): [Position, Position] {
  const { x, y } = boundsOf(tank.shape);
  const { lowM, highM } = heightsOf(tank);
  return [
    fromTank(tank, { xM: x[0], yM: y[0], zM: lowM }),
    fromTank(tank, { xM: x[1], yM: y[1], zM: highM }),
  ];
}

type Place = (point: Position) => [number, number];

function TankBox({ tank, place, isNamed }: { tank: Tank; place: Place; isNamed: boolean }) {
  const [a, b] = tankCorners(tank).map(place) as [[number, number], [number, number]];
  const [x, y] = [Math.min(a[0], b[0]), Math.min(a[1], b[1])];
  return (
    <g>
      <rect
        x={x}
        y={y}
        width={Math.abs(a[0] - b[0])}
        height={Math.abs(a[1] - b[1])}
        fill="var(--atRest)"
        fillOpacity={0.5}
        stroke="var(--idle)"
      />
      {isNamed && (
        <text x={x + 4} y={y + 14} fontSize={12} fill="var(--soft)">
          {tank.name}
        </text>
      )}
    </g>
  );
}

/** What a line passes, with the room it needs; red where it is nearer. */
function Near({
  near,
  at,
  pxPerM,
  units,
}: {
  near: Neighbour;
  at: [number, number];
  pxPerM: number;
  units: UnitChoice;
}) {
  const [x, y] = at;
  const isBad = !near.guarded && near.apartM < leastApartM[near.kind];
  const r = Math.max(8, leastApartM[near.kind] * pxPerM);
  return (
    <g style={{ pointerEvents: "none" }}>
      <circle
        cx={x}
        cy={y}
        r={r}
        fill="none"
        stroke={isBad ? "var(--danger)" : "var(--ink)"}
        strokeWidth={2}
        strokeDasharray={isBad ? undefined : "4 3"}
      />
      <text x={x + r} y={y - r - 5} fontSize={12} textAnchor="end" fill="var(--ink)">
        {neighbourSigns[near.kind]}: {near.name}, {tradeIn(units).length(near.apartM)}
      </text>
    </g>
  );
}

export function VehicleView({
  aspect,
  frame: { widthPx, pxPerM, middle },
  heightPx,
  tanks,
  drawn,
  parts,
  chosen,
  onPoints,
}: {
  aspect: Aspect;
  frame: Frame;
  heightPx: number;
  tanks: readonly Tank[];
  drawn: readonly DrawnRun[];
  parts: readonly Part[];
  chosen: Chosen | null;
  /** All points between the ends, one of them moved or gone. */
  onPoints: (points: Position[]) => void;
}) {
  const { job, selectedId, select } = useJob();
  const { units } = job;
  const { across, up, sign } = aspect;
  const lookName = job.kind === "boat" ? aspect.name : aspect.roadName;
  const drag = useRef<{ index: number; x: number; y: number; start: Position } | null>(null);
  const place: Place = (point) => [
    widthPx / 2 + (middle[across] - point[across]) * pxPerM,
    heightPx / 2 + sign * (middle[up] - point[up]) * pxPerM,
  ];
  const path = (points: readonly Position[]) =>
    points
      .map(
        (point, i) =>
          `${i === 0 ? "M" : "L"}${place(point)
            .map((v) => v.toFixed(1))
            .join(" ")}`,
      )
      .join("");
  const inner = chosen?.points.slice(1, -1) ?? [];
  const moved = (index: number, change: Partial<Position>) =>
    onPoints(inner.map((point, i) => (i === index ? { ...point, ...change } : point)));
  const toMm = (m: number) => Math.round(m * 1000) / 1000;
  const onDown = (index: number) => (event: ReactPointerEvent<SVGGElement>) => {
    const start = inner[index];
    if (!start) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { index, x: event.clientX, y: event.clientY, start };
  };
  const onMove = (event: ReactPointerEvent<SVGGElement>) => {
    const held = drag.current;
    const matrix = event.currentTarget.ownerSVGElement?.getScreenCTM();
    if (!held || !matrix) return;
    moved(held.index, {
      [across]: toMm(held.start[across] - (event.clientX - held.x) / matrix.a / pxPerM),
      [up]: toMm(held.start[up] - (sign * (event.clientY - held.y)) / matrix.d / pxPerM),
    });
  };
  const letGo = () => {
    drag.current = null;
  };
  const onKey = (index: number) => (event: KeyboardEvent) => {
    const step = event.shiftKey ? LONG_STEP_M : STEP_M;
    const moves: Record<string, [Axis, number]> = {
      ArrowLeft: [across, step],
      ArrowRight: [across, -step],
      ArrowUp: [up, sign * step],
      ArrowDown: [up, -sign * step],
    };
    const move = moves[event.key];
    if (move) moved(index, { [move[0]]: toMm((inner[index] as Position)[move[0]] + move[1]) });
    else if (event.key === "Delete" || event.key === "Backspace")
      onPoints(inner.filter((_, i) => i !== index));
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const isEnd = (id: Id) => id === chosen?.run.from.part || id === chosen?.run.to.part;
  /** Its name stands clear of the line: over the end that is drawn higher, under the other. */
  const isHigher = (end: number): boolean => {
    const [first, last] = [chosen?.points[0], chosen?.points.at(-1)];
    if (!first || !last) return false;
    const [, a] = place(first);
    const [, b] = place(last);
    return end === 0 ? a < b : b <= a;
  };
  return (
    <View
      viewBox={`0 0 ${widthPx} ${heightPx}`}
      role="group"
      aria-label={`${lookName}: lines in the vehicle`}
    >
      <text x={10} y={20} fontSize={13} fontWeight={600} fill="var(--soft)">
        {lookName}, front to the left
      </text>
      {tanks.map((tank) => (
        <TankBox key={tank.id} tank={tank} place={place} isNamed={!isEnd(tank.id)} />
      ))}
      {drawn.map(({ run, points }) => (
        <g
          key={run.id}
          className="line"
          role="button"
          tabIndex={0}
          aria-pressed={run.id === chosen?.run.id}
          aria-label={nameOf(job, run.id)}
          onClick={() => select(run.id)}
          onKeyDown={(event) => event.key === "Enter" && select(run.id)}
        >
          <path d={path(points)} fill="none" stroke="transparent" strokeWidth={16} />
          <path
            d={path(points)}
            fill="none"
            stroke={run.id === chosen?.run.id ? "var(--ink)" : "var(--idle)"}
            strokeWidth={run.id === chosen?.run.id ? 3.5 : 1.4}
            strokeLinejoin="round"
          />
        </g>
      ))}
      {parts.map((part) => {
        const [x, y] = place(part.position);
        const isNamed = (isConsumer(part) || part.id === selectedId) && !isEnd(part.id);
        return (
          <g key={part.id}>
            <circle cx={x} cy={y} r={part.id === selectedId || isConsumer(part) ? 5 : 3} fill="var(--idle)" />
            {isNamed && (
              <text x={x} y={y - 9} fontSize={12} textAnchor="middle" fill="var(--soft)">
                {part.name}
              </text>
            )}
          </g>
        );
      })}
      {chosen &&
        [chosen.points[0], chosen.points.at(-1)].map((point, i) => {
          const [x, y] = place(point as Position);
          return (
            <g key={i}>
              <rect x={x - 4} y={y - 4} width={8} height={8} fill="var(--ink)" />
              <text
                x={x}
                y={isHigher(i) ? y - 10 : y + 18}
                fontSize={12}
                fontWeight={600}
                textAnchor="middle"
                fill="var(--ink)"
              >
                {chosen.endNames[i]}
              </text>
            </g>
          );
        })}
      {(chosen?.run.neighbours ?? []).map((near) => (
        <Near
          key={near.id}
          near={near}
          at={place(
            placeAlong(
              chosen?.points ?? [],
              chosen && chosen.lengthM > 0 ? Math.min(1, near.atM / chosen.lengthM) : 0,
            ),
          )}
          pxPerM={pxPerM}
          units={units}
        />
      ))}
      {chosen?.run.route.kind === "traced" &&
        inner.map((point, i) => {
          const [x, y] = place(point);
          const extreme = aspect.id === "side" ? chosen.extremes.find(({ at }) => at === i + 1) : undefined;
          return (
            <g
              key={i}
              className="point"
              role="button"
              tabIndex={0}
              aria-label={`Point ${i + 1} ${lookName.toLowerCase()}, ${tradeIn(units).length(point[up])}. Arrow keys move it, Delete takes it out.`}
              onPointerDown={onDown(i)}
              onPointerMove={onMove}
              onPointerUp={letGo}
              onPointerCancel={letGo}
              onKeyDown={onKey(i)}
            >
              <circle cx={x} cy={y} r={22} fill="transparent" />
              <circle cx={x} cy={y} r={7} fill="var(--raised)" stroke="var(--ink)" strokeWidth={2} />
              {extreme && chosen.stays[extreme.kind] && (
                <text
                  x={x}
                  y={extreme.kind === "high" ? y - 14 : y + 24}
                  fontSize={12}
                  textAnchor="middle"
                  fill="var(--ink)"
                >
                  {chosen.stays[extreme.kind]}
                </text>
              )}
            </g>
          );
        })}
    </View>
  );
}
