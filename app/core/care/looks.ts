/** What is seen without a gauge, and what its owner tells: how likely each is with a fault. Common practice, no source. */
import type { FaultKind } from "../book/entries";
import type { CareFault } from "./faults";

export const looks = ["bubbles", "puddle", "handlesRight", "mouthClear", "hissAtCap"] as const;
/** Bubbles in a clear line at a port; a puddle under it overnight; handles as the card has them; mouth clear of fuel; air drawn in as the cap is opened. */
export type Look = (typeof looks)[number];

export const symptoms = [
  "losesPowerAtFull",
  "diesOnSlope",
  "cranksLong",
  "risesWithSpeed",
  "worseInCold",
  "betterWithCapOff",
  "dead",
] as const;
export type Symptom = (typeof symptoms)[number];

const RARELY = 0.04;
/** Of leaks that draw air, those that drip as well when the line stands full. */
const DRIPS = 0.5;

/**
 * Chance that it is seen where a fault is.
 * @param isAfter whether the place that is looked at lies behind the leak; null where that is not known
 */
export function lookChance({ kind }: Pick<CareFault, "kind">, look: Look, isAfter: boolean | null): number {
  switch (look) {
    case "bubbles": {
      if (kind === "airAtPickup") return 0.95;
      if (kind !== "airLeak") return RARELY;
      // Behind the leak only: a clear line before it stays clear.
      return isAfter === null ? 0.6 : isAfter ? 0.95 : RARELY;
    }
    case "puddle":
      return kind === "airLeak" ? DRIPS : RARELY;
    case "handlesRight":
      return kind === "wrongLineUp" || kind === "wayShut" ? 0.1 : 0.97;
    case "mouthClear":
      return kind === "airAtPickup" ? 0.95 : RARELY;
    case "hissAtCap":
      return kind === "ventBlocked" ? 0.95 : RARELY;
  }
}

const chances: Readonly<Record<Symptom, Partial<Record<FaultKind, number>> & { else: number }>> = {
  losesPowerAtFull: {
    filterLoaded: 0.8,
    restricted: 0.75,
    pickupBlocked: 0.75,
    weakPump: 0.75,
    ventBlocked: 0.6,
    waxing: 0.7,
    returnRestricted: 0.3,
    else: 0.25,
  },
  diesOnSlope: { airAtPickup: 0.9, pickupBlocked: 0.2, else: 0.05 },
  cranksLong: { airLeak: 0.75, weakPump: 0.4, wayShut: 0.3, airAtPickup: 0.4, else: 0.1 },
  risesWithSpeed: { filterLoaded: 0.8, restricted: 0.85, pickupBlocked: 0.85, waxing: 0.7, else: 0.2 },
  worseInCold: { waxing: 0.9, filterLoaded: 0.3, else: 0.12 },
  betterWithCapOff: { ventBlocked: 0.9, else: 0.03 },
  dead: { wayShut: 0.9, airAtPickup: 0.5, weakPump: 0.2, wrongLineUp: 0.3, else: 0.05 },
};

export const symptomChance = (kind: FaultKind, symptom: Symptom): number =>
  chances[symptom][kind] ?? chances[symptom].else;
