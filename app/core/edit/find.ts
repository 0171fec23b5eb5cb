/** What a command names, found in the job; refused where there is none. */
import type { Engine, PlanPart } from "../kinds/index";
import type { Id } from "../kinds/record";
import type { Job, LineUp, Plan, Run, Tank } from "../plan/types";
import { CommandRefused } from "./command";

export const planOf = (job: Job): Plan =>
  found(
    job.plans.find(({ id }) => id === job.currentPlanId),
    job.currentPlanId,
  );

export function found<T>(item: T | undefined, id: string): T {
  if (item === undefined) throw new CommandRefused("noSuch", id);
  return item;
}

export const partOf = (plan: Plan, id: Id): PlanPart =>
  found(
    plan.parts.find((part) => part.id === id),
    id,
  );
export const lineUpOf = (plan: Plan, id: Id): LineUp =>
  found(
    plan.lineUps.find((lineUp) => lineUp.id === id),
    id,
  );

export const tankOf = (job: Job, id: Id): Tank =>
  found(
    job.tanks.find((tank) => tank.id === id),
    id,
  );
export const consumerOf = (job: Job, id: Id): Engine =>
  found(
    job.consumers.find((consumer) => consumer.id === id),
    id,
  );
export const runOf = (plan: Plan, id: Id): Run =>
  found(
    plan.runs.find((run) => run.id === id),
    id,
  );
