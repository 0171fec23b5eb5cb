/*
 * The tank as it hangs in the earth's frame: the fuel lies level, the tank tilts, each mouth is wet or dry.
 * Its corners can be dragged, or moved with the arrow keys; what is dragged shows its lengths.
 */
import { type KeyboardEvent, useState } from "react";
import styled from "styled-components";
import type { LoftSection, SectionPoint, Tank, TankShape } from "~/core/plan/types";
import { shellFloorUnder } from "~/core/tanks/floor";
import { polygonBelow } from "~/core/tanks/polygon";
import { planOf, profileAt, sectionAt } from "~/core/tanks/shape";
import { isWet, soundingOf } from "~/core/tanks/tank";
import { INCH_M } from "~/core/units/factors";
import { tradeIn } from "~/core/units/trade";
import { sideWords } from "~/messages/sides";
import { sectionPath } from "~/plumbing/glyphs";
import { useJob } from "~/state/job";
import { useAhead } from "~/ui/useAhead";
import { type By, useDrag } from "~/ui/useDrag";
import { type Frame, frameOf, H, W } from "./frame";
import { useEditTank, useTank } from "./tankContext";

const Picture = styled.svg`
  display: block; width: 100%; height: auto; background: var(--panel); border: 1px solid var(--hairline); touch-action: pan-y;
  text { font-size: 12px; fill: var(--ink); paint-order: stroke; stroke: var(--panel); stroke-width: 3px; font-stretch: 84%; }
  text.title { fill: var(--soft); }
  .corner { cursor: grab; touch-action: none; outline: none; }
  .corner:focus-visible circle.seen { stroke-width: 5; }
`;

/** Corners snap to this in the job's units. */
const snapTo = (unit: string) => (unit === "in" || unit === "ft" ? INCH_M / 16 : 0.001);

/** The outline whose corners can be moved: the drawn-out section, or the chosen section of a loft. */
function editable(shape: TankShape, sectionIndex: number): SectionPoint[] | null {
  if (shape.kind === "prism") return shape.section;
  if (shape.kind === "loft") return shape.sections[sectionIndex]?.polygon ?? null;
  return null;
}

function withOutline(shape: TankShape, sectionIndex: number, outline: SectionPoint[]): TankShape {
  if (shape.kind === "prism") return { ...shape, section: outline };
  if (shape.kind !== "loft") return shape;
  return {
    ...shape,
    sections: shape.sections.map(
      (one, i): LoftSection => (i === sectionIndex ? { ...one, polygon: outline } : one),
    ),
  };
}

/** A corner in the hand: where it stood on the picture, and how the picture was laid then. */
interface Gripped {
  i: number;
  start: readonly [number, number];
  at: Frame;
}

export function SectionDrawing({
  sectionIndex,
  corner,
  onCorner,
  isEditing,
}: {
  sectionIndex: number;
  corner: number | null;
  onCorner: (i: number | null) => void;
  isEditing: boolean;
}) {
  const { tank, tilted, offset, attitude } = useTank();
  const { job } = useJob();
  const edit = useEditTank(tank);
  const [draft, setDraft] = useAhead<SectionPoint[]>();
  const { shape } = tank;
  const xM =
    shape.kind === "loft" && isEditing ? (shape.sections[sectionIndex]?.xM ?? 0) : soundingOf(tank).xM;
  const stored = (isEditing && editable(shape, sectionIndex)) || sectionAt(shape, xM);
  const outline = draft ?? stored;
  const [held, setHeld] = useState<Frame | null>(null);
  const frame = held ?? frameOf([...outline, ...sumpOutline(tank, "y")], attitude.rollDeg, true);
  const { place } = frame;
  const { up } = tilted;
  const wet = polygonBelow(outline, (offset - up[0] * xM) / up[2], -up[1] / up[2]);
  const snap = snapTo(job.units.length);
  const round = (value: number) => Math.round(value / snap) * snap;
  const canEdit = isEditing && editable(shape, sectionIndex) !== null;
  const commit = (points: SectionPoint[], gesture?: string) =>
    edit({ shape: withOutline(shape, sectionIndex, points) }, { field: "section" }, gesture);
  const moved = (i: number, point: SectionPoint) => outline.map((one, k) => (k === i ? point : one));

  const movedBy = ({ i, start, at }: Gripped, by: By) => {
    const [y, z] = at.back([start[0] + by.x, start[1] + by.y]);
    return moved(i, [round(y), round(z)]);
  };
  const grip = useDrag<Gripped>({
    press: ({ i }) => {
      onCorner(i);
      return true;
    },
    move: (gripped, by) => {
      // The picture keeps its scale while a corner is held.
      setHeld(gripped.at);
      setDraft(movedBy(gripped, by));
    },
    drop: (gripped, by) => {
      setHeld(null);
      const points = movedBy(gripped, by);
      setDraft(points, () => commit(points));
    },
  });
  const drag = (i: number) => ({
    ...grip({ i, start: place(outline[i] as SectionPoint), at: frame }),
    onKeyDown: (event: KeyboardEvent<SVGGElement>) => {
      const by = event.shiftKey ? 10 * snap : snap;
      const [y, z] = outline[i] as SectionPoint;
      const to: Record<string, SectionPoint> = {
        ArrowLeft: [round(y + by), z],
        ArrowRight: [round(y - by), z],
        ArrowUp: [y, round(z + by)],
        ArrowDown: [y, round(z - by)],
      };
      const point = to[event.key];
      if (!point) return;
      event.preventDefault();
      const next = moved(i, point);
      setDraft(next, () => commit(next, `corner-${tank.id}-${i}`));
    },
  });

  const lengthText = (a: SectionPoint, b: SectionPoint) =>
    tradeIn(job.units).length(Math.hypot(a[0] - b[0], a[1] - b[1]));
  return (
    <Picture viewBox={`0 0 ${W} ${H}`} role="group" aria-label={`${tank.name}, section looking forward`}>
      <text className="title" x={8} y={16}>
        looking forward: {sideWords(job.kind).port}
      </text>
      <text className="title" x={W - 8} y={16} textAnchor="end">
        {sideWords(job.kind).starboard}
      </text>
      <path d={sectionPath(outline, place)} fill="var(--ground)" />
      {wet.length > 2 && <path d={sectionPath(wet, place)} fill="var(--atRest)" />}
      {wet.length > 2 && <Surface points={wet} place={place} />}
      <path d={sectionPath(outline, place)} fill="none" stroke="var(--ink)" strokeWidth={2} />
      <Inside tank={tank} place={place} side="y" />
      <Mouths tank={tank} place={place} side="y" offset={offset} up={up} />
      {canEdit &&
        outline.map((point, i) => {
          const [x, y] = place(point);
          const next = outline[(i + 1) % outline.length] as SectionPoint;
          const near = corner === i || corner === (i + 1) % outline.length;
          const [nx, ny] = place(next);
          return (
            <g key={i}>
              {near && (
                <text x={(x + nx) / 2} y={(y + ny) / 2 + 4} textAnchor="middle" fontWeight={600}>
                  {lengthText(point, next)}
                </text>
              )}
              <g
                className="corner"
                tabIndex={0}
                role="button"
                aria-label={`Corner ${i + 1}: ${tradeIn(job.units).length(point[0])} across, ${tradeIn(job.units).length(point[1])} up; arrows move it`}
                onFocus={() => onCorner(i)}
                {...drag(i)}
              >
                <circle cx={x} cy={y} r={25} fill="transparent" />
                <circle
                  className="seen"
                  cx={x}
                  cy={y}
                  r={5}
                  fill={corner === i ? "var(--act)" : "var(--raised)"}
                  stroke="var(--act)"
                  strokeWidth={2.5}
                />
              </g>
            </g>
          );
        })}
    </Picture>
  );
}

/** The line of the fuel's surface: the wet polygon's highest side on the picture. */
function Surface({
  points,
  place,
}: {
  points: readonly SectionPoint[];
  place: (point: SectionPoint) => [number, number];
}) {
  const placed = points.map(place);
  const top = Math.min(...placed.map(([, y]) => y));
  const xs = placed.filter(([, y]) => y < top + 1.5).map(([x]) => x);
  const [a, b] = [Math.min(...xs), Math.max(...xs)];
  return (
    <g>
      <line x1={a} x2={b} y1={top} y2={top} stroke="var(--ink)" strokeWidth={1.4} />
      <path d={`M${(a + b) / 2 - 5} ${top - 8}h10l-5 7Z`} fill="var(--ink)" />
    </g>
  );
}

type Side = "x" | "y";
const along = (at: { xM: number; yM: number }, side: Side) => (side === "x" ? at.xM : at.yM);

const rectangle = (u0: number, z0: number, u1: number, z1: number): SectionPoint[] => [
  [u0, z0],
  [u1, z0],
  [u1, z1],
  [u0, z1],
];

/** The sump as it hangs from the floor over it; nothing where there is none. */
function sumpOutline(tank: Tank, side: Side): SectionPoint[] {
  const { sump } = tank;
  if (!sump) return [];
  const [middle, floor] = [along(sump, side), shellFloorUnder(tank, sump.xM, sump.yM)];
  return rectangle(middle - sump.diameterM / 2, floor - sump.depthM, middle + sump.diameterM / 2, floor);
}

/** Sump, well, baffles and what stands inside. */
function Inside({
  tank,
  place,
  side,
}: {
  tank: Tank;
  place: (point: SectionPoint) => [number, number];
  side: Side;
}) {
  const { sump, well, internals = [], baffles = [] } = tank;
  const box = (low: { xM: number; yM: number; zM: number }, high: typeof low) =>
    rectangle(along(low, side), low.zM, along(high, side), high.zM);
  return (
    <g fill="none" stroke="var(--ink)" strokeWidth={1.4}>
      {sump && <path d={sectionPath(sumpOutline(tank, side), place)} fill="var(--atRest)" />}
      {well && <path d={sectionPath(box(well.low, well.high), place)} strokeDasharray="5 3" />}
      {internals.map(({ id, low, high }) => (
        <path key={id} d={sectionPath(box(low, high), place)} fill="var(--hairline)" />
      ))}
      {baffles
        .filter(({ across }) => across === side)
        .map(({ id, atM }) => {
          const outline =
            side === "x"
              ? profileAt(tank.shape, soundingOf(tank).yM)
              : sectionAt(tank.shape, soundingOf(tank).xM);
          const zs = outline.map(([, z]) => z);
          const [x0, y0] = place([atM, Math.min(...zs)]);
          const [x1, y1] = place([atM, Math.max(...zs)]);
          return <line key={id} x1={x0} y1={y0} x2={x1} y2={y1} strokeDasharray="2 3" strokeWidth={2} />;
        })}
    </g>
  );
}

function Mouths({
  tank,
  place,
  side,
  offset,
  up,
}: {
  tank: Tank;
  place: (point: SectionPoint) => [number, number];
  side: Side;
  offset: number;
  up: readonly [number, number, number];
}) {
  return tank.ports.map((port, i) => {
    const wet = isWet(up, port.mouth, offset);
    const [x, y] = place([along(port.mouth, side), port.mouth.zM]);
    const [ox, oy] = place([along(port.outside, side), port.outside.zM]);
    const colour = port.role === "return" ? "var(--back)" : "var(--ink)";
    const left = x > W * 0.72;
    return (
      <g key={port.id}>
        <line
          x1={x}
          y1={y}
          x2={ox}
          y2={oy}
          stroke={colour}
          strokeWidth={1.6}
          strokeDasharray={port.role === "return" ? "4 3" : undefined}
        />
        <circle cx={x} cy={y} r={4} fill={wet ? colour : "var(--raised)"} stroke={colour} strokeWidth={1.8} />
        <text x={x + (left ? -8 : 8)} y={y + 4 + (i % 2) * 3} textAnchor={left ? "end" : "start"}>
          {port.name}, {wet ? "wet" : "dry"}
        </text>
      </g>
    );
  });
}

export function ProfileDrawing() {
  const { tank, tilted, offset, attitude } = useTank();
  const { yM } = soundingOf(tank);
  const outline = profileAt(tank.shape, yM);
  const { place } = frameOf([...outline, ...sumpOutline(tank, "x")], -attitude.pitchDeg, false);
  const { up } = tilted;
  const wet = polygonBelow(outline, (offset - up[1] * yM) / up[2], -up[0] / up[2]);
  return (
    <Picture viewBox={`0 0 ${W} ${H}`} role="img" aria-label={`${tank.name} from the side`}>
      <text className="title" x={8} y={16}>
        aft
      </text>
      <text className="title" x={W - 8} y={16} textAnchor="end">
        from the side: forward
      </text>
      <path d={sectionPath(outline, place)} fill="var(--ground)" />
      {wet.length > 2 && <path d={sectionPath(wet, place)} fill="var(--atRest)" />}
      {wet.length > 2 && <Surface points={wet} place={place} />}
      <path d={sectionPath(outline, place)} fill="none" stroke="var(--ink)" strokeWidth={2} />
      <Inside tank={tank} place={place} side="x" />
      <Mouths tank={tank} place={place} side="x" offset={offset} up={up} />
    </Picture>
  );
}

export function PlanDrawing() {
  const { tank } = useTank();
  const { job } = useJob();
  const outline = planOf(tank.shape);
  const { place, scale } = frameOf(outline, 0, false, 20);
  const sounding = soundingOf(tank);
  const [sx, sy] = place([sounding.xM, sounding.yM]);
  const length = (m: number) => tradeIn(job.units).length(m);
  const xs = outline.map(([x]) => x);
  const ys = outline.map(([, y]) => y);
  return (
    <Picture viewBox={`0 0 ${W} ${H}`} role="img" aria-label={`${tank.name} from above`}>
      <text className="title" x={8} y={16}>
        from above: port
      </text>
      <text className="title" x={W - 8} y={H / 2} textAnchor="end">
        forward
      </text>
      <path d={sectionPath(outline, place)} fill="var(--ground)" stroke="var(--ink)" strokeWidth={2} />
      {(tank.baffles ?? []).map(({ id, across, atM }) => {
        const [a, b] =
          across === "x"
            ? [place([atM, Math.min(...ys)]), place([atM, Math.max(...ys)])]
            : [place([Math.min(...xs), atM]), place([Math.max(...xs), atM])];
        return (
          <line
            key={id}
            x1={a[0]}
            y1={a[1]}
            x2={b[0]}
            y2={b[1]}
            stroke="var(--ink)"
            strokeDasharray="2 3"
            strokeWidth={2}
          />
        );
      })}
      {tank.sump && (
        <circle
          cx={place([tank.sump.xM, tank.sump.yM])[0]}
          cy={place([tank.sump.xM, tank.sump.yM])[1]}
          r={(tank.sump.diameterM / 2) * scale}
          fill="var(--atRest)"
          stroke="var(--ink)"
        />
      )}
      {tank.opening && (
        <path
          d={sectionPath(
            [
              [tank.opening.at.xM, tank.opening.at.yM],
              [tank.opening.at.xM + tank.opening.aM, tank.opening.at.yM],
              [tank.opening.at.xM + tank.opening.aM, tank.opening.at.yM + tank.opening.bM],
              [tank.opening.at.xM, tank.opening.at.yM + tank.opening.bM],
            ],
            place,
          )}
          fill="none"
          stroke="var(--idle)"
        />
      )}
      {tank.ports.map(({ id, name, mouth, role }, i) => {
        const [x, y] = place([mouth.xM, mouth.yM]);
        return (
          <g key={id}>
            <circle cx={x} cy={y} r={4} fill={role === "return" ? "var(--back)" : "var(--ink)"} />
            <text x={x + 8} y={y + 4 - (i % 2) * 12}>
              {name}
            </text>
          </g>
        );
      })}
      <path d={`M${sx - 7} ${sy}h14M${sx} ${sy - 7}v14`} stroke="var(--ink)" strokeWidth={1.6} />
      <text x={sx - 6} y={sy + 22} textAnchor="end">
        sounded here
      </text>
      <text x={W / 2} y={H - 6} textAnchor="middle">
        {length(Math.max(...xs) - Math.min(...xs))} long, {length(Math.max(...ys) - Math.min(...ys))} wide
      </text>
    </Picture>
  );
}
