/**
 * Kinematic viscosity over temperature through two known points (Walther).
 *
 * log10 log10 Z = A - B log10 T, Z = nu + 0.7 + exp(-1.47 - 1.84 nu - 0.51 nu^2), nu in mm2/s, T in K;
 * back by nu = y - exp(-0.7487 - 3.295 y + 0.6119 y^2 - 0.3193 y^3), y = Z - 0.7.
 * Valid for nu >= 0.21 mm2/s and above the cloud point. Source: ASTM D341 (from memory of the published text).
 */
import { ZERO_CELSIUS_K } from "../units/factors";

export interface ViscosityPoint {
  readonly tempC: number;
  readonly mm2S: number;
}

export const LEAST_VISCOSITY_MM2_S = 0.21;

const z = (nu: number) => nu + 0.7 + Math.exp(-1.47 - 1.84 * nu - 0.51 * nu * nu);
const doubleLog = (nu: number) => Math.log10(Math.log10(z(nu)));

function fromZ(value: number): number {
  const y = value - 0.7;
  return y - Math.exp(-0.7487 - 3.295 * y + 0.6119 * y * y - 0.3193 * y ** 3);
}

/** Viscosity in mm2/s at `tempC`, or null where the law gives none (below 0.21 mm2/s). Points must differ in temperature. */
export function viscosityAt(points: readonly [ViscosityPoint, ViscosityPoint], tempC: number): number | null {
  const [first, second] = points;
  const x1 = Math.log10(first.tempC + ZERO_CELSIUS_K);
  const x2 = Math.log10(second.tempC + ZERO_CELSIUS_K);
  const slope = (doubleLog(second.mm2S) - doubleLog(first.mm2S)) / (x2 - x1);
  const w = doubleLog(first.mm2S) + slope * (Math.log10(tempC + ZERO_CELSIUS_K) - x1);
  const nu = fromZ(10 ** (10 ** w));
  if (!(nu >= LEAST_VISCOSITY_MM2_S) || !Number.isFinite(nu)) return null;
  return nu;
}
