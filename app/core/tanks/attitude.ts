/**
 * How a tank stands. Tank frame: x forward, y to port, z up, right-handed, metres.
 * Pitch positive: front up. Roll positive: starboard down.
 */
import { DEGREE_RAD } from "../units/factors";

export interface Attitude {
  readonly pitchDeg: number;
  readonly rollDeg: number;
}

export const LEVEL: Attitude = { pitchDeg: 0, rollDeg: 0 };

/** Beyond this a tank lies on its side and 'level along its own z' means nothing any more. */
export const STEEPEST_DEG = 60;

/** The true vertical in the tank's axes, unit length. */
export type Up = readonly [x: number, y: number, z: number];

export function upOf({ pitchDeg, rollDeg }: Attitude): Up {
  const pitch = pitchDeg * DEGREE_RAD;
  const roll = rollDeg * DEGREE_RAD;
  return [Math.sin(pitch), Math.cos(pitch) * Math.sin(roll), Math.cos(pitch) * Math.cos(roll)];
}

/** Height of a point along the true vertical, m over the tank's origin. */
export const heightAlong = (up: Up, at: { xM: number; yM: number; zM: number }): number =>
  up[0] * at.xM + up[1] * at.yM + up[2] * at.zM;
