/**
 * Which way each hose is drawn: supply with its flow, return against it, so that everything goes from the tanks on the
 * left to the consumers on the right and no hose has to run back.
 */
import { returnLinks } from "../hydraulics/derive";
import { LineUpSolver } from "../hydraulics/solve";
import { isConsumer } from "../kinds/families";
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import { partsOf, portKey, portsOf } from "../plan/ports";
import type { PortRef } from "../plan/types";
import { type Side, type Sides, sidesOf } from "./nodes";

interface Flows {
  /** Signed flow that is largest over all line-ups, by link. */
  largest: Float64Array;
  /** Links that carry an engine's return. */
  isReturn: Uint8Array;
}

export interface Oriented {
  /** Hoses and joints that run left to right as they are written, by id. */
  forward: ReadonlyMap<Id, boolean>;
  /** Parts that nothing but return passes. */
  returnOnly: ReadonlySet<Id>;
}

function flowsOverLineUps(network: Network): Flows {
  const solver = new LineUpSolver(network);
  const count = network.links.length;
  const largest = new Float64Array(count);
  const isReturn = new Uint8Array(count);
  for (const lineUp of network.plan.lineUps) {
    const result = solver.solve(lineUp, network.plan.conditions);
    if (result.outcome !== "solved") continue;
    result.flow.forEach((q, i) => {
      if (Math.abs(q) > Math.abs(largest[i] as number)) largest[i] = q;
    });
    returnLinks(result).forEach((one, i) => {
      if (one) isReturn[i] = 1;
    });
  }
  return { largest, isReturn };
}

/** Steps from the nearest tank, over parts and hoses, for what never flows. */
function stepsFromTanks({ topology, links, nodes }: Network): Int32Array {
  const steps = new Int32Array(nodes.length).fill(1e6);
  const queue: number[] = [];
  for (let i = topology.unknowns; i < nodes.length; i++) {
    steps[i] = 0;
    queue.push(i);
  }
  const near: number[][] = nodes.map(() => []);
  for (const { from, to } of links) {
    near[from]?.push(to);
    near[to]?.push(from);
  }
  for (let i = 0; i < queue.length; i++) {
    const node = queue[i] as number;
    for (const next of near[node] as number[]) {
      if ((steps[next] as number) <= (steps[node] as number) + 1) continue;
      steps[next] = (steps[node] as number) + 1;
      queue.push(next);
    }
  }
  return steps;
}

/** Every hose and joint of a plan by the flows of all its line-ups. */
export function orient(network: Network): Oriented {
  const { job, plan, links } = network;
  const { largest, isReturn } = flowsOverLineUps(network);
  const steps = stepsFromTanks(network);
  const tanks = new Set(job.tanks.map(({ id }) => id));
  const consumers = new Set(job.consumers.map(({ id }) => id));
  const at = (ref: PortRef) => steps[network.nodeOf.get(portKey(ref)) ?? -1] ?? 0;
  const along = (index: number, isOut: boolean) => (isReturn[index] ? !isOut : isOut);
  const linksOf = new Map<Id, number[]>();
  links.forEach((link, i) => {
    const owner = link.id.split(".")[0] as Id;
    if (link.kind !== "tankPort") linksOf.set(owner, [...(linksOf.get(owner) ?? []), i]);
  });
  /** By its own flow; a joint has no link of its own and goes as the way through the part behind it goes. */
  const byFlow = (id: Id, from: PortRef, to: PortRef): boolean | undefined => {
    const own = network.linkOf.get(id);
    if (own !== undefined) return largest[own] === 0 ? undefined : along(own, (largest[own] as number) > 0);
    const node = network.nodeOf.get(portKey(from));
    for (const ref of [to, from]) {
      const index = (linksOf.get(ref.part) ?? []).find(
        (i) => links[i]?.from === node || links[i]?.to === node,
      );
      const q = index === undefined ? 0 : (largest[index] as number);
      if (index === undefined || q === 0) continue;
      const isOutOfNode = (q > 0 ? links[index]?.from : links[index]?.to) === node;
      return along(index, ref === to ? isOutOfNode : !isOutOfNode);
    }
    return undefined;
  };
  const isForward = (id: Id, from: PortRef, to: PortRef): boolean => {
    if (tanks.has(from.part)) return true;
    if (tanks.has(to.part) || consumers.has(from.part)) return false;
    if (consumers.has(to.part)) return true;
    return byFlow(id, from, to) ?? at(from) <= at(to);
  };
  const forward = new Map(
    [...plan.runs, ...plan.joints]
      .filter(({ from, to }) => network.ports.has(portKey(from)) && network.ports.has(portKey(to)))
      .map(({ id, from, to }) => [id, isForward(id, from, to)]),
  );
  const returnOnly = new Set(
    plan.parts.flatMap(({ id }) => {
      const own = linksOf.get(id) ?? [];
      return own.some((i) => isReturn[i]) && own.every((i) => isReturn[i] || largest[i] === 0) ? [id] : [];
    }),
  );
  return { forward, returnOnly };
}

/**
 * The sides of ports that have none yet: to the left what comes from the tanks, to the right what goes to the consumers;
 * where a part has one way through, its two ports are on two sides.
 */
export function sidesFor(network: Network, { forward }: Pick<Oriented, "forward">, known: Sides): Sides {
  const { job, plan } = network;
  const wanted = new Map<string, Side>();
  for (const { id, from, to } of [...plan.runs, ...plan.joints]) {
    const [left, right] = forward.get(id) ? [from, to] : [to, from];
    wanted.set(portKey(left), wanted.get(portKey(left)) ?? "EAST");
    wanted.set(portKey(right), "WEST");
  }
  const sides: Sides = {};
  for (const part of partsOf(job, plan)) {
    if (isConsumer(part)) continue;
    const ports = portsOf(part);
    const ids = ports.map(({ id }) => id);
    const own = known[part.id];
    const isNew = (id: Id) => !own?.west.includes(id) && !own?.east.includes(id);
    /** Where it is wanted itself, else where the other of a like pair stands or is wanted. */
    const wish = (id: Id): Side | undefined => {
      const first = ports.find((port) => port.id === id)?.sameAs ?? id;
      const others = ports.filter((port) => port.id !== id && (port.sameAs ?? port.id) === first);
      if (others.some((other) => own?.west.includes(other.id))) return "WEST";
      if (others.some((other) => own?.east.includes(other.id))) return "EAST";
      return [id, ...others.map((other) => other.id)]
        .map((one) => wanted.get(`${part.id}.${one}`))
        .find((side) => side !== undefined);
    };
    const [a, b] = ids;
    if (a && b && ids.length === 2) {
      const isTurned = wish(a) === "EAST" || (wish(a) === undefined && wish(b) === "WEST");
      const held = own ?? (isTurned ? { west: [b], east: [a] } : { west: [a], east: [b] });
      sides[part.id] = sidesOf(part, held);
    } else {
      const on = (side: Side, list: readonly Id[] = []) => [
        ...list,
        ...ids.filter((id) => isNew(id) && wish(id) === side),
      ];
      sides[part.id] = sidesOf(part, { west: on("WEST", own?.west), east: on("EAST", own?.east) });
    }
  }
  return sides;
}
