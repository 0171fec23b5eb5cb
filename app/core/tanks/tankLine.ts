/** Fill, vent and drain lines of a tank: whether they drain themselves, what a sag holds, and how they bend. */
import type { Position } from "../kinds/record";
import { runOfTankLine } from "../plan/lying";
import { distanceM, fromTank, intoTank } from "../plan/ports";
import { runGeometry } from "../plan/route";
import type { Filling, Job, Plan, Tank, TankLine } from "../plan/types";
import { areaM2 } from "../units/bore";
import { INCH_M } from "../units/factors";
import { type Attitude, heightAlong, LEVEL, upOf } from "./attitude";
import { boundsOf } from "./shape";
import { heightsOf } from "./tank";

/** Sizes to begin with: a fill hose of 1 1/2 in, a vent of 5/8 in, a drain of 1/2 in. Common practice, no source. */
const commonLineBoreM: Readonly<Record<TankLine["use"], number>> = {
  fill: 1.5 * INCH_M,
  vent: 0.625 * INCH_M,
  drain: 0.5 * INCH_M,
};

/** A hose to begin with: its marking by where it lies, wall and least bend common practice, no source; all assumed. */
const lineHose = (kind: Job["kind"], boreM: number): TankLine["product"] => ({
  marking: kind === "boat" ? "ISO 7840 A2" : "SAE J30 R6",
  outerDiameterM: boreM + 0.012,
  leastRadiusM: boreM * 5,
});

/** Falls by less than this of its length: a hose sags between its clips by as much. Common practice, no source. */
const LEAST_FALL = 0.02;
/** A pocket of less depth wets the hose and holds nothing back. Common practice, no source. */
const LEAST_POCKET_M = 0.005;

/** Fuel that stays in a sag of a line that is open at both ends. */
export interface Pocket {
  /** Its lowest point: index in the line's points. */
  at: number;
  depthM: number;
  volumeM3: number;
}

/**
 * What stays in a line when it has run out at both its ends: under the lower of the crests on its two sides. Along the
 * corners as they are drawn.
 * @param heights of the points along the true vertical, m
 */
export function pocketsOf(points: readonly Position[], heights: readonly number[], boreM: number): Pocket[] {
  const { max, min } = Math;
  const before = heights.map((_, i) => max(...heights.slice(0, i + 1)));
  const after = heights.map((_, i) => max(...heights.slice(i)));
  const found: Pocket[] = [];
  let open: Pocket | null = null;
  for (let i = 0; i + 1 < points.length; i++) {
    const [a, b] = [heights[i] as number, heights[i + 1] as number];
    const level = min(before[i] as number, after[i + 1] as number);
    const low = min(a, b);
    if (!(low < level)) {
      open = null;
      continue;
    }
    const wet = a === b ? 1 : (min(level, max(a, b)) - low) / Math.abs(b - a);
    const length = distanceM(points[i] as Position, points[i + 1] as Position);
    if (!open) {
      open = { at: i, depthM: 0, volumeM3: 0 };
      found.push(open);
    }
    if (level - low > open.depthM) {
      open.depthM = level - low;
      open.at = a < b ? i : i + 1;
    }
    open.volumeM3 += wet * length * areaM2(boreM);
    // It ends where the line comes up to its level.
    if (b >= level) open = null;
  }
  return found.filter(({ depthM }) => depthM > LEAST_POCKET_M);
}

export type TankLineFault =
  | { code: "holds"; depthM: number; heldM3: number }
  /** Its tank end stands higher than its outer end, or for a drain lower. */
  | { code: "wrongWay"; byM: number }
  | { code: "flat"; fall: number };

/** Heights of a line's points along the true vertical, m: only their differences mean anything. */
export const lineHeights = (points: readonly Position[], attitude: Attitude = LEVEL): number[] => {
  const up = upOf(attitude);
  return points.map((point) => heightAlong(up, point));
};

export interface TankLineFigures {
  lengthM: number;
  /** Its outer end over the tank's, along the true vertical. */
  riseM: number;
  /** What all its sags hold. */
  heldM3: number;
  /** Of the deepest sag. */
  depthM: number;
}

/** A line in figures as it lies, at an attitude. */
export function tankLineFigures(line: TankLine, attitude: Attitude = LEVEL): TankLineFigures {
  const { points, boreM } = line;
  const heights = lineHeights(points, attitude);
  const pockets = pocketsOf(points, heights, boreM);
  return {
    lengthM: tankLineLengthM(line),
    riseM: (heights.at(-1) as number) - (heights[0] as number),
    heldM3: pockets.reduce((sum, { volumeM3 }) => sum + volumeM3, 0),
    depthM: Math.max(0, ...pockets.map(({ depthM }) => depthM)),
  };
}

/** What is wrong with a line as it lies, at an attitude. */
export function tankLineFaults(line: TankLine, attitude: Attitude = LEVEL): TankLineFault[] {
  const { points, use } = line;
  const { riseM, heldM3, depthM } = tankLineFigures(line, attitude);
  // Fuel runs to the tank, out of a drain away from it.
  const way = use === "drain" ? -1 : 1;
  const faults: TankLineFault[] = [];
  if (heldM3 > 0) faults.push({ code: "holds", depthM, heldM3 });
  if (way * riseM < 0) faults.push({ code: "wrongWay", byM: -way * riseM });
  if (faults.length > 0) return faults;
  const heights = lineHeights(points, attitude);
  const falls = points.slice(1).flatMap((point, i) => {
    const length = distanceM(points[i] as Position, point);
    return length > 0 ? [(way * ((heights[i + 1] as number) - (heights[i] as number))) / length] : [];
  });
  const fall = Math.min(...falls);
  return fall < LEAST_FALL ? [{ code: "flat", fall }] : [];
}

/** Length of a line along its rounded corners, m. */
export function tankLineLengthM(line: TankLine): number {
  const [from, to] = [line.points[0] as Position, line.points.at(-1) as Position];
  return runGeometry(runOfTankLine(line), { position: from }, { position: to }).lengthM;
}

/** The first line of a use that a tank has. */
export const tankLineOf = (plan: Plan, tank: Tank, use: TankLine["use"]): TankLine | undefined =>
  plan.tankLines?.find((line) => line.tank === tank.id && line.use === use);

/** A place of the vehicle in the tank's frame. */
export function toTankFrame(tank: Tank, { xM, yM, zM }: Position): Position {
  const { origin } = tank;
  const [x, y, z] = intoTank(tank, [xM - origin.xM, yM - origin.yM, zM - origin.zM]);
  return { xM: x, yM: y, zM: z };
}

/**
 * How a tank is filled and vented: what was measured of it, and where its lines are traced what they say instead. A dip
 * of a traced vent is told by the line itself.
 */
export function fillingOf(tank: Tank, plan: Plan): Filling | undefined {
  const { filling } = tank;
  if (!filling) return undefined;
  const [fill, vent] = [tankLineOf(plan, tank, "fill"), tankLineOf(plan, tank, "vent")];
  return {
    ...filling,
    ...(fill && {
      fillHoseBoreM: fill.boreM,
      spill: toTankFrame(tank, fill.points.at(-1) as Position),
    }),
    ...(vent && {
      ventBoreM: vent.boreM,
      ventLengthM: tankLineLengthM(vent),
      ventTop: toTankFrame(tank, vent.points.at(-1) as Position),
      hasDip: false,
    }),
  };
}

/** How far a line that nobody measured goes up from its tank, or a drain down, m. Assumed. */
const FIRST_UP_M = 0.4;
const FIRST_DOWN_M = 0.1;

/** A line to begin with: from the tank's top, or for a drain its bottom, to where its lip or top was measured. */
export function newTankLine(id: string, tank: Tank, use: TankLine["use"], kind: Job["kind"]): TankLine {
  const boreM = commonLineBoreM[use];
  const product = lineHose(kind, boreM);
  const { x, y } = boundsOf(tank.shape);
  const { lowM, highM } = heightsOf(tank);
  const middle = { xM: (x[0] + x[1]) / 2, yM: (y[0] + y[1]) / 2 };
  const inner = fromTank(tank, { ...middle, zM: use === "drain" ? lowM : highM });
  const beside = { ...inner, zM: inner.zM + (use === "drain" ? -FIRST_DOWN_M : FIRST_UP_M) };
  const { filling } = tank;
  const measured = use === "fill" ? filling?.spill : use === "vent" ? filling?.ventTop : undefined;
  const outer = measured ? fromTank(tank, measured) : beside;
  return {
    id,
    tank: tank.id,
    use,
    boreM,
    product,
    points: [inner, distanceM(inner, outer) > 0 ? outer : beside],
    radiusM: product.leastRadiusM + product.outerDiameterM / 2,
  };
}
