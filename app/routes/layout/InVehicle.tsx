/*
 * Decides: which way each line goes, and what it passes.
 * Seen in three seconds: the chosen line from the side and from above, its humps and sags, and what is hot, moving or sharp near it.
 */
import { type KeyboardEvent, type PointerEvent as ReactPointerEvent, useRef } from "react";
import styled from "styled-components";
import { leastApartM } from "~/core/findings/nearDanger";
import { extremesOf, placeAlong, pointsOf } from "~/core/plan/along";
import { fromTank, partsOf, portKey } from "~/core/plan/ports";
import { runGeometry } from "~/core/plan/route";
import type { Id, Neighbour, Position, Run, Tank } from "~/core/plan/types";
import { boundsOf } from "~/core/tanks/shape";
import { heightsOf } from "~/core/tanks/tank";
import { formatQuantity } from "~/core/units/format";
import { nameOf } from "~/messages/notes";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { useAhead } from "~/ui/useAhead";

const Frame = styled.div`
  display: grid; grid-template-rows: auto minmax(0, 1fr) minmax(0, 1fr); min-height: 0; height: 100%;
  @media (max-width: 600px) { grid-template-rows: auto 240px 240px; height: auto; }
  > p { margin: 0; padding: 6px 12px; display: flex; flex-wrap: wrap; gap: 4px 14px; align-items: center; min-height: 44px; }
`;
const View = styled.svg`
  width: 100%; height: 100%; min-height: 0; display: block; border-top: 1px solid var(--hairline); touch-action: pan-y; background: var(--ground);
  text { font-stretch: 78%; paint-order: stroke; stroke: var(--ground); stroke-width: 3px; stroke-linejoin: round; }
  .point { cursor: grab; outline: none; } .point:focus-visible circle { stroke: var(--act); stroke-width: 4; }
  .line { cursor: pointer; outline: none; } .line:focus-visible path:last-child { stroke: var(--act); stroke-width: 4; }
`;

type Axis = "xM" | "yM" | "zM";
/** Side: forward to the left, as seen from port. Plan: forward to the left, port below. */
const views: { id: "side" | "plan"; name: string; across: Axis; up: Axis; sign: 1 | -1 }[] = [
  { id: "side", name: "From port side", across: "xM", up: "zM", sign: 1 },
  { id: "plan", name: "From above", across: "xM", up: "yM", sign: -1 },
];

const WIDTH = 900;
const HEIGHT = 260;
const PAD = 34;
const STEP_M = 0.01;
const LONG_STEP_M = 0.1;

function tankCorners(tank: Tank): [Position, Position] {
  const { x, y } = boundsOf(tank.shape);
  const { lowM, highM } = heightsOf(tank);
  const [a, b] = [
    fromTank(tank, { xM: x[0], yM: y[0], zM: lowM }),
    fromTank(tank, { xM: x[1], yM: y[1], zM: highM }),
  ];
  return [a, b];
}

const neighbourSigns: Record<Neighbour["kind"], string> = {
  hot: "hot",
  moving: "moves",
  sharp: "sharp",
  line: "line",
  battery: "battery",
};

export function InVehicle() {
  const { job, plan, network, selectedId, select, dispatch } = useJob();
  const { units } = job;
  const [ahead, hold] = useAhead<{ id: Id; points: Position[] }>();
  const drag = useRef<{ index: number; x: number; y: number; start: Position } | null>(null);
  const stored = plan.runs.find(({ id }) => id === selectedId) ?? null;
  const chosen: Run | null =
    stored && ahead?.id === stored.id
      ? { ...stored, route: { kind: "traced", points: ahead.points, radiusM: stored.product.leastRadiusM } }
      : stored;
  const ends = (run: Run) =>
    [network.ports.get(portKey(run.from)), network.ports.get(portKey(run.to))] as const;
  const drawn = plan.runs.flatMap((run) => {
    const one = run.id === chosen?.id ? chosen : run;
    const [from, to] = ends(one);
    return from && to ? [{ run: one, points: pointsOf(one, from, to) }] : [];
  });
  const mine = drawn.find(({ run }) => run.id === chosen?.id);
  const tanks = job.tanks.map((tank) => ({ tank, corners: tankCorners(tank) }));
  const parts = partsOf(job, plan);
  const all = [
    ...drawn.flatMap(({ points }) => points),
    ...tanks.flatMap(({ corners }) => corners),
    ...parts.map(({ position }) => position),
  ];
  const range = (axis: Axis): [number, number] => {
    const values = all.map((point) => point[axis]);
    return values.length > 0 ? [Math.min(...values), Math.max(...values)] : [0, 1];
  };
  const spread = (axis: Axis) => range(axis)[1] - range(axis)[0];
  const scale = Math.min(
    (WIDTH - 2 * PAD) / Math.max(0.5, spread("xM")),
    (HEIGHT - 2 * PAD) / Math.max(0.3, spread("zM"), spread("yM")),
  );
  const put = (points: Position[]) => {
    if (!chosen) return;
    hold({ id: chosen.id, points }, () =>
      dispatch(
        {
          name: "editRun",
          id: chosen.id,
          change: { route: { kind: "traced", points, radiusM: chosen.product.leastRadiusM } },
        },
        `route:${chosen.id}:${Math.floor(Date.now() / 1500)}`,
      ),
    );
  };
  const inner = (): Position[] => mine?.points.slice(1, -1).map((point) => ({ ...point })) ?? [];
  const trace = () => {
    const points = inner();
    put(points.length > 0 ? points : [placeAlong(mine?.points ?? [], 0.5)]);
  };
  const addPoint = () => {
    if (!mine) return;
    const lengths = mine.points.slice(1).map((point, i) => {
      const before = mine.points[i] as Position;
      return Math.hypot(point.xM - before.xM, point.yM - before.yM, point.zM - before.zM);
    });
    const longest = lengths.indexOf(Math.max(...lengths));
    const middle = placeAlong(mine.points.slice(longest, longest + 2), 0.5);
    const points = inner();
    points.splice(longest, 0, middle);
    put(points);
  };
  const moveBy = (index: number, axis: Axis, byM: number) =>
    put(
      inner().map((point, i) =>
        i === index ? { ...point, [axis]: Math.round((point[axis] + byM) * 1000) / 1000 } : point,
      ),
    );
  const geometry =
    mine &&
    (() => {
      const [from, to] = ends(mine.run);
      return from && to ? runGeometry(mine.run, from, to) : null;
    })();
  const extremes = mine ? extremesOf(mine.points) : [];
  return (
    <Frame>
      <p>
        {!chosen && <span>Choose a line: here, or in the plumbing.</span>}
        {chosen && geometry && (
          <>
            <b>{nameOf(job, chosen.id)}</b>
            <span>
              {formatQuantity("length", geometry.lengthM, units.length)} long, rises{" "}
              {formatQuantity("length", geometry.riseM, units.length)}
            </span>
            <span>
              {extremes.length === 0
                ? "no hump, no sag"
                : extremes
                    .map(
                      ({ kind, byM }) =>
                        `${kind === "high" ? "hump" : "sag"} of ${formatQuantity("length", byM, units.length)}`,
                    )
                    .join(", ")}
            </span>
            {chosen.route.kind === "measured" ? (
              <Button onPress={trace}>Trace its way</Button>
            ) : (
              <Button onPress={addPoint}>Add a point</Button>
            )}
          </>
        )}
      </p>
      {views.map((view) => {
        const [left] = range(view.across);
        const [low, high] = range(view.up);
        const place = (point: Position): [number, number] => [
          WIDTH - PAD - (point[view.across] - left) * scale,
          view.sign > 0
            ? HEIGHT / 2 + ((low + high) / 2 - point[view.up]) * scale
            : HEIGHT / 2 + (point[view.up] - (low + high) / 2) * scale,
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
        const onDown = (index: number) => (event: ReactPointerEvent<SVGGElement>) => {
          const start = inner()[index];
          if (!start) return;
          event.currentTarget.setPointerCapture(event.pointerId);
          drag.current = { index, x: event.clientX, y: event.clientY, start };
        };
        const onMove = (event: ReactPointerEvent<SVGGElement>) => {
          const held = drag.current;
          const matrix = event.currentTarget.ownerSVGElement?.getScreenCTM();
          if (!held || !matrix) return;
          const across = -(event.clientX - held.x) / matrix.a / scale;
          const up = (-view.sign * (event.clientY - held.y)) / matrix.d / scale;
          const moved = {
            ...held.start,
            [view.across]: Math.round((held.start[view.across] + across) * 1000) / 1000,
            [view.up]: Math.round((held.start[view.up] + up) * 1000) / 1000,
          };
          put(inner().map((point, i) => (i === held.index ? moved : point)));
        };
        const onKey = (index: number) => (event: KeyboardEvent) => {
          const step = event.shiftKey ? LONG_STEP_M : STEP_M;
          const moves: Record<string, [Axis, number]> = {
            ArrowLeft: [view.across, step],
            ArrowRight: [view.across, -step],
            ArrowUp: [view.up, view.sign * step],
            ArrowDown: [view.up, -view.sign * step],
          };
          const move = moves[event.key];
          if (move) moveBy(index, ...move);
          else if (event.key === "Delete" || event.key === "Backspace")
            put(inner().filter((_, i) => i !== index));
          else return;
          event.preventDefault();
          event.stopPropagation();
        };
        return (
          <View
            key={view.id}
            viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
            role="group"
            aria-label={`${view.name}: lines in the vehicle`}
          >
            <text x={10} y={20} fontSize={13} fontWeight={600} fill="var(--soft)">
              {view.name}, front to the left
            </text>
            {tanks.map(({ tank, corners }) => {
              const [a, b] = corners.map(place) as [[number, number], [number, number]];
              const [x, y] = [Math.min(a[0], b[0]), Math.min(a[1], b[1])];
              return (
                <g key={tank.id}>
                  <rect
                    x={x}
                    y={y}
                    width={Math.abs(a[0] - b[0])}
                    height={Math.abs(a[1] - b[1])}
                    fill="var(--atRest)"
                    fillOpacity={0.5}
                    stroke="var(--idle)"
                  />
                  {tank.id !== chosen?.from.part && tank.id !== chosen?.to.part && (
                    <text x={x + 4} y={y + 14} fontSize={12} fill="var(--soft)">
                      {tank.name}
                    </text>
                  )}
                </g>
              );
            })}
            {drawn.map(({ run, points }) => (
              <g
                key={run.id}
                className="line"
                role="button"
                tabIndex={0}
                aria-pressed={run.id === chosen?.id}
                aria-label={nameOf(job, run.id)}
                onClick={() => select(run.id)}
                onKeyDown={(event) => event.key === "Enter" && select(run.id)}
              >
                <path d={path(points)} fill="none" stroke="transparent" strokeWidth={16} />
                <path
                  d={path(points)}
                  fill="none"
                  stroke={run.id === chosen?.id ? "var(--ink)" : "var(--idle)"}
                  strokeWidth={run.id === chosen?.id ? 3.5 : 1.4}
                  strokeLinejoin="round"
                />
              </g>
            ))}
            {parts.map(({ id, position }) => {
              const [x, y] = place(position);
              return <circle key={id} cx={x} cy={y} r={id === selectedId ? 5 : 3} fill="var(--idle)" />;
            })}
            {mine &&
              [mine.points[0], mine.points.at(-1)].map((point, i) => {
                const [x, y] = place(point as Position);
                const [from, to] = ends(mine.run);
                return (
                  <g key={i}>
                    <rect x={x - 4} y={y - 4} width={8} height={8} fill="var(--ink)" />
                    <text
                      x={x}
                      y={y + 18}
                      fontSize={12}
                      fontWeight={600}
                      textAnchor="middle"
                      fill="var(--ink)"
                    >
                      {(i === 0 ? from : to)?.ownerName}
                    </text>
                  </g>
                );
              })}
            {mine?.run.route.kind === "traced" &&
              inner().map((point, i) => {
                const [x, y] = place(point);
                const extreme = view.id === "side" ? extremes.find(({ at }) => at === i + 1) : undefined;
                return (
                  <g
                    key={i}
                    className="point"
                    role="button"
                    tabIndex={0}
                    aria-label={`Point ${i + 1} ${view.name.toLowerCase()}, ${formatQuantity("length", point[view.up], units.length)}. Arrow keys move it, Delete takes it out.`}
                    onPointerDown={onDown(i)}
                    onPointerMove={onMove}
                    onPointerUp={() => {
                      drag.current = null;
                    }}
                    onPointerCancel={() => {
                      drag.current = null;
                    }}
                    onKeyDown={onKey(i)}
                  >
                    <circle cx={x} cy={y} r={22} fill="transparent" />
                    <circle cx={x} cy={y} r={7} fill="var(--raised)" stroke="var(--ink)" strokeWidth={2} />
                    {extreme && (
                      <text
                        x={x}
                        y={extreme.kind === "high" ? y - 14 : y + 24}
                        fontSize={12}
                        textAnchor="middle"
                        fill="var(--ink)"
                      >
                        {extreme.kind === "high" ? "air stays" : "water stays"}
                      </text>
                    )}
                  </g>
                );
              })}
            {mine &&
              geometry &&
              (mine.run.neighbours ?? []).map((near) => {
                const at = placeAlong(
                  mine.points,
                  geometry.lengthM > 0 ? Math.min(1, near.atM / geometry.lengthM) : 0,
                );
                const [x, y] = place(at);
                const isBad = !near.guarded && near.apartM < leastApartM[near.kind];
                const r = Math.max(8, leastApartM[near.kind] * scale);
                return (
                  <g key={near.id} style={{ pointerEvents: "none" }}>
                    <circle
                      cx={x}
                      cy={y}
                      r={r}
                      fill="none"
                      stroke={isBad ? "var(--danger)" : "var(--ink)"}
                      strokeWidth={2}
                      strokeDasharray={isBad ? undefined : "4 3"}
                    />
                    <text x={x} y={y - r - 4} fontSize={12} textAnchor="middle" fill="var(--ink)">
                      {neighbourSigns[near.kind]}: {near.name},{" "}
                      {formatQuantity("length", near.apartM, units.length)}
                    </text>
                  </g>
                );
              })}
          </View>
        );
      })}
    </Frame>
  );
}
