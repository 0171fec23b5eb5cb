import type { Note } from "~/core/edit/commands";
import { currentPlan, partsOf } from "~/core/plan/ports";
import type { Id, Job } from "~/core/plan/types";

/** Name of a tank, part or run of the job. */
export function nameOf(job: Job, id: Id): string {
  const plan = currentPlan(job);
  const owner = [...job.tanks, ...partsOf(job, plan)].find((one) => one.id === id);
  if (owner) return owner.name;
  const run = plan.runs.find((one) => one.id === id);
  return run ? `${nameOf(job, run.from.part)} to ${nameOf(job, run.to.part)}` : id;
}

export function noteText({ code, ids }: Note, job: Job): string {
  const names = ids.map((id) => nameOf(job, id)).join(", ");
  switch (code) {
    case "endsNoLongerMeet":
      return `These ends no longer meet anything: ${names}.`;
    case "boresDiffer":
      return `The hoses on the two sides had different bores; ${names} keeps the first.`;
    case "aboardLowered":
      return `${names} held more than its new shape does: it is taken as full now.`;
    case "portsLeftOpen":
      return `These ports are now open: ${names}.`;
  }
}
