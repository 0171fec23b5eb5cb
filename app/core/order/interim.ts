/** Work that goes on without what has not come: the plan as it would stand until then, and what that costs in hours. */
import { CommandRefused } from "../edit/command";
import { applyCommand } from "../edit/commands";
import { isFed, LineUpSolver } from "../hydraulics/solve";
import { isFiltering } from "../kinds/families";
import type { Id } from "../kinds/record";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { Job, Plan } from "../plan/types";
import { hoursLeft, type Progress, progressOf } from "./progress";

export interface Interim {
  /** What is left out until it comes. */
  without: Id[];
  /** From now on until all that is not awaited works, and what the rest takes more than doing it once. */
  runsAfterMin: number;
  moreMin: number;
}

/** Does every line-up that is to run feed what it runs? */
function feeds(job: Job): boolean {
  const solver = new LineUpSolver(buildNetwork(job));
  const { lineUps, conditions } = currentPlan(job);
  return lineUps
    .filter(({ purpose }) => purpose === "run")
    .every((lineUp) => isFed(solver.solve(lineUp, conditions)));
}

/**
 * The work derived twice, over a plan in which the hoses beside what is missing are joined; null where nothing is
 * missing, where that plan would not feed, or where a part that is left out filters: no fuel goes unfiltered for a day.
 * @param progress of the work from `before` to `after`
 */
export function interimOf(
  job: Job,
  before: Plan | null,
  after: Plan,
  progress: Progress,
  people: number,
): Interim | null {
  const without = (after.awaited ?? []).filter(
    (id) => after.parts.some((part) => part.id === id) && !progress.done.has(`checkIn:${id}`),
  );
  const isHose = (after.awaited ?? []).some((id) => after.runs.some((run) => run.id === id));
  if (without.length === 0 || isHose || progress.outcome !== "order") return null;
  const planned: Job = { ...job, currentPlanId: after.id };
  let healed: Job;
  try {
    healed = without.reduce((now, id) => applyCommand(now, { name: "removePart", id }).job, planned);
  } catch (error) {
    if (error instanceof CommandRefused) return null;
    throw error;
  }
  const meanwhile = currentPlan(healed);
  const filters = after.parts.some((part) => without.includes(part.id) && isFiltering(part));
  if (filters || !feeds(healed)) return null;
  const first = progressOf(healed, before, meanwhile, []);
  const done = new Set([...progress.done].filter((id) => first.steps.some((step) => step.id === id)));
  const rest = progressOf(job, meanwhile, after, []);
  if (first.outcome !== "order" || rest.outcome !== "order") return null;
  const runsAfterMin = hoursLeft({ ...first, done }, people).finishMin;
  const allMin = hoursLeft(progress, people).finishMin;
  return { without, runsAfterMin, moreMin: runsAfterMin + hoursLeft(rest, people).finishMin - allMin };
}
