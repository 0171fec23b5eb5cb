import type { Book, SetAside } from "../book/entries";
import type { LineUpSolver } from "../hydraulics/solve";
import type { LineUpVerdict } from "../hydraulics/worst";
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import type { Job, Plan } from "../plan/types";

export type Grade = "stop" | "mend" | "watch";
/** Published standard, maker's figure, common practice. */
export type FindingBasis = "standard" | "maker" | "common";

export const ruleIds = [
  "returnElsewhere",
  "returnCanClose",
  "noOpenPath",
  "deadHead",
  "againstArrow",
  "starved",
  "noShutOff",
  "filterTooSmall",
  "suctionOverLimit",
  "suctionClean",
  "freeAir",
  "returnNearPickup",
  "feedsJoined",
  "tankCapacity",
  "returnHot",
  "plateHole",
  "noRoomAbove",
  "pickupClearance",
  "sumpHangs",
  "tankHeavy",
  "ventLow",
  "standingWater",
  "hoseFound",
  "cleaningTaken",
  "warningGone",
  "gaugeEmpty",
  "elementMissing",
  "gaugePlace",
  "pumpAboveFilters",
  "lubricatedLow",
  "gravityOverfills",
  "bulbPlace",
  "primingBlocks",
  "filterStaging",
  "sparePorts",
  "noStripping",
  "sloshing",
  "bendTight",
  "supportWide",
  "nearDanger",
  "allowanceShort",
  "linesUnmarked",
  "petrol",
  "dosingFit",
  "heaterExhaust",
  "noCoAlarm",
  "heaterSupply",
  "heaterClear",
  "heaterOnVehicle",
  "triggerOverloaded",
  "wireWrong",
  "feedPressure",
  "cannotHold",
  "provisional",
  "sensorLate",
  "flowGuessed",
  "runDownCut",
  "bulkheadReach",
  "shopMade",
] as const;
export type RuleId = (typeof ruleIds)[number];

export interface Finding {
  rule: RuleId;
  grade: Grade;
  /** Parts, tanks or runs concerned, the first is where it is. */
  ids: Id[];
  lineUpIds: Id[];
  basis: FindingBasis;
  /** Where practice is divided, the school the job follows. */
  school?: string;
  /** SI figures and names for the sentence. */
  values: Record<string, number | string | null>;
  /** What makes one of its kind worse than another; larger is worse. */
  figure: number | null;
  setAside?: SetAside;
}

/** What makes two findings the same one, in whatever line-up. */
export const findingKey = ({ rule, grade, ids }: Pick<Finding, "rule" | "grade" | "ids">) =>
  `${rule}:${grade}:${ids.join("+")}`;

export interface FindingContext {
  job: Job;
  /** What stands in the job's book. */
  book: Book;
  plan: Plan;
  network: Network;
  solver: LineUpSolver;
  /** Every line-up as set, at the present conditions; one with several running consumers once for each. */
  verdicts: LineUpVerdict[];
  /** The day it is judged on: hoses age. */
  now: Date;
  /** The same with every filter clean. */
  clean: LineUpVerdict[];
}

export type Rule = (context: FindingContext) => Finding[];
