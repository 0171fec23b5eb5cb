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

function traced(
  points: readonly Position[],
): Pick<RunGeometry, "lengthM" | "bends45" | "bends90" | "profile"> {
  let atM = 0;
  let bends45 = 0;
  let bends90 = 0;
  const profile = points.map((point, i) => {
    const before = points[i - 1];
    const after = points[i + 1];
    if (before) atM += distanceM(before, point);
    if (before && after) {
      const turn = turnDeg(before, point, after);
      bends90 += Math.floor((turn + 22.5) / 90);
      if (turn % 90 > 22.5 && turn % 90 < 67.5) bends45 += 1;
    }
    return { atM, zM: point.zM };
  });
  return { lengthM: atM, bends45, bends90, profile };
}

/** The one function that gives length, rise, bends, high and low points of a run. */
export function runGeometry(run: Run, from: PlacedPort, to: PlacedPort): RunGeometry {
  const straightM = distanceM(from.position, to.position);
  const riseM = to.position.zM - from.position.zM;
  if (run.route.kind === "traced") {
    return { ...traced([from.position, ...run.route.points, to.position]), riseM, straightM };
  }
  const { lengthM, bends, extremes } = run.route;
  const count = (deg: 45 | 90) => bends.reduce((sum, bend) => sum + (bend.deg === deg ? bend.count : 0), 0);
  const between = [...extremes].sort((a, b) => a.atM - b.atM);
  const profile = [{ atM: 0, zM: from.position.zM }, ...between, { atM: lengthM, zM: to.position.zM }];
  return { lengthM, riseM, straightM, bends90: count(90), bends45: count(45), profile };
}

/** Volume inside a run, m3. */
export const runVolumeM3 = (boreM: number, lengthM: number) => areaM2(boreM) * lengthM;
