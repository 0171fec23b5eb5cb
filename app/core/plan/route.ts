import type { Position } from "../kinds/record";
import { areaM2 } from "../units/bore";
import { distanceM, type PlacedPort } from "./ports";
import type { Run } from "./types";

export interface RunGeometry {
  lengthM: number;
  /** Height of `to` over `from`: the difference of the ports, never stored. */
  riseM: number;
  bends90: number;
  bends45: number;
  /** Heights along the run from `from` (0) to `to` (lengthM), ascending. */
  profile: { atM: number; zM: number }[];
  straightM: number;
}

/** A hose laid dead straight still measures a little over the ports' distance; this much under is a slip of the tape. */
const TAPE_SLIP_M = 0.001;

export const isTooShort = (geometry: RunGeometry) => geometry.lengthM < geometry.straightM - TAPE_SLIP_M;

function turnDeg(a: Position, b: Position, c: Position): number {
  const ab = distanceM(a, b);
  const bc = distanceM(b, c);
  if (ab === 0 || bc === 0) return 0;
  const dot = (b.xM - a.xM) * (c.xM - b.xM) + (b.yM - a.yM) * (c.yM - b.yM) + (b.zM - a.zM) * (c.zM - b.zM);
  return (Math.acos(Math.max(-1, Math.min(1, dot / (ab * bc)))) * 180) / Math.PI;
}

/** A turn under this is none: what is left of rounding. */
const STRAIGHT_RAD = 1e-9;

interface Corner {
  turnRad: number;
  /** Largest radius, to the centre line, that the legs on both sides hold if each gives half of itself. */
  fitsM: number;
}

const cornersOf = (points: readonly Position[]): Corner[] =>
  points.slice(1, -1).map((point, i) => {
    const [before, after] = [points[i] as Position, points[i + 2] as Position];
    const turnRad = (turnDeg(before, point, after) * Math.PI) / 180;
    const setback = Math.tan(turnRad / 2);
    const leg = (from: Position, isEnd: boolean) => distanceM(from, point) * (isEnd ? 1 : 0.5);
    const most = Math.min(leg(before, i === 0), leg(after, i === points.length - 3));
    return { turnRad, fitsM: turnRad < STRAIGHT_RAD ? Number.POSITIVE_INFINITY : most / setback };
  });

/** Largest radius to the centre line that all corners of a traced run hold, m; infinite where it turns nowhere. */
export const fittingRadiusM = (points: readonly Position[]): number =>
  Math.min(Number.POSITIVE_INFINITY, ...cornersOf(points).map(({ fitsM }) => fitsM));

/**
 * A line of legs with rounded corners: each corner saves 2 R tan(b/2) - b R of the way round by its point, R to the
 * centre line. A corner that has no room for the radius is rounded as far as it has.
 */
function traced(
  points: readonly Position[],
  radiusM: number,
): Pick<RunGeometry, "lengthM" | "bends45" | "bends90" | "profile"> {
  const saved = [
    0,
    ...cornersOf(points).map(({ turnRad, fitsM }) => {
      if (turnRad < STRAIGHT_RAD) return 0;
      const radius = Math.min(radiusM, fitsM);
      return 2 * radius * Math.tan(turnRad / 2) - turnRad * radius;
    }),
    0,
  ];
  let sharpM = 0;
  let savedM = 0;
  let bends45 = 0;
  let bends90 = 0;
  const profile = points.map((point, i) => {
    const before = points[i - 1];
    const after = points[i + 1];
    if (before) sharpM += distanceM(before, point);
    if (before && after) {
      const turn = turnDeg(before, point, after);
      bends90 += Math.floor((turn + 22.5) / 90);
      if (turn % 90 > 22.5 && turn % 90 < 67.5) bends45 += 1;
    }
    const here = saved[i] as number;
    const atM = sharpM - savedM - here / 2;
    savedM += here;
    return { atM, zM: point.zM };
  });
  return { lengthM: sharpM - savedM, bends45, bends90, profile };
}

/** An arc of a traced run, by its distance along it, and how far it turns. */
export interface Bend {
  fromM: number;
  toM: number;
  turnRad: number;
}

/** The arcs of a traced run in their order, along its rounded length; a corner without room is rounded as far as it has. */
export function bendsAlong(points: readonly Position[], radiusM: number): Bend[] {
  let atM = 0;
  return cornersOf(points).flatMap(({ turnRad, fitsM }, i) => {
    const leg = distanceM(points[i] as Position, points[i + 1] as Position);
    if (turnRad < STRAIGHT_RAD) {
      atM += leg;
      return [];
    }
    const radius = Math.min(radiusM, fitsM);
    const setback = radius * Math.tan(turnRad / 2);
    const fromM = atM + leg - setback;
    const toM = fromM + radius * turnRad;
    // The next leg begins at the corner itself: what its setback takes stands before it.
    atM = toM - setback;
    return [{ fromM, toM, turnRad }];
  });
}

type Placed = Pick<PlacedPort, "position">;

/** The one function that gives length, rise, bends, high and low points of a run. */
export function runGeometry(run: Run, from: Placed, to: Placed): RunGeometry {
  const straightM = distanceM(from.position, to.position);
  const riseM = to.position.zM - from.position.zM;
  if (run.route.kind === "traced") {
    return {
      ...traced([from.position, ...run.route.points, to.position], run.route.radiusM),
      riseM,
      straightM,
    };
  }
  const { lengthM, bends, extremes } = run.route;
  const count = (deg: 45 | 90) => bends.reduce((sum, bend) => sum + (bend.deg === deg ? bend.count : 0), 0);
  const between = [...extremes].sort((a, b) => a.atM - b.atM);
  const profile = [{ atM: 0, zM: from.position.zM }, ...between, { atM: lengthM, zM: to.position.zM }];
  return { lengthM, riseM, straightM, bends90: count(90), bends45: count(45), profile };
}

/** Volume inside a run, m3. */
export const runVolumeM3 = (boreM: number, lengthM: number) => areaM2(boreM) * lengthM;
