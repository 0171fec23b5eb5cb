/**
 * How a hose lies between two ports of a board: the shortest bent way that passes through nothing, with an elbow at
 * either port or none, in the depth of its ports or in a second lane over low parts.
 *
 *     port o--straight--( bend )------( bend )--straight--o port
 *            |  R, straight between, R: Dubins 1957, six words  |
 */

import { hosePath, type Pose, pathXz } from "./hosePath";
import type { Box, Solid } from "./panel";

/** A port in the board's frame: `dir` counts quarters from the right, up, left, down; `y` is how far it stands out. */
export interface BoardPort {
  x: number;
  z: number;
  dir: number;
  y: number;
}

export interface HoseToLay {
  from: BoardPort;
  to: BoardPort;
  /** Whose ports these are; null at the board's edge. */
  fromPart: number | null;
  toPart: number | null;
  /** Least radius to the centre line, m. */
  radiusM: number;
  outerM: number;
}

/** A box that no hose may pass, of the part of that number. */
export interface Obstacle extends Solid {
  of: number;
}

export interface Laid {
  /** Cut length along the centre line, elbows left out, m. */
  lengthM: number;
  /** Quarter turns of the elbow at each end: -1 to the right, 1 to the left, 0 without. */
  elbows: readonly [number, number];
  /** How far out it lies between its ends, m. */
  laneM: number;
  /** The hose is too short to be one: a nipple, or the ports screwed together. */
  isNipple: boolean;
  /** Where it begins, and its points from there, x and z by turns. */
  fromM: readonly [number, number];
  xzM: Float64Array;
  /** Nothing stood in its way: the cheapest of all ways. */
  isShortest: boolean;
  /** Parts whose body or service room it passes through, by number; -1 for the edge of where hoses may run. */
  through: readonly number[];
}

/** Straight at each end before a bend may begin. Common practice, no source. */
export const STRAIGHT_M = 0.025;
/** How far an elbow stands out of its port before it turns. Common practice, no source: small pipe elbows. */
export const ELBOW_M = 0.025;
/** What an elbow is worth in hose when two ways are compared: a joint more to leak. A choice. */
export const ELBOW_WORTH_M = 0.04;
/** Points along a hose are this near, so that no body of a part slips between two of them. */
const EVERY_M = 0.01;
/** Ports that face each other this exactly are joined by a nipple, however near. */
const FACING_M = 0.0015;
const LONGEST_NIPPLE_M = 0.15;

const cos = [1, 0, -1, 0] as const;
const sin = [0, 1, 0, -1] as const;
const quarter = (dir: number) => ((dir % 4) + 4) % 4;
const headingX = (dir: number) => cos[quarter(dir)] as number;
const headingZ = (dir: number) => sin[quarter(dir)] as number;

interface Candidate {
  lengthM: number;
  costM: number;
  elbows: readonly [number, number];
  isNipple: boolean;
  poses: readonly [Pose, Pose];
  radiusM: number;
  /** From the first port's place; made when first asked for. */
  way: Way | null;
}

/** Points of a way, x and z by turns, and the box round them. */
interface Way {
  xz: Float64Array;
  x0: number;
  x1: number;
  z0: number;
  z1: number;
}

/** Where the hose begins at a port: turned by its elbow. */
function begins(port: { x: number; z: number; dir: number }, elbow: number): Pose {
  const out = elbow === 0 ? 0 : ELBOW_M;
  return {
    xM: port.x + out * headingX(port.dir),
    zM: port.z + out * headingZ(port.dir),
    headingDeg: quarter(port.dir + elbow) * 90,
  };
}

const elbowChoices = [0, 1, -1] as const;

/** Every way between two ports that stand `x`, `z` apart, dearest last. */
function candidatesOf(
  x: number,
  z: number,
  fromDir: number,
  toDir: number,
  radiusM: number,
  withElbows: boolean,
): Candidate[] {
  const found: Candidate[] = [];
  const choices = withElbows ? elbowChoices : ([0] as const);
  const aheadM = x * headingX(fromDir) + z * headingZ(fromDir);
  const asideM = Math.abs(x * headingZ(fromDir) - z * headingX(fromDir));
  if (
    quarter(fromDir + 2) === quarter(toDir) &&
    asideM < FACING_M &&
    aheadM > 0 &&
    aheadM <= LONGEST_NIPPLE_M
  ) {
    const poses = [begins({ x: 0, z: 0, dir: fromDir }, 0), begins({ x, z, dir: toDir }, 0)] as const;
    found.push({
      lengthM: aheadM,
      costM: aheadM,
      elbows: [0, 0],
      isNipple: true,
      poses,
      radiusM,
      way: null,
    });
  }
  for (const first of choices) {
    for (const second of choices) {
      const poses = [
        begins({ x: 0, z: 0, dir: fromDir }, first),
        begins({ x, z, dir: toDir }, second),
      ] as const;
      const { lengthM } = hosePath(poses[0], poses[1], radiusM, STRAIGHT_M);
      const elbows = Math.abs(first) + Math.abs(second);
      found.push({
        lengthM,
        costM: lengthM + elbows * (ELBOW_M + ELBOW_WORTH_M),
        elbows: [first, second],
        isNipple: false,
        poses,
        radiusM,
        way: null,
      });
    }
  }
  return found.sort((a, b) => a.costM - b.costM);
}

function wayOf(one: Candidate): Way {
  if (one.way) return one.way;
  const [from, to] = one.poses;
  const xz = one.isNipple
    ? Float64Array.of(from.xM, from.zM, to.xM, to.zM)
    : pathXz(from, to, one.radiusM, STRAIGHT_M, EVERY_M);
  let [x0, x1, z0, z1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let i = 0; i < xz.length; i += 2) {
    const [x, z] = [xz[i] as number, xz[i + 1] as number];
    x0 = Math.min(x0, x);
    x1 = Math.max(x1, x);
    z0 = Math.min(z0, z);
    z1 = Math.max(z1, z);
  }
  one.way = { xz, x0, x1, z0, z1 };
  return one.way;
}

/** Ways by how the ports stand to each other, kept: an arrangement asks for the same again and again. */
const MOST_KEPT = 40000;
const kept = new Map<string, Map<number, Candidate[]>>();
let held = 0;
const TENTH_MM = 1e4;
/** Tenths of a millimetre to either side that a key has room for. */
const KEY_SPAN = 2 ** 16;

function waysBetween({ from, to, radiusM }: HoseToLay, withElbows: boolean): Candidate[] {
  const [x, z] = [to.x - from.x, to.z - from.z];
  const kind = `${radiusM}${withElbows}`;
  const [kx, kz] = [Math.round(x * TENTH_MM) + KEY_SPAN, Math.round(z * TENTH_MM) + KEY_SPAN];
  const key = (kx * 2 * KEY_SPAN + kz) * 16 + quarter(from.dir) * 4 + quarter(to.dir);
  let alike = kept.get(kind);
  const had = alike?.get(key);
  if (had) return had;
  if (held >= MOST_KEPT) {
    kept.clear();
    held = 0;
    alike = undefined;
  }
  if (!alike) kept.set(kind, (alike = new Map()));
  const ways = candidatesOf(x, z, from.dir, to.dir, radiusM, withElbows);
  alike.set(key, ways);
  held++;
  return ways;
}

/** The least that a hose can be worth, nothing in its way, m. */
export const leastWorthM = (hose: HoseToLay, withElbows: boolean): number =>
  (waysBetween(hose, withElbows)[0] as Candidate).costM;

const NO_ONE: readonly number[] = [];

/** Whom a way passes through; with `first` it stops at the first. */
function passes(
  candidate: Candidate,
  hose: HoseToLay,
  laneM: number,
  obstacles: readonly Obstacle[],
  area: Box,
  first: boolean,
): readonly number[] {
  const half = hose.outerM / 2;
  const way = wayOf(candidate);
  const { x: dx, z: dz } = hose.from;
  const [x0, x1, z0, z1] = [way.x0 + dx, way.x1 + dx, way.z0 + dz, way.z1 + dz];
  const isOut =
    x0 < area.x - FACING_M ||
    x1 > area.x + area.w + FACING_M ||
    z0 < area.z - FACING_M ||
    z1 > area.z + area.h + FACING_M;
  if (isOut && first) return [-1];
  const least = Math.min(laneM, hose.from.y, hose.to.y) - half;
  const most = Math.max(laneM, hose.from.y, hose.to.y) + half;
  const near = obstacles.filter(
    (box) =>
      box.y0 < most &&
      box.y1 > least &&
      box.x - half < x1 &&
      box.x + box.w + half > x0 &&
      box.z - half < z1 &&
      box.z + box.h + half > z0 &&
      // A nipple between two ports touches nothing but them.
      !(candidate.isNipple && (box.of === hose.fromPart || box.of === hose.toPart)),
  );
  if (near.length === 0) return isOut ? [-1] : NO_ONE;
  const met = new Set<number>(isOut ? [-1] : []);
  const last = way.xz.length / 2 - 1;
  // At its ends it lies as deep as its port; where it climbs it takes both depths, over one bend's length.
  const nearPort = Math.ceil(STRAIGHT_M / EVERY_M);
  const climb = nearPort + Math.ceil(hose.radiusM / EVERY_M);
  for (const box of near) {
    const [left, right] = [box.x - half - dx, box.x + box.w + half - dx];
    const [foot, top] = [box.z - half - dz, box.z + box.h + half - dz];
    for (let i = 0; i <= last; i++) {
      const x = way.xz[2 * i] as number;
      if (x <= left || x >= right) continue;
      const z = way.xz[2 * i + 1] as number;
      if (z <= foot || z >= top) continue;
      const fromEnd = last - i;
      if (box.of === hose.fromPart && i <= nearPort) continue;
      if (box.of === hose.toPart && fromEnd <= nearPort) continue;
      let [low, high] = [laneM, laneM];
      if (i <= nearPort) low = high = hose.from.y;
      else if (fromEnd <= nearPort) low = high = hose.to.y;
      else {
        if (i <= climb) [low, high] = [Math.min(low, hose.from.y), Math.max(high, hose.from.y)];
        if (fromEnd <= climb) [low, high] = [Math.min(low, hose.to.y), Math.max(high, hose.to.y)];
      }
      if (high + half <= box.y0 || low - half >= box.y1) continue;
      if (first) return [box.of];
      met.add(box.of);
      break;
    }
  }
  return [...met];
}

/**
 * @param lanes further depths that a hose may take over low parts, m out of the board
 * @param area where hoses may run
 * @param dearestM what costs more is not tried
 */
export function layHose(
  hose: HoseToLay,
  obstacles: readonly Obstacle[],
  area: Box,
  lanes: readonly number[],
  withElbows: boolean,
  dearestM = Infinity,
): Laid {
  const ways = waysBetween(hose, withElbows);
  const own = Math.max(hose.from.y, hose.to.y);
  const climbM = (lane: number) => Math.abs(lane - hose.from.y) + Math.abs(lane - hose.to.y);
  let best: { way: Candidate; laneM: number; costM: number } | null = null;
  for (const way of ways) {
    if (way.costM >= (best?.costM ?? dearestM)) break;
    for (const laneM of [own, ...lanes]) {
      // A nipple has no lane but its own.
      if (way.isNipple && laneM !== own) continue;
      const costM = way.costM + climbM(laneM);
      if (best && costM >= best.costM) continue;
      if (passes(way, hose, laneM, obstacles, area, true).length === 0) best = { way, laneM, costM };
    }
  }
  // ways always hold the straight one.
  const { way, laneM } = best ?? { way: ways[0] as Candidate, laneM: own };
  return {
    lengthM: way.lengthM + (way.isNipple ? 0 : climbM(laneM)),
    elbows: way.elbows,
    laneM,
    isNipple: way.isNipple,
    fromM: [hose.from.x, hose.from.z],
    xzM: wayOf(way).xz,
    isShortest: way === ways[0] && laneM === own,
    through: best ? [] : passes(way, hose, laneM, obstacles, area, false),
  };
}

/** What a way is worth, elbows counted as hose, m. */
export const worthM = ({ lengthM, elbows }: Laid): number =>
  lengthM + (Math.abs(elbows[0]) + Math.abs(elbows[1])) * (ELBOW_M + ELBOW_WORTH_M);
