/** Heat of the returned fuel: how warm a tank gets over the hours, with and without a cooler. */
import { isPetrol } from "../fuel/grades";
import type { Engine } from "../kinds/index";
import type { Job, Tank } from "../plan/types";
import { HOUR_S } from "../units/factors";
import { levelOfVolumeM, standingLevel } from "./tank";

/**
 * Specific heat of petroleum fuels, J/(kg K): (1685 + 3.39 t) / sqrt(s), s the relative density.
 * Source: C. S. Cragoe 1929, NBS Miscellaneous Publication 97 (from memory); within 4 % to 200 degC.
 */
export const specificHeatJKgK = (densityKgM3: number, tempC: number): number =>
  (1685 + 3.39 * tempC) / Math.sqrt(densityKgM3 / 999);

/** Wet wall to still air and structure round it, W/(m2 K). Handbook order for natural convection and radiation: 5 to 15. */
export const STILL_AIR_W_M2K = 10;
/**
 * What the engine does to the fuel it sends back: it comes half the way to the engine's own 90 degC, so cold fuel is
 * warmed more than hot. Common practice, no source; the engine's sheet goes before it.
 */
export const COMMON_ENGINE = { tempC: 90, share: 0.5 } as const;

/** A petrol rail on the cold side is passed in a second or two: some 4 K from a cold tank. Common practice, no source. */
export const COMMON_PETROL_ENGINE = { tempC: 90, share: 0.05 } as const;

/** What an engine makes of fuel: its own figure, or common practice. */
export function engineHeat(
  { returnC }: Pick<Engine, "returnC">,
  fuel: Job["fuel"],
): { tempC: number; share: number } {
  if (returnC !== undefined) return { tempC: returnC, share: 1 };
  return isPetrol(fuel) ? COMMON_PETROL_ENGINE : COMMON_ENGINE;
}

export interface Heating {
  tank: Tank;
  aboardM3: number;
  densityKgM3: number;
  startC: number;
  ambientC: number;
  feedM3S: number;
  returnM3S: number;
  engine: { tempC: number; share: number };
  cooler: { effectiveness: number; coolantC: number } | null;
  hours: number;
  /** The sum ends when this little is left: the pickup has come clear. */
  leastM3: number;
}

export interface HeatPoint {
  hours: number;
  tempC: number;
  returnC: number;
  aboardM3: number;
}

/** What the cooler makes of the return: effectiveness is the share of the way to the coolant's temperature. */
const cooled = (hotC: number, cooler: Heating["cooler"]): number =>
  cooler ? hotC - cooler.effectiveness * (hotC - cooler.coolantC) : hotC;

const returned = ({ engine, cooler }: Heating, tempC: number): number =>
  cooled(tempC + engine.share * (engine.tempC - tempC), cooler);

/** Rate of the fuel's temperature, K/s: returned heat less what the wet wall gives to the air. */
function rateKS(h: Heating, tempC: number, aboardM3: number, wetM2: number): number {
  const heat = specificHeatJKgK(h.densityKgM3, tempC);
  const mass = aboardM3 * h.densityKgM3;
  const inW = h.returnM3S * h.densityKgM3 * heat * (returned(h, tempC) - tempC);
  return (inW - STILL_AIR_W_M2K * wetM2 * (tempC - h.ambientC)) / (mass * heat);
}

const STEPS_PER_HOUR = 12;
/** Temperature over the hours as the tank runs down, by midpoint steps of five minutes; a point a quarter hour. */
export function heatOverHours(h: Heating): HeatPoint[] {
  const tilted = standingLevel(h.tank);
  const wet = (m3: number) => tilted.below(levelOfVolumeM(h.tank, m3)).wettedM2;
  const dt = HOUR_S / STEPS_PER_HOUR;
  const burn = h.feedM3S - h.returnM3S;
  let tempC = h.startC;
  let aboardM3 = h.aboardM3;
  const points: HeatPoint[] = [];
  const note = (step: number) =>
    points.push({
      hours: step / STEPS_PER_HOUR,
      tempC,
      returnC: returned(h, tempC),
      aboardM3,
    });
  note(0);
  for (let step = 1; step <= h.hours * STEPS_PER_HOUR; step++) {
    if (!(aboardM3 - burn * dt > h.leastM3)) break;
    const area = wet(aboardM3);
    const half = tempC + (dt / 2) * rateKS(h, tempC, aboardM3, area);
    tempC += dt * rateKS(h, half, aboardM3 - (burn * dt) / 2, area);
    aboardM3 -= burn * dt;
    if (step % (STEPS_PER_HOUR / 4) === 0) note(step);
  }
  return points;
}

/** Hours until a limit is passed, between the points; null where it is not. */
export function hoursToLimit(points: readonly HeatPoint[], limitC: number): number | null {
  const i = points.findIndex(({ tempC }) => tempC > limitC);
  if (i < 0) return null;
  const [before, at] = [points[i - 1], points[i] as HeatPoint];
  if (!before) return at.hours;
  return before.hours + ((limitC - before.tempC) / (at.tempC - before.tempC)) * (at.hours - before.hours);
}

/** Common practice, no source. */
export const FUEL_TOO_HOT_C = 60;
