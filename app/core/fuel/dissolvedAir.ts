/**
 * Air dissolved in fuel, and what comes out of it under vacuum.
 *
 * Ostwald coefficient L = 7.70 (0.980 - d) * 0.300 exp[0.639 (700 - T)/T ln(3.333 L0)], L0 = 0.098 for air,
 * d density at 15 degC in kg/L, T in K. Source: form of ASTM D2779 (from memory).
 * Free-air fraction of fuel saturated at p0 when brought to p: L (p0 - p)/(p - pv) (Henry's law, bubble full of vapour).
 */
import { ZERO_CELSIUS_K } from "../units/factors";

const OSTWALD_AIR_REFERENCE = 0.098;

/** Volume of air (at its own pressure and temperature) dissolved in a volume of fuel. */
export function ostwaldAir(density15KgM3: number, tempC: number): number {
  const t = tempC + ZERO_CELSIUS_K;
  const reference = 0.3 * Math.exp(0.639 * ((700 - t) / t) * Math.log(3.333 * OSTWALD_AIR_REFERENCE));
  return 7.7 * reference * (0.98 - density15KgM3 / 1000);
}

/** Volume of free air a volume of fuel (0 where the fuel is not under vacuum), or null where it boils. All pressures absolute, Pa. */
export function freeAirFraction(
  ostwald: number,
  saturatedPa: number,
  pressurePa: number,
  vapourPa: number,
): number | null {
  if (!(pressurePa > vapourPa)) return null;
  if (pressurePa >= saturatedPa) return 0;
  return (ostwald * (saturatedPa - pressurePa)) / (pressurePa - vapourPa);
}
