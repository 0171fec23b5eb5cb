/** What differs between two plans of a job, by the ids they share. */
import type { Id } from "../kinds/record";
import { hosesOf } from "./lying";
import type { Plan } from "./types";

export type Difference = "added" | "removed" | "changed";

const text = (item: object): string => JSON.stringify(item);

/** Parts, runs, joints and tank lines that `to` has and `from` has not, the other way round, or has otherwise. Conditions and places on the drawing are no difference. */
export function planDifferences(from: Plan, to: Plan): Map<Id, Difference> {
  const items = (plan: Plan) =>
    new Map([...plan.parts, ...hosesOf(plan), ...plan.joints].map((item) => [item.id, item]));
  const [before, after] = [items(from), items(to)];
  const found = new Map<Id, Difference>();
  for (const [id, item] of after) {
    const was = before.get(id);
    if (!was) found.set(id, "added");
    else if (text(was) !== text(item)) found.set(id, "changed");
  }
  for (const id of before.keys()) if (!after.has(id)) found.set(id, "removed");
  return found;
}
