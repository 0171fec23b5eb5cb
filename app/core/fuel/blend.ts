/** Diesel blended with biodiesel: density by volume, viscosity by the blending number. */

import type { Fuel } from "./fuel";
import { grades } from "./grades";
import { viscosityAt } from "./viscosity";

/**
 * Viscosity blending number of a component: 14.534 ln(ln(nu + 0.8)) + 10.975, nu in mm2/s, mixed by mass.
 * Source: Refutas; R. E. Maples, Petroleum Refinery Process Economics, 2000 (from memory). Needs nu > 0.2.
 */
const blendingNumber = (mm2S: number) => 14.534 * Math.log(Math.log(mm2S + 0.8)) + 10.975;
const fromBlendingNumber = (number: number) => Math.exp(Math.exp((number - 10.975) / 14.534)) - 0.8;

const blends = new WeakMap<Fuel, Fuel>();

/** The fuel with its share of biodiesel (EN 14214, typical) mixed in. The cloud point of a blend is not computed. */
export function blended(fuel: Fuel): Fuel {
  if (!fuel.biodieselShare) return fuel;
  const known = blends.get(fuel);
  if (known) return known;
  const made = mix(fuel, fuel.biodieselShare);
  blends.set(fuel, made);
  return made;
}

function mix(base: Fuel, share: number): Fuel {
  const { typicalDensity15KgM3, typicalViscosity } = grades.fame;
  const density15KgM3 = base.density15KgM3 * (1 - share) + typicalDensity15KgM3 * share;
  const byMass = (share * typicalDensity15KgM3) / density15KgM3;
  const viscosityPoints = base.viscosityPoints.map(({ tempC, mm2S }) => {
    const other = viscosityAt(typicalViscosity, tempC) ?? mm2S;
    return {
      tempC,
      mm2S: fromBlendingNumber(blendingNumber(mm2S) * (1 - byMass) + blendingNumber(other) * byMass),
    };
  }) as Fuel["viscosityPoints"];
  return { ...base, density15KgM3, viscosityPoints };
}

/** Cautions that a grade brings, by code. */
export type FuelCaution = "petrol" | "biodieselSolvent" | "cloudNearColdest" | "belowCloud" | "lowFlash";

/** Flash points under this want more care than road diesel. EN 590's own least. */
const COMMON_FLASH_C = 55;
const NEAR_CLOUD_K = 3;
const SOLVENT_SHARE = 0.07;

export function fuelCautions(fuel: Fuel, coldestC: number): FuelCaution[] {
  const { leastFlashC, reidPa } = grades[fuel.grade];
  const cautions: FuelCaution[] = [];
  if (reidPa !== null) cautions.push("petrol");
  else if (leastFlashC !== null && leastFlashC < COMMON_FLASH_C) cautions.push("lowFlash");
  if (fuel.grade === "fame" || (fuel.biodieselShare ?? 0) > SOLVENT_SHARE) cautions.push("biodieselSolvent");
  if (fuel.cloudPointC !== undefined) {
    if (coldestC < fuel.cloudPointC) cautions.push("belowCloud");
    else if (coldestC < fuel.cloudPointC + NEAR_CLOUD_K) cautions.push("cloudNearColdest");
  }
  return cautions;
}
