/** Where a run lies in the vehicle: its points, places along it, and the high and low points that hold air and water. */

import type { Position } from "../kinds/record";
import type { PlacedPort } from "./ports";
import { distanceM } from "./ports";
import { runGeometry } from "./route";
import type { Run } from "./types";

type Placed = Pick<PlacedPort, "position">;

/** Points of a run from end to end, job frame. Of a measured run only heights are known: it is laid straight in plan. */
export function pointsOf(run: Run, from: Placed, to: Placed): Position[] {
  if (run.route.kind === "traced") return [from.position, ...run.route.points, to.position];
  const { profile, lengthM } = runGeometry(run, from, to);
  return profile.map(({ atM, zM }) => {
    const share = lengthM > 0 ? atM / lengthM : 0;
    return {
      xM: from.position.xM + share * (to.position.xM - from.position.xM),
      yM: from.position.yM + share * (to.position.yM - from.position.yM),
      zM,
    };
  });
}

/** Place at a share of the drawn way, 0 to 1. */
export function placeAlong(points: readonly Position[], share: number): Position {
  const lengths = points.slice(1).map((point, i) => distanceM(points[i] as Position, point));
  let left = share * lengths.reduce((sum, length) => sum + length, 0);
  for (let i = 0; i < lengths.length; i++) {
    const length = lengths[i] as number;
    if (left <= length || i === lengths.length - 1) {
      const [a, b] = [points[i] as Position, points[i + 1] as Position];
      const s = length > 0 ? Math.min(1, left / length) : 0;
      return { xM: a.xM + s * (b.xM - a.xM), yM: a.yM + s * (b.yM - a.yM), zM: a.zM + s * (b.zM - a.zM) };
    }
    left -= length;
  }
  return points[0] as Position;
}

export interface Extreme {
  kind: "high" | "low";
  /** Index in the points. */
  at: number;
  /** How far it stands over, or under, the lower, or higher, of its sides. */
  byM: number;
}

/** Less than this is no place for a bubble to stay. Common practice, no source. */
const LEAST_EXTREME_M = 0.005;

/** Points that stand over or under both their neighbours, flats taken as one: air stays at a high, water at a low. */
export function extremesOf(points: readonly Position[]): Extreme[] {
  const found: Extreme[] = [];
  for (let i = 1; i < points.length - 1; i++) {
    const z = (points[i] as Position).zM;
    const before = points.slice(0, i).findLast((point) => point.zM !== z);
    const after = points.slice(i + 1).find((point) => point.zM !== z);
    // Of a flat the first point stands for it.
    if (!before || !after || (points[i - 1] as Position).zM === z) continue;
    const [up, down] = [Math.min(z - before.zM, z - after.zM), Math.min(before.zM - z, after.zM - z)];
    if (up > LEAST_EXTREME_M) found.push({ kind: "high", at: i, byM: up });
    else if (down > LEAST_EXTREME_M) found.push({ kind: "low", at: i, byM: down });
  }
  return found;
}
