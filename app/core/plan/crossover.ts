/** A way round a pump by valves and tees alone: what lets fuel past it in service and is shut while it primes. */
import { isPlainThrough, isValve } from "../kinds/families";
import type { Id } from "../kinds/record";
import { portKey, portsOf } from "./ports";
import type { LineUp, Plan } from "./types";
import { isOpen, settingOf, waysThrough } from "./valves";

/** @param lineUp where its valves must stand open; without one that they could */
export function hasCrossover(plan: Plan, pumpId: Id, lineUp: LineUp | null): boolean {
  const near = new Map<string, string[]>();
  const join = (a: string, b: string) => {
    near.set(a, [...(near.get(a) ?? []), b]);
    near.set(b, [...(near.get(b) ?? []), a]);
  };
  for (const { from, to } of [...plan.runs, ...plan.joints]) join(portKey(from), portKey(to));
  for (const part of plan.parts) {
    if (part.id === pumpId) continue;
    const key = (port: Id) => portKey({ part: part.id, port });
    if (isValve(part)) {
      for (const { ports } of waysThrough(part))
        if (!lineUp || isOpen(part, ports, settingOf(lineUp, part))) join(key(ports[0]), key(ports[1]));
    } else if (part.kind === "tee" || isPlainThrough(part)) {
      const [first, ...others] = portsOf(part);
      for (const other of others) if (first) join(key(first.id), key(other.id));
    }
  }
  const reached = new Set([portKey({ part: pumpId, port: "in" })]);
  for (const at of reached) for (const next of near.get(at) ?? []) reached.add(next);
  return reached.has(portKey({ part: pumpId, port: "out" }));
}

/** Stands shut. */
const shut = { kind: "position", position: "shut" } as const;

export interface Crossed {
  pumpId: Id;
  /** The one handle that parts the way round it. */
  valveId: Id;
}

/** A priming pump that stands off with its way round open, and the handle that is shut while it primes; null without one. */
export function crossedPump(plan: Plan, lineUp: LineUp): Crossed | null {
  for (const { id, kind } of plan.parts) {
    if (kind !== "primingPump" || lineUp.pumps[id] === "on" || !hasCrossover(plan, id, lineUp)) continue;
    const parts = plan.parts.find(
      (valve) =>
        valve.kind === "twoWay" &&
        !hasCrossover(plan, id, { ...lineUp, valves: { ...lineUp.valves, [valve.id]: shut } }),
    );
    if (parts) return { pumpId: id, valveId: parts.id };
  }
  return null;
}

/** The line-up as it stands while it is primed: the way round shut, the pump on. */
export const primedBy = (lineUp: LineUp, { pumpId, valveId }: Crossed): LineUp => ({
  ...lineUp,
  valves: { ...lineUp.valves, [valveId]: shut },
  pumps: { ...lineUp.pumps, [pumpId]: "on" },
});
