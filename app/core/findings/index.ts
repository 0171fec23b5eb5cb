/** Every rule, once, in the order in which they are judged. */

import type { SetAside } from "../book/entries";
import { bleedLeavesAir } from "./bleeding/bleedLeavesAir";
import { cannotLiftDry } from "./bleeding/cannotLiftDry";
import { crestHoldsAir } from "./bleeding/crestHoldsAir";
import { screwDrawsAir } from "./bleeding/screwDrawsAir";
import { spareOpen } from "./bleeding/spareOpen";
import { triggerOverloaded } from "./electric/triggerOverloaded";
import { wireWrong } from "./electric/wireWrong";
import { bulbPlace } from "./filters/bulbPlace";
import { burnUnlikely } from "./filters/burnUnlikely";
import { changeSlow } from "./filters/changeSlow";
import { elementMissing } from "./filters/elementMissing";
import { filterStaging } from "./filters/filterStaging";
import { filterTooSmall } from "./filters/filterTooSmall";
import { flowGuessed } from "./filters/flowGuessed";
import { gaugeOverLimit } from "./filters/gaugeOverLimit";
import { gaugePlace } from "./filters/gaugePlace";
import { pumpUnscreened } from "./filters/pumpUnscreened";
import { sensorLate, waterSensorHigh } from "./filters/sensorLate";
import { sparePorts } from "./filters/sparePorts";
import { cannotHold } from "./flow/cannotHold";
import { feedPressure } from "./flow/feedPressure";
import { feedsJoined } from "./flow/feedsJoined";
import { gravityOverfills } from "./flow/gravityOverfills";
import { jetDraws } from "./flow/jetDraws";
import { againstArrow, deadHead, drawsAir, noOpenPath, starved } from "./flow/noOpenPath";
import { noShutOff } from "./flow/noShutOff";
import { neverUsed, notJoined } from "./flow/notJoined";
import { openPorts } from "./flow/openPorts";
import { otherSchool } from "./flow/otherSchool";
import { primingBlocks } from "./flow/primingBlocks";
import { pumpAboveFilters } from "./flow/pumpAboveFilters";
import { returnCanClose } from "./flow/returnCanClose";
import { returnElsewhere } from "./flow/returnElsewhere";
import { freeAir, suctionClean, suctionOverLimit } from "./flow/suction";
import { transferOverfills } from "./flow/transferOverfills";
import { worstLimit } from "./flow/worstLimit";
import { dosingFit } from "./heaters/dosingFit";
import { heaterClear } from "./heaters/heaterClear";
import { heaterExhaust } from "./heaters/heaterExhaust";
import { heaterOnVehicle } from "./heaters/heaterOnVehicle";
import { heaterSupply } from "./heaters/heaterSupply";
import { heaterUnmetered } from "./heaters/heaterUnmetered";
import { noCoAlarm } from "./heaters/noCoAlarm";
import { runDownCut } from "./heaters/runDownCut";
import { allowanceShort } from "./hoses/allowanceShort";
import { bendTight } from "./hoses/bendTight";
import { boardClash } from "./hoses/boardClash";
import { boardHose } from "./hoses/boardHose";
import { bulkheadReach } from "./hoses/bulkheadReach";
import { hoseFound } from "./hoses/hoseFound";
import { hoseThin } from "./hoses/hoseThin";
import { jointMade } from "./hoses/jointMade";
import { jointUnsealed } from "./hoses/jointUnsealed";
import { jointWet } from "./hoses/jointWet";
import { linesUnmarked } from "./hoses/linesUnmarked";
import { nearDanger } from "./hoses/nearDanger";
import { passageWrong } from "./hoses/passageWrong";
import { petrol } from "./hoses/petrol";
import { provisional } from "./hoses/provisional";
import { shopMade } from "./hoses/shopMade";
import { supportWide } from "./hoses/supportWide";
import { notLookedAt } from "./looks/notLookedAt";
import type { Found, Place, Rule } from "./rule";
import { fuelFouled } from "./tanks/fuelFouled";
import { fuelWaxes } from "./tanks/fuelWaxes";
import { gaugeEmpty } from "./tanks/gaugeEmpty";
import { lubricatedLow } from "./tanks/lubricatedLow";
import { mouthOutside } from "./tanks/mouthOutside";
import { noStripping } from "./tanks/noStripping";
import { noWayOut } from "./tanks/noWayOut";
import { cleaningTaken, warningGone } from "./tanks/openingTaken";
import { pickupClearance } from "./tanks/pickupClearance";
import { noRoomAbove, plateHole } from "./tanks/plateHole";
import { returnHot } from "./tanks/returnHot";
import { returnNearPickup } from "./tanks/returnNearPickup";
import { sloshing } from "./tanks/sloshing";
import { standingWater } from "./tanks/standingWater";
import { sumpHangs } from "./tanks/sumpHangs";
import { tankCapacity } from "./tanks/tankCapacity";
import { tankHeavy } from "./tanks/tankHeavy";
import { tankLine } from "./tanks/tankLine";
import { ventLow } from "./tanks/ventLow";

const all = {
  returnElsewhere,
  returnCanClose,
  noOpenPath,
  deadHead,
  againstArrow,
  starved,
  drawsAir,
  noShutOff,
  filterTooSmall,
  suctionOverLimit,
  suctionClean,
  worstLimit,
  freeAir,
  returnNearPickup,
  feedsJoined,
  tankCapacity,
  tankLine,
  returnHot,
  plateHole,
  noRoomAbove,
  noWayOut,
  pickupClearance,
  sumpHangs,
  tankHeavy,
  ventLow,
  standingWater,
  fuelFouled,
  fuelWaxes,
  hoseFound,
  hoseThin,
  cleaningTaken,
  warningGone,
  gaugeEmpty,
  changeSlow,
  elementMissing,
  gaugePlace,
  pumpAboveFilters,
  lubricatedLow,
  gravityOverfills,
  transferOverfills,
  jetDraws,
  burnUnlikely,
  bulbPlace,
  otherSchool,
  primingBlocks,
  filterStaging,
  sparePorts,
  mouthOutside,
  noStripping,
  sloshing,
  bendTight,
  boardClash,
  boardHose,
  supportWide,
  nearDanger,
  allowanceShort,
  jointMade,
  jointUnsealed,
  jointWet,
  notLookedAt,
  linesUnmarked,
  passageWrong,
  petrol,
  dosingFit,
  heaterUnmetered,
  heaterExhaust,
  noCoAlarm,
  heaterSupply,
  heaterClear,
  heaterOnVehicle,
  triggerOverloaded,
  wireWrong,
  feedPressure,
  cannotHold,
  cannotLiftDry,
  bleedLeavesAir,
  crestHoldsAir,
  screwDrawsAir,
  spareOpen,
  provisional,
  notJoined,
  neverUsed,
  openPorts,
  sensorLate,
  waterSensorHigh,
  pumpUnscreened,
  gaugeOverLimit,
  flowGuessed,
  runDownCut,
  bulkheadReach,
  shopMade,
};
type All = typeof all;
export type RuleId = keyof All;
export type ValuesOf<K extends RuleId> = All[K] extends Rule<string, infer V> ? V : never;

/** A rule stands in the table under its own id. */
export const rules: { [K in RuleId]: Rule<K, ValuesOf<K>> } = all;
export const ruleIds = Object.keys(rules) as RuleId[];

/** What one rule found, with the values that its sentence takes. */
export type FindingOf<K extends RuleId> = Found<ValuesOf<K>> & { rule: K; setAside?: SetAside };
export type Finding = { [K in RuleId]: FindingOf<K> }[RuleId];

export const placeOf = ({ rule }: Pick<Finding, "rule">): Place => rules[rule].place;

/** What makes two findings the same one, in whatever line-up. */
export const findingKey = ({ rule, grade, ids, about }: Pick<Finding, "rule" | "grade" | "ids" | "about">) =>
  `${rule}:${grade}:${ids.join("+")}${about === undefined ? "" : `:${about}`}`;
