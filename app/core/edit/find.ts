/** What a command names, found in the job; refused where there is none. */
import type { Engine, PlanPart } from "../kinds/index";
import type { Id } from "../kinds/record";
import type { Job, LineUp, Plan, Run, Tank } from "../plan/types";
import { CommandRefused } from "./command";

export function found<T>(item: T | undefined, id: Id): T {
  if (item === undefined) throw new CommandRefused("noSuch", id);
  return item;
}

const byId = <T extends { id: Id }>(list: readonly T[], id: Id): T =>
  found(
    list.find((one) => one.id === id),
    id,
  );

export const planOf = (job: Job): Plan => byId(job.plans, job.currentPlanId);
export const tankOf = (job: Job, id: Id): Tank => byId(job.tanks, id);
export const consumerOf = (job: Job, id: Id): Engine => byId(job.consumers, id);
export const partOf = (plan: Plan, id: Id): PlanPart => byId(plan.parts, id);
export const lineUpOf = (plan: Plan, id: Id): LineUp => byId(plan.lineUps, id);
export const runOf = (plan: Plan, id: Id): Run => byId(plan.runs, id);
