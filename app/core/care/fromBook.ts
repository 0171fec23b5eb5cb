/** What the book already says of a line-up as it stands: nobody is asked again for what was entered once. */
import { type Book, entriesOf } from "../book/entries";
import { lastLooks } from "../book/looks";
import type { Id } from "../kinds/record";
import type { LineUp, Plan } from "../plan/types";
import type { CareReading } from "./diagnose";

/** A reading at less load than this is none at full load; one at another temperature is of another fuel. */
const FULL_LOAD = 0.95;
const SAME_K = 5;

/** The last reading of each gauge at full load, and whether a joint was wet when it was last looked at. */
export function knownFromBook(book: Book, plan: Plan, lineUp: LineUp): CareReading[] {
  const last = new Map<Id, CareReading>();
  const isLike = (fuelC: number, load: Record<Id, number>) =>
    Math.abs(fuelC - plan.conditions.fuelC) <= SAME_K &&
    Object.keys(lineUp.consumers).every(
      (id) => lineUp.consumers[id] !== "running" || (load[id] ?? 1) >= FULL_LOAD,
    );
  for (const entry of [...book].sort((a, b) => a.at.localeCompare(b.at))) {
    if (entry.kind !== "vacuum" && entry.kind !== "reading") continue;
    if (entry.lineUpId !== lineUp.id || entry.planId !== plan.id) continue;
    if (entry.kind === "reading" && entry.quantity !== "pressure") continue;
    if (!isLike(entry.conditions.fuelC, entry.conditions.load)) continue;
    const id = entry.kind === "vacuum" ? entry.gaugeId : entry.ofId;
    const gaugePa = entry.kind === "vacuum" ? -entry.vacuumPa : entry.value;
    last.set(id, { kind: "gauge", port: `${id}.a`, state: "full", gaugePa });
  }
  const isWet = [...lastLooks(book, plan.id).values()].some(({ result }) => result === "wet");
  const hasLooked = entriesOf(book, "leakCheck").some(({ planId }) => planId === plan.id);
  return [
    ...last.values(),
    ...(hasLooked && isWet ? [{ kind: "look" as const, look: "puddle" as const, seen: true }] : []),
  ];
}
