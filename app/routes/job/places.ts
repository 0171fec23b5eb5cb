/** The eight places, in working order. */
export const places = ["survey", "layout", "prove", "fit", "parts", "install", "bleed", "care"] as const;
export type Place = (typeof places)[number];

/** Where a finding of a rule is mended. */
export const placeOfRule: Record<string, Place> = {
  noShutOff: "layout",
  returnNearPickup: "survey",
  tankCapacity: "survey",
  returnHot: "survey",
  plateHole: "survey",
  noRoomAbove: "survey",
  pickupClearance: "survey",
  sumpHangs: "survey",
  tankHeavy: "survey",
  ventLow: "survey",
  standingWater: "survey",
  hoseFound: "survey",
  cleaningTaken: "survey",
  warningGone: "survey",
  gaugeEmpty: "survey",
  suctionOverLimit: "prove",
  suctionClean: "prove",
  freeAir: "prove",
  starved: "prove",
  feedPressure: "prove",
  cannotHold: "prove",
  wireWrong: "prove",
  triggerOverloaded: "prove",
  heaterSupply: "prove",
  lubricatedLow: "survey",
  noStripping: "survey",
  sloshing: "survey",
  allowanceShort: "parts",
};
