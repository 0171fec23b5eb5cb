/** What a pump of a kind does on air. */
import type { Part } from "../kinds/index";
import { commonClearance } from "../laws/dryLift";

/** Clearance over swept volume, generic by kind; assumed until the maker's dry lift is known. */
export const clearanceOf = ({ kind }: Pick<Part, "kind">): number => {
  if (kind === "dosingPump") return commonClearance.dosing;
  if (kind === "bulb") return commonClearance.bulb;
  return kind === "inTankPump" || kind === "transferPump" ? commonClearance.wheel : commonClearance.lift;
};
