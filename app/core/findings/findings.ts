/** The one list of findings: every rule, judged for every line-up, merged and held against what was set aside. */
import { LineUpSolver } from "../hydraulics/solve";
import { judgeLineUp } from "../hydraulics/worst";
import { buildNetwork, type Network } from "../network/network";
import type { Conditions, Job, SetAside } from "../plan/types";
import { feedsJoined } from "./feedsJoined";
import { filterTooSmall } from "./filterTooSmall";
import { noOpenPath } from "./noOpenPath";
import { noShutOff } from "./noShutOff";
import { returnCanClose } from "./returnCanClose";
import { returnElsewhere } from "./returnElsewhere";
import { returnNearPickup } from "./returnNearPickup";
import { suctionOverLimit } from "./suction";
import type { Finding, FindingContext, Grade, Rule } from "./types";

const rules: readonly Rule[] = [
  returnElsewhere,
  returnCanClose,
  noOpenPath,
  noShutOff,
  filterTooSmall,
  suctionOverLimit,
  returnNearPickup,
  feedsJoined,
];

const gradeOrder: Record<Grade, number> = { stop: 0, mend: 1, watch: 2 };
/** A finding set aside comes back when its figure is this much worse. */
const WORSE_BY = 0.05;

export const findingKey = ({ rule, grade, ids }: Pick<Finding, "rule" | "grade" | "ids">) =>
  `${rule}:${grade}:${ids.join("+")}`;

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

export function findingContext(network: Network, conditions: Conditions): FindingContext {
  const { job, plan } = network;
  const solver = new LineUpSolver(network);
  const cleanConditions = { ...conditions, loading: {} };
  return {
    job,
    plan: { ...plan, conditions },
    network,
    solver,
    verdicts: plan.lineUps.map((lineUp) => judgeLineUp(solver, lineUp, conditions)),
    clean: plan.lineUps.map((lineUp) => judgeLineUp(solver, lineUp, cleanConditions)),
  };
}

/** All findings of a job's current plan, Stops first; those set aside are marked, and come last. */
export function findingsOf(
  job: Job,
  network: Network = buildNetwork(job),
  conditions: Conditions = network.plan.conditions,
): Finding[] {
  const context = findingContext(network, conditions);
  const entries = job.book.filter(
    (entry): entry is SetAside => entry.kind === "setAside" && entry.planId === network.plan.id,
  );
  return merge(rules.flatMap((rule) => rule(context)))
    .map((finding) => {
      const setAside = setAsideOf(finding, entries);
      return setAside ? { ...finding, setAside } : finding;
    })
    .sort((a, b) => Number(!!a.setAside) - Number(!!b.setAside) || gradeOrder[a.grade] - gradeOrder[b.grade]);
}
