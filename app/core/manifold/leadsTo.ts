/** Which tank a port of a valve leads to, over hoses and what lies in them. */
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import type { Tank } from "../plan/types";

/** The one tank behind a port of a valve; null where there is none, or more than one. */
export function tankBehind({ links, nodes, nodeOf, job, plan }: Network, valveId: Id, port: Id): Tank | null {
  const start = nodeOf.get(`${valveId}.${port}`);
  if (start === undefined) return null;
  const seen = new Set([start]);
  const branched = new Set(
    plan.parts.filter(({ kind }) => kind === "selector" || kind === "bank").map(({ id }) => id),
  );
  const tanks = new Set<Tank>();
  for (const node of seen) {
    for (const link of links) {
      const next = link.from === node ? link.to : link.to === node ? link.from : null;
      if (next === null || next >= nodes.length) continue;
      if (link.kind === "tankPort") {
        tanks.add(link.tank);
        continue;
      }
      // Behind another valve with a choice of its own it leads to no one tank.
      if (link.kind === "valve" && (link.valve.id === valveId || branched.has(link.valve.id))) continue;
      seen.add(next);
    }
  }
  const [only] = tanks;
  return tanks.size === 1 && only ? (job.tanks.find(({ id }) => id === only.id) ?? null) : null;
}
