/** What a job will take, for the customer: hours by place, people, parts and hose, at rates that the shop types itself. */
import { hoseLines, partLines } from "../parts/partsList";
import type { Job, Plan } from "../plan/types";
import type { Progress } from "./progress";
import { hoursLeft } from "./progress";

export interface Estimate {
  /** Minutes of hands by place: two people on a step count twice. */
  places: { place: string; handsMin: number; waitMin: number }[];
  handsMin: number;
  /** From first to last by so many people, waits among them. */
  elapsedMin: number;
  people: number;
  parts: number;
  hoseM: number;
  /** Money of the shop's own, where a rate was given. */
  labour: number | null;
}

/** @param ratePerHour of one pair of hands; null where the shop gives none */
export function estimateOf(
  job: Job,
  plan: Plan,
  progress: Pick<Progress, "steps" | "covers">,
  people: number,
  ratePerHour: number | null,
): Estimate {
  const places = new Map<string, { place: string; handsMin: number; waitMin: number }>();
  for (const step of progress.steps) {
    const one = places.get(step.place) ?? { place: step.place, handsMin: 0, waitMin: 0 };
    one.handsMin += step.workMin * step.people;
    one.waitMin += step.waitMin;
    places.set(step.place, one);
  }
  const handsMin = [...places.values()].reduce((sum, one) => sum + one.handsMin, 0);
  return {
    places: [...places.values()],
    handsMin,
    elapsedMin: hoursLeft({ ...progress, done: new Set() }, people).finishMin,
    people,
    parts: partLines(plan).reduce((sum, { count }) => sum + count, 0),
    hoseM: hoseLines(job, plan).reduce((sum, { totalM }) => sum + totalM, 0),
    labour: ratePerHour === null ? null : (handsMin / 60) * ratePerHour,
  };
}
