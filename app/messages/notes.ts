import type { Carried, Note } from "~/core/edit/command";
import type { Id } from "~/core/kinds/record";
import { currentPlan, partsOf, placedPorts } from "~/core/plan/ports";
import type { Job } from "~/core/plan/types";

const named = new WeakMap<Job, ReadonlyMap<Id, string>>();

/** Names of everything in the current plan, looked up once a job. */
function namesOf(job: Job): ReadonlyMap<Id, string> {
  const known = named.get(job);
  if (known) return known;
  const plan = currentPlan(job);
  const names = new Map([...job.tanks, ...partsOf(job, plan)].map(({ id, name }) => [id, name]));
  const of = (id: Id) => names.get(id) ?? id;
  for (const [key, { ownerName, name }] of placedPorts(job, plan)) names.set(key, `${ownerName}, ${name}`);
  for (const { id, from, to } of plan.runs) names.set(id, `${of(from.part)} to ${of(to.part)}`);
  for (const { id, tank, use } of plan.tankLines ?? []) names.set(id, `${of(tank)}, ${use}`);
  named.set(job, names);
  return names;
}

/** Name of a tank, part, run or port of the job. */
export const nameOf = (job: Job, id: Id): string => namesOf(job).get(id) ?? id;

const carried: Record<Carried, string> = {
  circuit: "its circuit: fuse, relay and wires",
  waterSensor: "the only warning of water",
  finest: "the finest medium of the plan",
  ownReturn: "a return of its own",
};

export function noteText(note: Note, job: Job): string {
  const names = note.ids.map((id) => nameOf(job, id)).join(", ");
  switch (note.code) {
    case "carriedLost":
      return `With it went ${note.lost.map((one) => carried[one]).join("; ")}. Each needs something in its place.`;
    case "endsNoLongerMeet":
      return `These ends no longer meet anything: ${names}.`;
    case "boresDiffer":
      return `The hoses on the two sides had different bores; ${names} keeps the first.`;
    case "aboardLowered":
      return `${names} held more than its new shape does: it is taken as full now.`;
    case "measuredLost":
      return `These hoses no longer reach as they were measured, and have a worked-out length: ${names}.`;
    case "portsLeftOpen":
      return `These ports are now open: ${names}.`;
  }
}

/** What was left for the time being: a hand-over names each, or is refused. */
export const provisionalOf = (job: Job): string[] => {
  const plan = currentPlan(job);
  return [...plan.parts, ...plan.runs].flatMap((one) => (one.provisional ? [nameOf(job, one.id)] : []));
};
