/**
 * Density of a petroleum fuel over temperature.
 *
 * rho = r15 exp(-a dT (1 + 0.8 a dT)), dT = t - 15 degC, a = K0/r15^2 + K1/r15.
 * Valid for -18..+150 degC and 653..1075 kg/m3.
 * Source: ASTM D1250-80 / API MPMS chapter 11.1 (constants from memory of the published text).
 */
import type { Celsius, KilogramPerCubicMetre } from "../units/brands";

/** Product groups of the standard: the constants go by product, not by density alone. */
export type DensityProduct = "petrol" | "transition" | "jet" | "fuelOil";

export const densityProductByDensity = (density15KgM3: number): DensityProduct => {
  if (density15KgM3 <= 770.352) return "petrol";
  if (density15KgM3 < 787.5195) return "transition";
  return density15KgM3 < 838.3127 ? "jet" : "fuelOil";
};

/** Thermal expansion at 15 degC, per K. */
export function thermalExpansionPerK(density15KgM3: number, product: DensityProduct): number {
  const r = density15KgM3;
  switch (product) {
    case "petrol":
      return 346.4228 / r ** 2 + 0.4388 / r;
    case "transition":
      return 2680.3206 / r ** 2 - 0.00336312;
    case "jet":
      return 594.5418 / r ** 2;
    case "fuelOil":
      return 186.9696 / r ** 2 + 0.4862 / r;
  }
}

export function densityAt(
  density15: KilogramPerCubicMetre,
  temperature: Celsius,
  product: DensityProduct,
): KilogramPerCubicMetre {
  const dT = temperature - 15;
  const a = thermalExpansionPerK(density15, product);
  return (density15 * Math.exp(-a * dT * (1 + 0.8 * a * dT))) as KilogramPerCubicMetre;
}
