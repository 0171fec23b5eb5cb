/** The vehicle from one side: its outline, what stands in it, its lines; the chosen line with its points, which are dragged or moved by keys. */
import { Fragment, type KeyboardEvent, memo, useId, useMemo, useRef } from "react";
import styled from "styled-components";
import { leastApartM } from "~/core/findings/hoses/nearDanger";
import type { Id, Position } from "~/core/kinds/record";
import { type Extreme, placeAlong } from "~/core/plan/along";
import type { Neighbour } from "~/core/plan/types";
import { INCH_M } from "~/core/units/factors";
import type { UnitChoice } from "~/core/units/format";
import { inInches, tradeIn } from "~/core/units/trade";
import { nameOf } from "~/messages/notes";
import { sideWords } from "~/messages/sides";
import type { LineKind } from "~/plumbing/edges";
import { lineStyle } from "~/plumbing/Plumbing";
import { useWalk } from "~/plumbing/useWalk";
import { nearestThatWay } from "~/plumbing/walk";
import { useJob } from "~/state/job";
import { type By, useDrag } from "~/ui/useDrag";
import {
  type Aspect,
  type Axis,
  type Frame,
  LETTER_PX,
  middlesOf,
  named,
  type Place,
  placer,
  type SeenBody,
  seenBodies,
  type Text,
} from "./flat";
import type { Body, LaidRun, VehicleScene } from "./scene";

/** The line that is worked on. */
export interface Chosen extends LaidRun {
  endNames: readonly (string | undefined)[];
  lengthM: number;
  extremes: readonly Extreme[];
  /** What stays where it humps and where it sags; nothing is said where that is absent. */
  stays: { high?: string; low: string };
}

const STEP_M = 0.01;
const LONG_STEP_M = 0.1;
/** A hose is drawn at least this thick, however small the scale. */
const THINNEST_PX = 2;
const CLIP_PX = 5;
/** Clips of every line stand apart from this scale on; of the chosen one always. */
const CLIPS_FROM_PX_PER_M = 90;

const View = styled.svg`
  width: 100%; height: 100%; min-height: 0; display: block; touch-action: pan-y; background: var(--ground); border-top: 1px solid var(--hairline); border-left: 1px solid var(--hairline);
  text { font-stretch: 78%; paint-order: stroke; stroke: var(--ground); stroke-width: 3px; stroke-linejoin: round; }
  .point { cursor: grab; outline: none; touch-action: none; } .point:focus-visible circle { stroke: var(--act); stroke-width: 4; }
  .line, .body { cursor: pointer; outline: none; } .line:focus-visible .hose { stroke: var(--act); stroke-width: 5; }
  .reach { stroke-width: 10; @media (pointer: coarse) { stroke-width: 18; } }
  .body:focus-visible .edge { stroke: var(--act); stroke-width: 6; }
`;

const neighbourSigns: Record<Neighbour["kind"], string> = {
  hot: "hot",
  moving: "moves",
  sharp: "sharp",
  line: "line",
  battery: "battery",
};

const fills: Readonly<Record<Body["is"], { fill: string; edge: string }>> = {
  shell: { fill: "var(--panel)", edge: "var(--idle)" },
  frame: { fill: "var(--ground)", edge: "var(--hairline)" },
  wheel: { fill: "var(--ground)", edge: "var(--idle)" },
  tank: { fill: "var(--raised)", edge: "var(--ink)" },
  board: { fill: "var(--ground)", edge: "var(--idle)" },
  part: { fill: "var(--raised)", edge: "var(--ink)" },
  consumer: { fill: "var(--panel)", edge: "var(--ink)" },
};

const Silhouette = memo(function Silhouette({
  seen: { body, d },
  isChosen,
}: {
  seen: SeenBody;
  isChosen: boolean;
}) {
  const { fill, edge } = fills[body.is];
  const wide = body.is === "frame" || body.is === "shell" ? 2.6 : 3.4;
  return (
    <>
      <path
        className="edge"
        d={d}
        fill="none"
        stroke={isChosen ? "var(--act)" : edge}
        strokeWidth={isChosen ? 6 : wide}
        strokeLinejoin="round"
      />
      <path d={d} fill={fill} stroke={fill} strokeWidth={0.8} />
    </>
  );
});

/** What a line passes, in words over the ring of the room that it needs, px. */
function nearText(near: Neighbour, [x, y]: readonly [number, number], pxPerM: number, units: UnitChoice) {
  const r = Math.max(8, leastApartM[near.kind] * pxPerM);
  const name = `${neighbourSigns[near.kind]}: ${near.name}, ${tradeIn(units).length(near.apartM)}`;
  return { name, x: x + r - (name.length * LETTER_PX) / 2, y: y - r - 5, r };
}

/** The ring is red where it lies nearer than that. */
function Near({
  isBad,
  at: [x, y],
  r,
  text,
}: {
  isBad: boolean;
  at: readonly [number, number];
  r: number;
  text: Text | null;
}) {
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
      {text && (
        <text x={x + r} y={text.y} fontSize={12} textAnchor="end" fill="var(--ink)">
          {text.name}
        </text>
      )}
    </g>
  );
}

const pathOf = (points: readonly Position[], place: Place) =>
  points
    .map(
      (point, i) =>
        `${i === 0 ? "M" : "L"}${place(point)
          .map((v) => v.toFixed(1))
          .join(" ")}`,
    )
    .join("");

/** A hose as thick as it is, with its clips across it. */
function Hose({
  laid: { run, points, clips },
  kind,
  place,
  pxPerM,
  isChosen,
}: {
  laid: LaidRun;
  kind: LineKind;
  place: Place;
  pxPerM: number;
  isChosen: boolean;
}) {
  const d = pathOf(points, place);
  const thick = Math.max(THINNEST_PX, run.product.outerDiameterM * pxPerM) + (isChosen ? 2 : 0);
  const { stroke, strokeDasharray } = lineStyle[kind];
  return (
    <>
      <path d={d} fill="none" stroke="transparent" className="reach" />
      <path
        className="hose"
        d={d}
        fill="none"
        stroke={isChosen ? "var(--ink)" : kind === "idle" ? "var(--idle)" : "var(--ground)"}
        strokeWidth={thick + (kind === "idle" ? 0 : 2)}
        strokeLinejoin="round"
      />
      {kind !== "idle" && (
        <path
          d={d}
          fill="none"
          stroke={stroke}
          strokeDasharray={strokeDasharray}
          strokeWidth={thick}
          strokeLinejoin="round"
        />
      )}
      {(isChosen || pxPerM >= CLIPS_FROM_PX_PER_M ? clips : []).map((clip, i) => {
        const [x, y] = place(clip);
        const half = thick / 2 + CLIP_PX / 2;
        return (
          <rect
            key={i}
            x={x - 1.2}
            y={y - half}
            width={2.4}
            height={2 * half}
            fill="var(--ink)"
            opacity={isChosen ? 1 : 0.55}
          />
        );
      })}
    </>
  );
}

/** Heights over the ground, in round steps, as many as stand apart. */
function Ruler({
  frame,
  groundM,
  place,
  height,
}: {
  frame: Frame;
  groundM: number;
  place: Place;
  height: number;
}) {
  const { units } = useJob().job;
  const steps = inInches(units) ? [3, 6, 12, 24, 60].map((inches) => inches * INCH_M) : [0.1, 0.2, 0.5, 1, 2];
  const step = steps.find((m) => m * frame.pxPerM >= 34) ?? 5;
  const count = Math.floor((frame.middle.zM + frame.size.zM / 2 - groundM) / step + 1e-6);
  return (
    <g style={{ pointerEvents: "none" }}>
      {Array.from({ length: Math.max(0, count) + 1 }, (_, i) => {
        const [, y] = place({ xM: 0, yM: 0, zM: groundM + i * step });
        return y > 14 && y < height - 2 ? (
          <Fragment key={i}>
            <line x1={0} x2={8} y1={y} y2={y} stroke="var(--idle)" />
            {i > 0 && (
              <text x={11} y={y + 4} fontSize={12} fill="var(--soft)">
                {tradeIn(units).run(i * step)}
              </text>
            )}
          </Fragment>
        ) : null;
      })}
    </g>
  );
}

export function VehicleView({
  aspect,
  frame,
  widthPx,
  heightPx,
  scene,
  drawn,
  kinds,
  chosen,
  onPoints,
}: {
  aspect: Aspect;
  frame: Frame;
  widthPx: number;
  heightPx: number;
  scene: VehicleScene;
  drawn: readonly LaidRun[];
  kinds: ReadonlyMap<Id, LineKind>;
  chosen: Chosen | null;
  /** All points between the ends, one of them moved or gone. */
  onPoints: (points: Position[]) => void;
}) {
  const { job, selectedId, select } = useJob();
  const { units } = job;
  const clip = useId();
  const { across, up, sign } = aspect;
  const { pxPerM } = frame;
  const { front, port } = sideWords(job.kind);
  const lookName = {
    side: `From ${port === "left" ? "the left" : `${port} side`}`,
    stern: "From behind",
    plan: "From above",
  }[aspect.id];
  const place = useMemo(() => placer(aspect, frame, widthPx, heightPx), [aspect, frame, widthPx, heightPx]);
  // Not drawn anew while a point is dragged: the frame stays then.
  const { outline, solids } = useMemo(() => seenBodies(scene.bodies, aspect, place), [scene, aspect, place]);
  const inner = chosen?.points.slice(1, -1) ?? [];
  const toMm = (m: number) => Math.round(m * 1000) / 1000;
  const moved = (index: number, change: Partial<Position>) =>
    onPoints(inner.map((point, i) => (i === index ? { ...point, ...change } : point)));
  const grip = useDrag<{ index: number; start: Position }>({
    move({ index, start }, by: By) {
      moved(index, {
        [across]: toMm(start[across] - by.x / pxPerM),
        [up]: toMm(start[up] - (sign * by.y) / pxPerM),
      });
    },
  });
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
  const group = useRef<SVGSVGElement>(null);
  const middles = useMemo(() => middlesOf(solids, drawn, place), [solids, drawn, place]);
  const walk = useWalk(
    group,
    {
      has: (id) => middles.has(id),
      first: job.tanks[0]?.id ?? [...middles.keys()][0] ?? null,
      step: (id, arrow) => nearestThatWay(middles, id, arrow),
    },
    selectedId,
  );
  /** What is come to by arrows and chosen by Enter, or pressed. */
  const chooses = (id: Id, label: string, isChosen: boolean) => ({
    "data-id": id,
    role: "button",
    tabIndex: walk.stop === id ? 0 : -1,
    "aria-label": label,
    "aria-pressed": isChosen,
    onClick: () => select(id),
    onKeyDown: (event: KeyboardEvent) => event.key === "Enter" && select(id),
  });
  const isEnd = (id: Id) => id === chosen?.run.from.part || id === chosen?.run.to.part;
  /** Its name stands clear of the line: over the end that is drawn higher, under the other. */
  const isHigher = (end: number): boolean => {
    const [first, last] = [chosen?.points[0], chosen?.points.at(-1)];
    if (!first || !last) return false;
    const [, a] = place(first);
    const [, b] = place(last);
    return end === 0 ? a < b : b <= a;
  };
  const isUpright = aspect.up === "zM";
  const isAfloat = scene.waterM !== null;
  const [, floorY] = place({ xM: 0, yM: 0, zM: scene.waterM ?? scene.size.groundZM });
  const nears = (chosen?.run.neighbours ?? []).map((near) => {
    const share = chosen && chosen.lengthM > 0 ? Math.min(1, near.atM / chosen.lengthM) : 0;
    const at = place(placeAlong(chosen?.points ?? [], share));
    return { near, at, ...nearText(near, at, pxPerM, units) };
  });
  const ends =
    chosen && chosen.points.length > 0
      ? [chosen.points[0] as Position, chosen.points.at(-1) as Position].map((point, i) => {
          const [x, y] = place(point);
          return { name: chosen.endNames[i] ?? "", x, y: isHigher(i) ? y - 10 : y + 18, atY: y };
        })
      : [];
  const names = named(
    solids.filter(
      ({ body: { is, id } }) =>
        id !== undefined && !isEnd(id) && (is === "tank" || is === "consumer" || id === selectedId),
    ),
    aspect.id === "stern" ? ends : [...ends, ...nears],
  );
  return (
    <View
      ref={group}
      data-drawing
      onFocus={walk.onFocus}
      onBlur={walk.onBlur}
      onKeyDown={walk.onKeyDown}
      viewBox={`0 0 ${widthPx} ${heightPx}`}
      role="group"
      aria-label={`${lookName}: lines in the vehicle`}
    >
      {/* Water, or the ground, beyond the frame too: a view may be larger than what it shows. */}
      {isUpright && (
        <g stroke={isAfloat ? "var(--water)" : "var(--idle)"} strokeWidth={1.5}>
          {isAfloat && (
            <rect
              x={-widthPx}
              y={floorY}
              width={3 * widthPx}
              height={3 * heightPx}
              fill="var(--water)"
              stroke="none"
              opacity={0.08}
            />
          )}
          <line x1={-widthPx} x2={2 * widthPx} y1={floorY} y2={floorY} />
        </g>
      )}
      {outline.map((seen) => (
        <Silhouette key={seen.body.key} seen={seen} isChosen={false} />
      ))}
      {solids.map((seen) => {
        const { id, key, name, surfaceM } = seen.body;
        const look = (
          <>
            <Silhouette seen={seen} isChosen={id !== undefined && id === selectedId} />
            {surfaceM !== undefined && (
              <>
                <clipPath id={`${clip}${key}`}>
                  <rect
                    x={-widthPx}
                    y={isUpright ? place({ xM: 0, yM: 0, zM: surfaceM })[1] : -heightPx}
                    width={3 * widthPx}
                    height={3 * heightPx}
                  />
                </clipPath>
                <path d={seen.d} fill="var(--atRest)" clipPath={`url(#${clip}${key})`} />
              </>
            )}
          </>
        );
        return id === undefined ? (
          <g key={key}>{look}</g>
        ) : (
          <g key={key} className="body" {...chooses(id, name ?? "", id === selectedId)}>
            <title>{name}</title>
            {look}
          </g>
        );
      })}
      {drawn.map((laid) => (
        <g
          key={laid.run.id}
          className="line"
          {...chooses(laid.run.id, nameOf(job, laid.run.id), laid.run.id === chosen?.run.id)}
        >
          <Hose
            laid={laid}
            kind={kinds.get(laid.run.id) ?? "idle"}
            place={place}
            pxPerM={pxPerM}
            isChosen={laid.run.id === chosen?.run.id}
          />
        </g>
      ))}
      {isUpright && <Ruler frame={frame} groundM={scene.size.groundZM} place={place} height={heightPx} />}
      {names.map(({ id, name, x, y }) => (
        <text key={id} x={x} y={y} fontSize={12} textAnchor="middle" fill="var(--ink)" pointerEvents="none">
          {name}
        </text>
      ))}
      {ends.map(({ name, x, y, atY }, i) => (
        <g key={i} pointerEvents="none">
          <rect x={x - 4} y={atY - 4} width={8} height={8} fill="var(--ink)" />
          <text x={x} y={y} fontSize={12} fontWeight={600} textAnchor="middle" fill="var(--ink)">
            {name}
          </text>
        </g>
      ))}
      {nears.map(({ near, at, name, x, y, r }) => (
        <Near
          key={near.id}
          isBad={!near.guarded && near.apartM < leastApartM[near.kind]}
          at={at}
          r={r}
          text={aspect.id === "stern" ? null : { name, x, y }}
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
              {...grip({ index: i, start: point })}
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
      <text x={10} y={20} fontSize={13} fontWeight={600} fill="var(--soft)">
        {lookName}
        {aspect.id !== "stern" && `, ${front} to the left`}
      </text>
    </View>
  );
}
