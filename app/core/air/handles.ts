/** Handles of two-way valves about what is filled by hand and what stands spare. */
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import { walk } from "../network/walk";
import type { LineUp, ValveSetting } from "../plan/types";
import { isOpen, positionsOf } from "../plan/valves";
import type { AirSession } from "./session";

/** Handles that stand shut before what is open to the suction: a spare filter that nobody draws through. */
export function sparesOf(
  session: AirSession,
  { network, lineUp }: { network: Network; lineUp: LineUp },
  answered: readonly number[],
  way: ReadonlySet<number>,
): Id[] {
  const { mesh } = session.model;
  const ids = new Set<Id>();
  for (const part of network.plan.parts) {
    const cell = mesh.vesselOf.get(part.id);
    if (cell === undefined || !mesh.jugOf.has(part.id) || way.has(cell) || !answered.includes(cell)) continue;
    const own = network.links.find(
      (link) => (link.kind === "filter" || link.kind === "rated") && link.part.id === part.id,
    );
    if (!own) continue;
    // Through what lies in its own line up to the first handle.
    walk(network.topology, [own.from], (k) => {
      const link = network.links[k];
      if (link?.kind !== "valve") return link?.kind === "run";
      const isNow = isOpen(link.valve, link.ports, lineUp.valves[link.valve.id]);
      if (!isNow && link.valve.kind === "twoWay") ids.add(link.valve.id);
      return false;
    });
  }
  return [...ids];
}

/** Handles that shut a vessel off from every tank before it; null where some way stays open. */
export function valvesBefore(network: Network, lineUp: LineUp, partId: Id): Id[] | null {
  const index = network.links.findIndex(
    (link) => (link.kind === "filter" || link.kind === "rated") && link.part.id === partId,
  );
  const own = network.links[index];
  if (!own) return null;
  const valves = new Set<Id>();
  const { order } = walk(network.topology, [own.from], (k) => {
    const link = network.links[k];
    if (!link || k === index) return false;
    if (link.kind === "filter" || link.kind === "pump" || link.kind === "dosing") return false;
    if (link.kind !== "valve") return link.kind !== "check";
    const isNow = isOpen(link.valve, link.ports, lineUp.valves[link.valve.id]);
    if (isNow && link.valve.kind === "twoWay") valves.add(link.valve.id);
    return isNow && link.valve.kind !== "twoWay";
  });
  // What is behind its own outlet is not before it.
  if (order.includes(own.to)) return null;
  return order.some((node) => node >= network.topology.unknowns) ? null : [...valves];
}

/** A two-way valve's setting that opens or shuts it. */
export function handle(network: Network, id: Id, isOpened: boolean): ValveSetting | null {
  const valve = network.plan.parts.find((part) => part.id === id);
  if (valve?.kind !== "twoWay") return null;
  const found = positionsOf(valve).find(({ joins }) => joins.length > 0 === isOpened);
  return found ? { kind: "position", position: found.id } : null;
}
