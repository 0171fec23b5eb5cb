/**
 * Air in a line of fuel. A pocket on a slope is carried down only by a flow over (0.25 sqrt(sin) + 0.825) sqrt(g D)
 * (P. E. Wisner, F. N. Mohsen, N. Kouwen, J. Hydraulics Div. ASCE 101, 1975, p. 295); in still fuel a long bubble rises at
 * 0.351 sqrt(g D) (D. T. Dumitrescu 1943; R. M. Davies, G. I. Taylor 1950), and not at all below an Eotvos number of
 * 3.37 (F. P. Bretherton, J. Fluid Mech. 10, 1961, p. 166). From memory of these texts.
 */
import { GRAVITY_M_S2 } from "../units/factors";

/** Air at 20 degC. */
export const AIR_KG_M3 = 1.2;
export const AIR_PA_S = 18e-6;
/** Of diesel against air. From memory: 25 to 28 mN/m. */
export const FUEL_TENSION_N_M = 0.027;
const STUCK_EOTVOS = 3.37;
const RISES = 0.351;

/** Weight of a bubble's lack against the surface that holds it. */
export const eotvos = (boreM: number, densityKgM3: number, tensionNM: number): number =>
  ((densityKgM3 - AIR_KG_M3) * GRAVITY_M_S2 * boreM ** 2) / tensionNM;

export const isStuck = (boreM: number, densityKgM3: number, tensionNM: number): boolean =>
  eotvos(boreM, densityKgM3, tensionNM) < STUCK_EOTVOS;

/** Velocity of a long bubble upwards in still fuel, m/s; null where it sticks. */
export const bubbleRiseMS = (boreM: number, densityKgM3: number, tensionNM: number): number | null =>
  isStuck(boreM, densityKgM3, tensionNM)
    ? null
    : RISES * Math.sqrt((GRAVITY_M_S2 * boreM * (densityKgM3 - AIR_KG_M3)) / densityKgM3);

/** Velocity over which a pocket is carried down a slope, m/s; nothing holds it where it is too small to rise. */
export const clearingMS = (
  boreM: number,
  slopeRad: number,
  densityKgM3: number,
  tensionNM: number,
): number =>
  isStuck(boreM, densityKgM3, tensionNM)
    ? 0
    : (0.25 * Math.sqrt(Math.sin(slopeRad)) + 0.825) * Math.sqrt(GRAVITY_M_S2 * boreM);

/** Pressure that drives air through a wetted pore, Pa: 4 sigma cos / d (Young and Laplace, as in ASTM F316). */
export const bubblePointPa = (poreM: number, contactRad: number, tensionNM: number): number =>
  (4 * tensionNM * Math.cos(contactRad)) / poreM;
