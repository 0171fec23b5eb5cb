/**
 * How a tank stands. Tank frame: x forward, y to port, z up, right-handed, metres.
 * Pitch positive: front up. Roll positive: starboard down.
 */
import { intoTank } from "../plan/ports";
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

/** The attitude whose vertical is `up`: the inverse of {@link upOf}. */
export const attitudeOf = ([x, y, z]: Up): Attitude => ({
  pitchDeg: Math.asin(Math.max(-1, Math.min(1, x))) / DEGREE_RAD,
  rollDeg: Math.atan2(y, z) / DEGREE_RAD,
});

/** How a tank lies in its vehicle: turned about the vertical, and fitted at a tilt. */
export interface Lying {
  yawDeg?: number;
  installed?: Attitude;
}

const isLying = ({ yawDeg = 0, installed }: Lying): boolean =>
  yawDeg !== 0 || (installed !== undefined && (installed.pitchDeg !== 0 || installed.rollDeg !== 0));

/** How a tank stands when its vehicle stands at `attitude`. */
export const tankAttitude = (tank: Lying, attitude: Attitude): Attitude =>
  isLying(tank) ? attitudeOf(intoTank(tank, upOf(attitude))) : attitude;

/** How a tank stands when its vehicle stands level. */
export const fittedAttitude = (tank: Lying): Attitude => tank.installed ?? LEVEL;

/** Height of a point along the true vertical, m over the tank's origin. */
export const heightAlong = (up: Up, at: { xM: number; yM: number; zM: number }): number =>
  up[0] * at.xM + up[1] * at.yM + up[2] * at.zM;
