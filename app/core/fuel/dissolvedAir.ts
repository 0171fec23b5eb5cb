/**
 * Air dissolved in fuel, and what comes out of it under vacuum.
 *
 * Ostwald coefficient L = 7.70 (0.980 - d) * 0.300 exp[0.639 (700 - T)/T ln(3.333 L0)], L0 = 0.098 for air,
 * d density at 15 degC in kg/L, T in K. Source: form of ASTM D2779 (from memory).
 * Free-air fraction of fuel saturated at p0 when brought to p: L (p0 - p)/(p - pv) (Henry's law, bubble full of vapour).
 */
import { STANDARD_ATMOSPHERE_PA, ZERO_CELSIUS_K } from "../units/factors";

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

/**
 * Time in which most of the air that fuel is over its saturation comes out of it, s. Bubbles need time to grow: what
 * passes a short vacuum keeps its air. Assumed, from memory of tests of gas release in pipes (1 to 10 s); no handbook figure.
 */
const RELEASE_S = 4;

/** Share of the air over saturation that has come out after a time under vacuum. */
export const releasedShare = (seconds: number): number => 1 - Math.exp(-seconds / RELEASE_S);

/** Diesel at 15 degC, of which practice's figures for suction are told. */
const TOLD_OF_KG_M3 = 840;
const TOLD_AT_C = 15;

/**
 * Free air that harms: what diesel at sea level gives off, all of it, at the suction at which practice changes a filter.
 * Less shows as bubbles in a clear line (1 % is where they are said to be seen) and goes through. Common practice, no source.
 */
export const harmfulAirFraction = (suctionChangePa: number): number =>
  freeAirFraction(
    ostwaldAir(TOLD_OF_KG_M3, TOLD_AT_C),
    STANDARD_ATMOSPHERE_PA,
    STANDARD_ATMOSPHERE_PA - suctionChangePa,
    0,
  ) ?? 1;
