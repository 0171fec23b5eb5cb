/** How a part stands in a plan: its place in every line-up. */
import { isPowered, isValve } from "../kinds/families";
import { kindOf, type PlanPart } from "../kinds/index";
import type { Id } from "../kinds/record";
import { neighbours } from "../plan/neighbours";
import type { Job, Plan } from "../plan/types";
import { firstSetting, shutSetting } from "../plan/valves";
import type { Note } from "./command";
import { drop } from "./hoses";

/** The two ports a part is let into a run by; null where it cannot be. */
export const throughPorts = (part: PlanPart): readonly [Id, Id] | null => kindOf(part).through(part);

/** No two parts of a plan begin with one name: 'Separator', 'Separator 2'. */
function nameBeside({ parts }: Plan, name: string): string {
  const taken = new Set(parts.map((part) => part.name));
  for (let n = 1; ; n++) {
    const said = n === 1 ? name : `${name} ${n}`;
    if (!taken.has(said)) return said;
  }
}

/** Whether every consumer is joined to some tank: what is set for them was meant, and stands. */
function isJoinedThrough(job: Job, plan: Plan): boolean {
  const { tanks, consumers } = job;
  const near = neighbours(job, plan);
  const ends = new Set(consumers.map(({ id }) => id));
  const reached = new Set(tanks.map(({ id }) => id));
  for (const id of reached) if (!ends.has(id)) for (const next of near.get(id) ?? []) reached.add(next);
  return consumers.length > 0 && consumers.every(({ id }) => reached.has(id));
}

/**
 * Puts a part into a plan and into its line-ups. One that is let into a line stands open and runs there; one that stands
 * by itself is shut and off in line-ups once every consumer has its line, and open and on while one is being built.
 */
export function register(plan: Plan, part: PlanPart, onBranchOf: Job | null = null): void {
  const isBranch = onBranchOf !== null && isJoinedThrough(onBranchOf, plan);
  part.name = nameBeside(plan, part.name);
  plan.parts.push(part);
  for (const lineUp of plan.lineUps) {
    if (isValve(part)) lineUp.valves[part.id] = isBranch ? shutSetting(part) : firstSetting(part);
    if (isPowered(part)) lineUp.pumps[part.id] = isBranch ? "off" : "on";
  }
}

export function forget(plan: Plan, id: Id): void {
  plan.parts = plan.parts.filter((part) => part.id !== id);
  for (const lineUp of plan.lineUps) {
    delete lineUp.valves[id];
    delete lineUp.pumps[id];
    delete lineUp.consumers[id];
  }
  delete plan.places?.[id];
  delete plan.sides?.[id];
}

/** What was surveyed goes, and with it all that met it in any plan. */
export function removeSurveyed(job: Job, id: Id): Note[] {
  const lost: Id[] = [];
  for (const plan of job.plans) {
    for (const item of [...plan.runs, ...plan.joints]) {
      if (item.from.part !== id && item.to.part !== id) continue;
      lost.push(item.from.part === id ? item.to.part : item.from.part);
      drop(plan, item.id);
    }
    forget(plan, id);
    delete plan.conditions.aboardM3[id];
    delete plan.conditions.load[id];
  }
  return lost.length > 0 ? [{ code: "portsLeftOpen", ids: lost }] : [];
}
