/** What runs out of a line that is opened, and what a tank gives through it. Still fuel, no air lock: the sure part. */
import { blowThrough } from "../laws/blowThrough";
import { runsOut } from "../laws/runOut";

/** A line is looked at in cells of this length, m. */
const CELL_M = 0.005;

export interface LinePoint {
  atM: number;
  zM: number;
}

export interface Drained {
  outM3: number;
  staysM3: number;
}

/** Height along a line of straight legs, at the middle of each cell. */
function cellHeights(points: readonly LinePoint[]): { zM: number; longM: number }[] {
  const cells: { zM: number; longM: number }[] = [];
  points.slice(1).forEach((to, i) => {
    const from = points[i] as LinePoint;
    const longM = to.atM - from.atM;
    const count = Math.max(1, Math.ceil(longM / CELL_M));
    for (let k = 0; k < count; k++) {
      cells.push({ zM: from.zM + ((to.zM - from.zM) * (k + 0.5)) / count, longM: longM / count });
    }
  });
  return cells;
}

/** One of the lines of a way, from the end where the way comes to it. */
export interface Line {
  points: readonly LinePoint[];
  areaM2: number;
}

/**
 * Full lines one behind the other, opened at the ends of the whole: fuel stays where it lies under the least height that
 * its way to an opening climbs.
 * @param open the ends that are open, so that fuel runs out and air in
 * @returns by line
 */
export function drainedLines(lines: readonly Line[], open: readonly ("from" | "to")[]): Drained[] {
  const cells = lines.flatMap(({ points }, line) => cellHeights(points).map((cell) => ({ ...cell, line })));
  const heights = cells.map(({ zM }) => zM);
  const fromStart = open.includes("from") ? runsOut(heights) : null;
  const fromEnd = open.includes("to") ? runsOut([...heights].reverse()).reverse() : null;
  const outM = lines.map(() => 0);
  const staysM = lines.map(() => 0);
  cells.forEach(({ longM, line }, i) => {
    const sums = fromStart?.[i] || fromEnd?.[i] ? outM : staysM;
    sums[line] = (sums[line] as number) + longM;
  });
  return lines.map(({ areaM2 }, i) => ({
    outM3: (outM[i] as number) * areaM2,
    staysM3: (staysM[i] as number) * areaM2,
  }));
}

/** A full line opened at its ends. */
export const drained = (
  points: readonly LinePoint[],
  areaM2: number,
  open: readonly ("from" | "to")[],
): Drained => drainedLines([{ points, areaM2 }], open)[0] as Drained;

/** Gas that a shop's regulator gives, and the share that stays where it does not carry the fuel up. Assumed. */
const GAS_M3_S = 60 / 60000;
const BLOWN_AT_PA = 35e3;
const HOLDUP = 0.3;

/** What stays in the rises of a line that was blown through from its `from` end, m3: never more than was in its dips. */
export function leftAfterBlowingM3(
  points: readonly LinePoint[],
  boreM: number,
  heldM3: number,
  densityKgM3: number,
): number {
  const left = points.slice(1).reduce((sum, to, i) => {
    const from = points[i] as LinePoint;
    const [riseM, longM] = [to.zM - from.zM, to.atM - from.atM];
    if (riseM <= 0 || longM <= 0) return sum;
    const rise = { boreM, riseM, riseRad: Math.asin(Math.min(1, riseM / longM)) };
    const gas = { blowPa: BLOWN_AT_PA, gasM3S: GAS_M3_S, holdup: HOLDUP };
    return sum + blowThrough(rise, gas, densityKgM3).leftM3;
  }, 0);
  return Math.min(heldM3, left);
}

/**
 * What a tank with straight sides gives through a primed line that is opened: down to its mouth or to the opening, the
 * higher. Levels and the mouth are over the tank's floor, the floor and the opening over one datum.
 */
export function siphonedM3(
  footM2: number,
  {
    floorZM,
    levelM,
    mouthM,
    openingZM,
    isShut,
  }: { floorZM: number; levelM: number; mouthM: number; openingZM: number; isShut: boolean },
): number {
  return isShut ? 0 : footM2 * Math.max(0, levelM - Math.max(mouthM, openingZM - floorZM));
}
