/** The one list of findings: every rule, judged for every line-up, merged and held against what was set aside. */

import { type Book, entriesOf, type SetAside } from "../book/entries";
import { LineUpSolver } from "../hydraulics/solve";
import { judgeLineUp, type LineUpVerdict } from "../hydraulics/worst";
import { buildNetwork, type Network } from "../network/network";
import type { Conditions, Job } from "../plan/types";
import { allowanceShort } from "./allowanceShort";
import { bendTight } from "./bendTight";
import { bulbPlace } from "./bulbPlace";
import { bulkheadReach } from "./bulkheadReach";
import { cannotHold } from "./cannotHold";
import { dosingFit } from "./dosingFit";
import { elementMissing } from "./elementMissing";
import { feedPressure } from "./feedPressure";
import { feedsJoined } from "./feedsJoined";
import { filterStaging } from "./filterStaging";
import { filterTooSmall } from "./filterTooSmall";
import { flowGuessed } from "./flowGuessed";
import { gaugeEmpty } from "./gaugeEmpty";
import { gaugePlace } from "./gaugePlace";
import { gravityOverfills } from "./gravityOverfills";
import { heaterClear } from "./heaterClear";
import { heaterExhaust } from "./heaterExhaust";
import { heaterOnVehicle } from "./heaterOnVehicle";
import { heaterSupply } from "./heaterSupply";
import { hoseFound } from "./hoseFound";
import { linesUnmarked } from "./linesUnmarked";
import { lubricatedLow } from "./lubricatedLow";
import { nearDanger } from "./nearDanger";
import { noCoAlarm } from "./noCoAlarm";
import { noOpenPath } from "./noOpenPath";
import { noShutOff } from "./noShutOff";
import { noStripping } from "./noStripping";
import { openingTaken } from "./openingTaken";
import { petrol } from "./petrol";
import { pickupClearance } from "./pickupClearance";
import { plateHole } from "./plateHole";
import { primingBlocks } from "./primingBlocks";
import { provisional } from "./provisional";
import { pumpAboveFilters } from "./pumpAboveFilters";
import { returnCanClose } from "./returnCanClose";
import { returnElsewhere } from "./returnElsewhere";
import { returnHot } from "./returnHot";
import { returnNearPickup } from "./returnNearPickup";
import { runDownCut } from "./runDownCut";
import { sensorLate } from "./sensorLate";
import { shopMade } from "./shopMade";
import { sloshing } from "./sloshing";
import { sparePorts } from "./sparePorts";
import { standingWater } from "./standingWater";
import { suctionOverLimit } from "./suction";
import { sumpHangs } from "./sumpHangs";
import { supportWide } from "./supportWide";
import { tankCapacity } from "./tankCapacity";
import { tankHeavy } from "./tankHeavy";
import { triggerOverloaded } from "./triggerOverloaded";
import { type Finding, type FindingContext, findingKey, type Grade, type Rule } from "./types";
import { ventLow } from "./ventLow";
import { wireWrong } from "./wireWrong";

const rules: readonly Rule[] = [
  returnElsewhere,
  returnCanClose,
  noOpenPath,
  noShutOff,
  filterTooSmall,
  suctionOverLimit,
  returnNearPickup,
  feedsJoined,
  tankCapacity,
  returnHot,
  plateHole,
  pickupClearance,
  sumpHangs,
  tankHeavy,
  ventLow,
  standingWater,
  hoseFound,
  openingTaken,
  gaugeEmpty,
  elementMissing,
  gaugePlace,
  pumpAboveFilters,
  lubricatedLow,
  gravityOverfills,
  bulbPlace,
  primingBlocks,
  filterStaging,
  sparePorts,
  noStripping,
  sloshing,
  bendTight,
  supportWide,
  nearDanger,
  allowanceShort,
  linesUnmarked,
  petrol,
  dosingFit,
  heaterExhaust,
  noCoAlarm,
  heaterSupply,
  heaterClear,
  heaterOnVehicle,
  triggerOverloaded,
  wireWrong,
  feedPressure,
  cannotHold,
  provisional,
  sensorLate,
  flowGuessed,
  runDownCut,
  bulkheadReach,
  shopMade,
];

const gradeOrder: Record<Grade, number> = { stop: 0, mend: 1, watch: 2 };
/** A finding set aside comes back when its figure is this much worse. */
const WORSE_BY = 0.05;

/** The same finding in several line-ups becomes one, with the worst figures. */
function merge(findings: readonly Finding[]): Finding[] {
  const merged = new Map<string, Finding>();
  for (const finding of findings) {
    const key = findingKey(finding);
    const known = merged.get(key);
    if (!known) {
      merged.set(key, finding);
      continue;
    }
    const worse = (finding.figure ?? 0) > (known.figure ?? 0) ? finding : known;
    merged.set(key, { ...worse, lineUpIds: [...new Set([...known.lineUpIds, ...finding.lineUpIds])] });
  }
  return [...merged.values()];
}

function setAsideOf(finding: Finding, entries: readonly SetAside[]): SetAside | undefined {
  return entries.findLast(
    (entry) =>
      entry.rule === finding.rule &&
      entry.ids.join() === finding.ids.join() &&
      (entry.lineUpId === null || finding.lineUpIds.every((id) => id === entry.lineUpId)) &&
      !(
        entry.figure !== null &&
        finding.figure !== null &&
        finding.figure > entry.figure + WORSE_BY * Math.abs(entry.figure)
      ),
  );
}

/** A line-up seen by each of its running consumers: what differs between them is their way. */
const byConsumer = (verdict: LineUpVerdict): LineUpVerdict[] =>
  verdict.all.length > 1 ? verdict.all.map(({ way, suction }) => ({ ...verdict, way, suction })) : [verdict];

export function findingContext(
  network: Network,
  book: Book,
  conditions: Conditions,
  now: Date,
): FindingContext {
  const { job, plan } = network;
  const solver = new LineUpSolver(network);
  const cleanConditions = { ...conditions, loading: {} };
  return {
    job,
    book,
    plan: { ...plan, conditions },
    network,
    solver,
    now,
    verdicts: plan.lineUps.flatMap((lineUp) => byConsumer(judgeLineUp(solver, lineUp, conditions))),
    clean: plan.lineUps.flatMap((lineUp) => byConsumer(judgeLineUp(solver, lineUp, cleanConditions))),
  };
}

/** All findings of a job's current plan, held against what stands in its book: Stops first; those set aside are marked, and come last. */
export function findingsOf(
  job: Job,
  book: Book,
  network: Network = buildNetwork(job),
  conditions: Conditions = network.plan.conditions,
  now: Date = new Date(),
): Finding[] {
  const context = findingContext(network, book, conditions, now);
  const entries = entriesOf(book, "setAside").filter(({ planId }) => planId === network.plan.id);
  return merge(rules.flatMap((rule) => rule(context)))
    .map((finding) => {
      const setAside = setAsideOf(finding, entries);
      return setAside ? { ...finding, setAside } : finding;
    })
    .sort((a, b) => Number(!!a.setAside) - Number(!!b.setAside) || gradeOrder[a.grade] - gradeOrder[b.grade]);
}
