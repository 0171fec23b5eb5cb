/** The one list of findings: every rule, judged for every line-up, merged and held against what was set aside. */

import { type Book, entriesOf, type SetAside } from "../book/entries";
import { LineUpSolver } from "../hydraulics/solve";
import { judgeLineUp, type LineUpVerdict } from "../hydraulics/worst";
import type { Id } from "../kinds/record";
import { buildNetwork, type Network } from "../network/network";
import type { Conditions, Job } from "../plan/types";
import { type Finding, findingKey, rules } from "./index";
import type { BleedOutcome, FindingContext, Grade, Rule } from "./rule";

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
      entry.about === finding.about &&
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
  bleeds: readonly BleedOutcome[] = [],
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
    bleeds,
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
  bleeds: readonly BleedOutcome[] = [],
): Finding[] {
  const context = findingContext(network, book, conditions, now, bleeds);
  const entries = entriesOf(book, "setAside").filter(({ planId }) => planId === network.plan.id);
  const found = Object.values<Rule>(rules).flatMap(({ id, judge }) =>
    judge(context).map((one) => ({ rule: id, ...one }) as Finding),
  );
  return merge(found)
    .map((finding) => {
      const setAside = setAsideOf(finding, entries);
      return setAside ? { ...finding, setAside } : finding;
    })
    .sort((a, b) => Number(!!a.setAside) - Number(!!b.setAside) || gradeOrder[a.grade] - gradeOrder[b.grade]);
}

/** A Stop against a line-up that nobody set aside; with `orAny` one that is against whichever line-up too. */
export const isStopOf = (
  { grade, setAside, lineUpIds }: Pick<Finding, "grade" | "setAside" | "lineUpIds">,
  lineUpId: Id | undefined,
  orAny = false,
): boolean =>
  grade === "stop" &&
  !setAside &&
  ((orAny && lineUpIds.length === 0) || (lineUpId !== undefined && lineUpIds.includes(lineUpId)));
