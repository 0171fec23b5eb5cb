import { celsius, kilogramPerCubicMetre } from "../units/brands";
import { GRAVITY_M_S2, MM2_S_IN_M2_S, STANDARD_ATMOSPHERE_PA } from "../units/factors";
import { blended } from "./blend";
import { densityAt } from "./density";
import { ostwaldAir } from "./dissolvedAir";
import { type GradeId, grades } from "./grades";
import { DIESEL_VAPOUR_PA, petrolVapourPa } from "./vapour";
import { type ViscosityPoint, viscosityAt } from "./viscosity";

/** The fuel of a job: a grade, with a certificate's own figures where the user has one. */
export interface Fuel {
  grade: GradeId;
  density15KgM3: number;
  viscosityPoints: [ViscosityPoint, ViscosityPoint];
  cloudPointC?: number;
  /** Reid vapour pressure of petrol at 37.8 degC; its class changes with the season. Typical of the grade without it. */
  reidPa?: number;
  /** Biodiesel mixed in, by volume 0..1; the figures above are of the rest. */
  biodieselShare?: number;
}

/** What the solver needs of the fuel at one temperature. SI, vapour pressure absolute. */
export interface FuelState {
  readonly tempC: number;
  readonly densityKgM3: number;
  readonly kinematicM2S: number;
  readonly dynamicPaS: number;
  readonly vapourPa: number;
  readonly ostwaldAir: number;
  /** Below the cloud point wax forms and the viscosity law no longer holds. */
  readonly belowCloud: boolean;
  /** Farther than this from the points that the viscosity was given at, K: what is shown is drawn on from them. */
  readonly beyondPointsK: number;
}

export function presetFuel(grade: GradeId): Fuel {
  const { typicalDensity15KgM3, typicalViscosity, typicalCloudC } = grades[grade];
  return {
    grade,
    density15KgM3: typicalDensity15KgM3,
    viscosityPoints: [{ ...typicalViscosity[0] }, { ...typicalViscosity[1] }],
    ...(typicalCloudC === null ? {} : { cloudPointC: typicalCloudC }),
  };
}

/** A slider and a sweep come back to the same temperatures: so many are kept for each fuel. */
const MOST_KEPT = 256;
const kept = new WeakMap<Fuel, Map<number, FuelState | null>>();

/** State at a temperature, or null where the viscosity law gives none. Kept as long as the fuel's record is. */
export function fuelAt(asBought: Fuel, tempC: number): FuelState | null {
  let known = kept.get(asBought);
  if (!known || known.size >= MOST_KEPT) {
    known = new Map();
    kept.set(asBought, known);
  }
  const found = known.get(tempC);
  if (found !== undefined) return found;
  const state = stateAt(asBought, tempC);
  known.set(tempC, state);
  return state;
}

/** How far a temperature lies outside the points, K; nothing between them. */
function beyond(points: readonly ViscosityPoint[], tempC: number): number {
  const temps = points.map((point) => point.tempC);
  return Math.max(0, Math.min(...temps) - tempC, tempC - Math.max(...temps));
}

function stateAt(asBought: Fuel, tempC: number): FuelState | null {
  const fuel = blended(asBought);
  const grade = grades[fuel.grade];
  const mm2S = viscosityAt(fuel.viscosityPoints, tempC);
  if (mm2S === null) return null;
  const density = densityAt(kilogramPerCubicMetre(fuel.density15KgM3), celsius(tempC), grade.product);
  const kinematicM2S = mm2S * MM2_S_IN_M2_S;
  return {
    tempC,
    densityKgM3: density,
    kinematicM2S,
    dynamicPaS: kinematicM2S * density,
    vapourPa: grade.reidPa === null ? DIESEL_VAPOUR_PA : petrolVapourPa(fuel.reidPa ?? grade.reidPa, tempC),
    ostwaldAir: ostwaldAir(fuel.density15KgM3, tempC),
    belowCloud: fuel.cloudPointC !== undefined && tempC < fuel.cloudPointC,
    beyondPointsK: beyond(fuel.viscosityPoints, tempC),
  };
}

/**
 * Pressure of the air at an altitude, Pa: 101325 (1 - 2.25577e-5 h)^5.25588, to 11 000 m.
 * Source: ISO 2533 standard atmosphere (constants from memory).
 */
export function atmospherePa(altitudeM: number): number {
  return STANDARD_ATMOSPHERE_PA * (1 - 2.25577e-5 * altitudeM) ** 5.25588;
}

/** Pressure of a column of fuel, Pa. */
export const headPa = (densityKgM3: number, heightM: number) => densityKgM3 * GRAVITY_M_S2 * heightM;

/** Gauge pressure at which the free-air fraction reaches a limit, Pa: p = (L p0 + f pv)/(L + f), the law of dissolvedAir.ts turned round. */
export function airOutPa(fuel: FuelState, atmospherePa: number, fraction: number): number {
  const absolute = (fuel.ostwaldAir * atmospherePa + fraction * fuel.vapourPa) / (fuel.ostwaldAir + fraction);
  return absolute - atmospherePa;
}
