/** A way round a pump by valves and tees alone: what lets fuel past it in service and is shut while it primes. */
import { isPlainThrough, isValve } from "../../kinds/families";
import type { Id } from "../../kinds/record";
import { portKey, portsOf } from "../../plan/ports";
import type { LineUp, Plan } from "../../plan/types";
import { isOpen, settingOf, waysThrough } from "../../plan/valves";

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
