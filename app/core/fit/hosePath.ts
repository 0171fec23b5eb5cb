/**
 * The shortest way of a hose that holds its least radius between two ports: straight ends, and between them the shortest
 * path of bounded curvature (L. E. Dubins, American Journal of Mathematics 79, 1957, p. 497; its six words).
 */

export interface Pose {
  xM: number;
  zM: number;
  /** Out of the port. */
  headingDeg: number;
}

export const words = ["LSL", "RSR", "LSR", "RSL", "RLR", "LRL"] as const;
export type Word = (typeof words)[number];

export interface HosePath {
  lengthM: number;
  word: Word;
  /** Turns and the straight or middle turn between: radians, radii (or radians), radians. */
  parts: readonly [number, number, number];
}

const TURN = 2 * Math.PI;
const ROUNDING = 1e-9;
/** Square of a straight so short that it is none. */
const NO_STRAIGHT = 1e-12;
/** Within a turn; what is nearly a whole one is none. */
const turn = (angle: number): number => {
  const one = ((angle % TURN) + TURN) % TURN;
  return TURN - one < 1e-9 ? 0 : one;
};

type Parts = readonly [number, number, number];

/** The three parts of each word for unit radius: start at the origin heading `a`, end at (d, 0) heading `b`. */
function partsOf(word: Word, d: number, a: number, b: number): Parts | null {
  const [sa, ca, sb, cb, cab] = [Math.sin(a), Math.cos(a), Math.sin(b), Math.cos(b), Math.cos(a - b)];
  switch (word) {
    case "LSL": {
      const p2 = 2 + d * d - 2 * cab + 2 * d * (sa - sb);
      if (p2 < -ROUNDING) return null;
      // One bend alone: without a straight its direction is nobody's, and a whole turn could be added.
      if (p2 < NO_STRAIGHT) return [turn(b - a), 0, 0];
      const at = Math.atan2(cb - ca, d + sa - sb);
      return [turn(-a + at), Math.sqrt(Math.max(0, p2)), turn(b - at)];
    }
    case "RSR": {
      const p2 = 2 + d * d - 2 * cab + 2 * d * (sb - sa);
      if (p2 < -ROUNDING) return null;
      if (p2 < NO_STRAIGHT) return [turn(a - b), 0, 0];
      const at = Math.atan2(ca - cb, d - sa + sb);
      return [turn(a - at), Math.sqrt(Math.max(0, p2)), turn(-b + at)];
    }
    case "LSR": {
      const p2 = -2 + d * d + 2 * cab + 2 * d * (sa + sb);
      if (p2 < -ROUNDING) return null;
      const p = Math.sqrt(Math.max(0, p2));
      const at = Math.atan2(-ca - cb, d + sa + sb) - Math.atan2(-2, p);
      return [turn(-a + at), p, turn(-b + at)];
    }
    case "RSL": {
      const p2 = -2 + d * d + 2 * cab - 2 * d * (sa + sb);
      if (p2 < -ROUNDING) return null;
      const p = Math.sqrt(Math.max(0, p2));
      const at = Math.atan2(ca + cb, d - sa - sb) - Math.atan2(2, p);
      return [turn(a - at), p, turn(b - at)];
    }
    case "RLR": {
      const cosine = (6 - d * d + 2 * cab + 2 * d * (sa - sb)) / 8;
      if (Math.abs(cosine) > 1) return null;
      const p = turn(TURN - Math.acos(cosine));
      const t = turn(a - Math.atan2(ca - cb, d - sa + sb) + p / 2);
      return [t, p, turn(a - b - t + p)];
    }
    case "LRL": {
      const cosine = (6 - d * d + 2 * cab + 2 * d * (sb - sa)) / 8;
      if (Math.abs(cosine) > 1) return null;
      const p = turn(TURN - Math.acos(cosine));
      const t = turn(-a - Math.atan2(ca - cb, d + sa - sb) + p / 2);
      return [t, p, turn(turn(b) - a - t + turn(p))];
    }
  }
}

const RAD = Math.PI / 180;
const along = ({ xM, zM, headingDeg }: Pose, m: number): Pose => ({
  xM: xM + m * Math.cos(headingDeg * RAD),
  zM: zM + m * Math.sin(headingDeg * RAD),
  headingDeg,
});

/**
 * @param from a port, heading out of it
 * @param to the other port, heading out of it too
 * @param radiusM least radius to the hose's centre line
 * @param straightM straight at each end
 */
export function hosePath(from: Pose, to: Pose, radiusM: number, straightM: number): HosePath {
  const [a, b] = [along(from, straightM), along(to, straightM)];
  const [dx, dz] = [b.xM - a.xM, b.zM - a.zM];
  const d = Math.hypot(dx, dz) / radiusM;
  const bearing = Math.atan2(dz, dx);
  const [start, end] = [turn(a.headingDeg * RAD - bearing), turn((b.headingDeg + 180) * RAD - bearing)];
  let best: HosePath | null = null;
  for (const word of words) {
    const parts = partsOf(word, d, start, end);
    if (!parts) continue;
    const lengthM = radiusM * (parts[0] + parts[1] + parts[2]) + 2 * straightM;
    if (!best || lengthM < best.lengthM - 1e-9 * radiusM) best = { lengthM, word, parts };
  }
  // LSL and RSR always have an answer.
  return best as HosePath;
}

/** Points along a path, ends first and last, x and z by turns, so near that a bend shows no corner. */
export function pathXz(
  from: Pose,
  to: Pose,
  radiusM: number,
  straightM: number,
  everyM: number,
): Float64Array {
  const { word, parts } = hosePath(from, to, radiusM, straightM);
  const legs: { m: number; sense: number; steps: number }[] = [{ m: straightM, sense: 0, steps: 0 }];
  for (let i = 0; i < 3; i++) {
    const m = (parts[i] as number) * radiusM;
    const letter = word[i];
    if (m > 0) legs.push({ m, sense: letter === "L" ? 1 : letter === "R" ? -1 : 0, steps: 0 });
  }
  legs.push({ m: straightM, sense: 0, steps: 0 });
  let count = 1;
  for (const leg of legs) {
    leg.steps = Math.max(1, Math.ceil(leg.m / everyM));
    count += leg.steps;
  }
  const xz = new Float64Array(2 * count);
  let [x, z, heading] = [from.xM, from.zM, from.headingDeg * RAD];
  xz[0] = x;
  xz[1] = z;
  let k = 2;
  for (const { m, sense, steps } of legs) {
    const half = (sense * m) / steps / radiusM / 2;
    // A step along an arc is its chord, in the heading of its middle.
    const chord = sense === 0 ? m / steps : 2 * radiusM * Math.sin(Math.abs(half));
    for (let i = 0; i < steps; i++) {
      x += chord * Math.cos(heading + half);
      z += chord * Math.sin(heading + half);
      heading += 2 * half;
      xz[k++] = x;
      xz[k++] = z;
    }
  }
  return xz;
}
