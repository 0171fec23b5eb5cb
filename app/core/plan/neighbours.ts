/** Which things of a plan are joined to which, hoses and joints alike. */
import type { Id } from "../kinds/record";
import { partsOf } from "./ports";
import type { Job, Plan } from "./types";

export function neighbours(job: Job, plan: Plan): Map<Id, Set<Id>> {
  const near = new Map<Id, Set<Id>>([...partsOf(job, plan), ...job.tanks].map(({ id }) => [id, new Set()]));
  for (const { from, to } of [...plan.runs, ...plan.joints]) {
    near.get(from.part)?.add(to.part);
    near.get(to.part)?.add(from.part);
  }
  return near;
}
