/**
 * Settling of a droplet in still fuel: v = d^2 (rho_w - rho_f) g / (18 mu). Re of the droplet under 0.1, which holds
 * for water under 200 micron in diesel. Source: G. G. Stokes 1851; any text on sedimentation.
 */
import { GRAVITY_M_S2 } from "../units/factors";

export interface Droplet {
  /** m */
  diameterM: number;
  /** kg/m3, water less fuel */
  densityDifferenceKgM3: number;
  /** Dynamic viscosity of the fuel, Pa s. */
  dynamicPaS: number;
}

/** Downward velocity, m/s. */
export const stokesVelocityMS = ({ diameterM, densityDifferenceKgM3, dynamicPaS }: Droplet): number =>
  (diameterM * diameterM * densityDifferenceKgM3 * GRAVITY_M_S2) / (18 * dynamicPaS);
