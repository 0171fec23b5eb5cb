/** A part as the shop knows it, over its jobs: its figures, what they are worth, and what its ports end in. */
import type { PlanPart } from "../kinds/index";
import type { Id } from "../kinds/record";
import type { Plan } from "../plan/types";
import type { BoxItem } from "./box";

export type KeptItem = Extract<BoxItem, { kind: "part" }>;

/** A valve's ways are set by each plan's line-ups: it is not kept. */
export const isKept = ({ kind }: PlanPart): boolean => kind !== "selector" && kind !== "bank";

/** @param on the day, as YYYY-MM-DD */
export function keptItem(plan: Plan, part: PlanPart, id: Id, on: string): KeptItem {
  const { provisional: _, ...bare } = JSON.parse(JSON.stringify(part)) as PlanPart;
  const ends = { ...plan.ends?.[part.id] };
  const still = { ...bare, id: "kept", position: { xM: 0, yM: 0, zM: 0 } } as PlanPart;
  return { kind: "part", id, name: part.name, part: still, ends, on };
}
