/** What a tank breathes and keeps of the damp, by how full it is and by season. An upper bound: breathing alone. */
import type { Site } from "../plan/types";
import { breathed } from "./tankCleaning";

/** Day over night, K, and how damp the air is. Common practice, no source; assumed. */
export const DAY_SWING_K = 10;
export const DAMP = 0.8;
const MONTH_DAYS = 30;
export const fillShares = [0.25, 0.5, 0.95] as const;

export interface Season {
  name: "cold" | "mild" | "warm";
  warmC: number;
  coldC: number;
  /** By share of fill, kg of water a month. */
  waterKg: number[];
}

/** At the site's coldest and hottest, and between; nights are {@link DAY_SWING_K} colder. */
export function seasonsOf({ ambientLowC, ambientHighC }: Site, capacityM3: number): Season[] {
  const days: [Season["name"], number][] = [
    ["cold", ambientLowC + DAY_SWING_K],
    ["mild", (ambientLowC + DAY_SWING_K + ambientHighC) / 2],
    ["warm", ambientHighC],
  ];
  return days.map(([name, warmC]) => {
    const coldC = warmC - DAY_SWING_K;
    const air = { warmC, coldC, relativeHumidity: DAMP };
    return {
      name,
      warmC,
      coldC,
      waterKg: fillShares.map((share) => MONTH_DAYS * breathed(capacityM3 * (1 - share), air).waterKg),
    };
  });
}
