/**
 * A dry line that fuel runs into by its own weight: Hagen-Poiseuille on the wetted part and hydrostatics,
 * dx/dt = k (h + s x) / x with k = g D^2 / (32 nu), s the sine of its fall. Closed form after E. W. Washburn, Phys. Rev. 17,
 * 1921, p. 273, with gravity and without capillarity. Laminar: Re under 2300.
 */
import { GRAVITY_M_S2 } from "../units/factors";

export interface GravityFill {
  /** Null where it stops short of the end. */
  seconds: number | null;
  reachedM: number;
  /** At the end of the line; null where it stops short. */
  endReynolds: number | null;
}

/** @param slopeRad downwards; a line that rises has less than nothing */
export function gravityFill(
  { boreM, lengthM, slopeRad, headM }: { boreM: number; lengthM: number; slopeRad: number; headM: number },
  kinematicM2S: number,
): GravityFill {
  const sine = Math.sin(slopeRad);
  const k = (GRAVITY_M_S2 * boreM ** 2) / (32 * kinematicM2S);
  const stopsM = sine < 0 ? headM / -sine : Number.POSITIVE_INFINITY;
  if (stopsM <= lengthM) return { seconds: null, reachedM: stopsM, endReynolds: null };
  // A line that is as good as level: the series of the logarithm would lose all its figures.
  const isLevel = Math.abs((sine * lengthM) / headM) < 1e-6;
  const seconds = isLevel
    ? lengthM ** 2 / (2 * k * headM)
    : (lengthM / sine - (headM / sine ** 2) * Math.log1p((sine * lengthM) / headM)) / k;
  return {
    seconds,
    reachedM: lengthM,
    endReynolds: (((k * (headM + sine * lengthM)) / lengthM) * boreM) / kinematicM2S,
  };
}
