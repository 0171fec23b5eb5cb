/** A plan in figures, to be held against another: margin, worst part, dead fuel, joints, hose, a filter change, findings. */

import { airFlow } from "../air/flow";
import { bleedJoints } from "../air/joints";
import type { Book } from "../book/entries";
import { findingsOf } from "../findings/findings";
import type { Grade } from "../findings/rule";
import { LineUpSolver } from "../hydraulics/solve";
import { judgeLineUp, worstOfLineUp } from "../hydraulics/worst";
import { isFiltering, isValve } from "../kinds/families";
import type { Id } from "../kinds/record";
import { buildNetwork, type Network } from "../network/network";
import { type PlanCost, planCost } from "../parts/buying";
import { envelopeOf } from "../plan/envelope";
import { portKey } from "../plan/ports";
import type { Job, Plan } from "../plan/types";
import { worstDeadFuel } from "../tanks/pickup";

export interface PlanFigures {
  planId: Id;
  name: string;
  /** Least margin over all line-ups that run, each at its own worst; null where none feeds. */
  marginPa: number | null;
  worstLineUpId: Id | null;
  worstPartId: Id | null;
  deadM3: number;
  /** Places that can leak: both ends of every hose, and every screwed joint. */
  leakPoints: number;
  joints: number;
  hoseM: number;
  /** Most steps that changing an element takes: shut, open, change, close, open again, bleed. */
  filterChangeSteps: number;
  findings: Record<Grade, number>;
  /** At the user's own prices; null where none was given. */
  cost: PlanCost | null;
}

/** Valves met on the way from a filter's port before another part: what is shut to change it. */
function shutOffsAround(network: Network, filterId: Id): number {
  const { plan } = network;
  const valves = new Set(plan.parts.filter(isValve).map(({ id }) => id));
  return ["in", "out"].filter((port) =>
    [...plan.runs, ...plan.joints].some(({ from, to }) => {
      const far =
        portKey(from) === `${filterId}.${port}` ? to : portKey(to) === `${filterId}.${port}` ? from : null;
      return far !== null && valves.has(far.part);
    }),
  ).length;
}

/** Open, out, in, close: what no arrangement saves. */
const BARE_CHANGE = 4;

function filterChangeSteps(network: Network): number {
  const { plan } = network;
  const solver = new LineUpSolver(network);
  const runs = plan.lineUps.filter(({ purpose }) => purpose === "run");
  return Math.max(
    0,
    ...plan.parts.filter(isFiltering).map(({ id }) => {
      const bleeds = runs.map((lineUp) => {
        const { way } = judgeLineUp(solver, lineUp, plan.conditions);
        const model = way && airFlow(network, lineUp, plan.conditions);
        if (!model || "code" in model) return 0;
        // Its own joint and those behind it, as a bleed opens them.
        const joints = bleedJoints(model, way);
        const at = joints.findIndex((joint) => joint.partId === id);
        return at < 0 ? 0 : joints.length - at;
      });
      return BARE_CHANGE + 2 * shutOffsAround(network, id) + Math.max(0, ...bleeds);
    }),
  );
}

export function planFigures(job: Job, plan: Plan, book: Book, now: Date = new Date()): PlanFigures {
  const whole = { ...job, currentPlanId: plan.id };
  const network = buildNetwork(whole, plan);
  const solver = new LineUpSolver(network);
  const runs = plan.lineUps.filter(({ purpose }) => purpose === "run");
  const cases = runs.map((lineUp) => worstOfLineUp(solver, lineUp));
  const judged = cases.flatMap((one) => (one.verdict.suction ? [{ one, suction: one.verdict.suction }] : []));
  const worst = judged.reduce<(typeof judged)[number] | null>(
    (least, next) => (!least || next.suction.marginPa < least.suction.marginPa ? next : least),
    null,
  );
  const used = new Set([...plan.runs, ...plan.joints].flatMap(({ from, to }) => [from.part, to.part]));
  const hoseM = network.links.reduce(
    (sum, link) => sum + (link.kind === "run" ? link.geometry.lengthM : 0),
    0,
  );
  const findings: Record<Grade, number> = { stop: 0, mend: 0, watch: 0 };
  for (const { grade, setAside } of findingsOf(whole, book, network, plan.conditions, now))
    if (!setAside) findings[grade]++;
  const deadM3 = job.tanks
    .filter(({ id }) => used.has(id))
    .reduce((sum, tank) => {
      const mouths = tank.ports
        .filter(({ role, id }) => role === "outlet" && usedPort(plan, tank.id, id))
        .map(({ mouth }) => mouth);
      return mouths.length > 0 ? sum + worstDeadFuel(tank, mouths, envelopeOf(job)).deadM3 : sum;
    }, 0);
  return {
    planId: plan.id,
    name: plan.name,
    marginPa: worst?.suction.marginPa ?? null,
    worstLineUpId: worst?.one.verdict.lineUp.id ?? null,
    worstPartId: worst?.one.verdict.way?.suctionLosses[0]?.id ?? null,
    deadM3,
    leakPoints: leakPointsOf(plan),
    joints: plan.joints.length,
    hoseM,
    filterChangeSteps: filterChangeSteps(network),
    findings,
    cost: planCost(job, plan),
  };
}

const usedPort = (plan: Plan, part: Id, port: Id): boolean =>
  [...plan.runs, ...plan.joints].some(({ from, to }) =>
    [from, to].some((ref) => ref.part === part && ref.port === port),
  );

/** One a joint, and what a chosen chain of adapters has more. */
export const leakPointsOf = ({ runs, joints, chains = {} }: Plan): number =>
  Object.values(chains).reduce(
    (sum, { leakPoints }) => sum + leakPoints - 1,
    2 * runs.length + joints.length,
  );
