/** What a pump of a kind does on air. */

import type { Part } from "../kinds/index";
import { clearanceOfLift, commonClearance } from "../laws/dryLift";
import { STANDARD_ATMOSPHERE_PA } from "../units/factors";

/** A maker's dry lift is of diesel, at sea level. */
const MAKERS_KG_M3 = 840;
/** A check before it opens at this. Common practice, no source. */
export const DRY_CHECK_PA = 1000;

/** Clearance over swept volume: from the maker's dry lift, else generic by kind and assumed. */
export const clearanceOf = (part: Part): number => {
  const { kind } = part;
  const liftM = "dry" in part ? part.dry?.liftM : undefined;
  if (liftM !== undefined) return clearanceOfLift(liftM, MAKERS_KG_M3, STANDARD_ATMOSPHERE_PA, DRY_CHECK_PA);
  if (kind === "dosingPump") return commonClearance.dosing;
  if (kind === "bulb") return commonClearance.bulb;
  return kind === "inTankPump" || kind === "transferPump" ? commonClearance.wheel : commonClearance.lift;
};
