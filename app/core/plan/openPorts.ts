/** Ports that stand open: of tanks and parts of a plan that something is joined to. */
import { isPlainThrough } from "../kinds/families";
import type { Part } from "../kinds/index";
import type { Port } from "../kinds/kind";
import { joinedPorts, portsOf } from "./ports";
import type { Job, Plan, Tank, TankPort } from "./types";

export type OpenPorts =
  | { owner: Tank; isTank: true; ports: TankPort[] }
  | { owner: Part; isTank: false; ports: Port[] };

/**
 * A gauge or a tap ends a line, a bulkhead that waits for its hose does not; of a head with like ports the others are
 * told by themselves. What nothing is joined to is another plan's.
 */
export function openPorts(job: Job, plan: Plan): OpenPorts[] {
  const joined = joinedPorts(plan);
  const unused = <P extends { id: string }>(owner: { id: string }, ports: readonly P[]): P[] => {
    const open = ports.filter(({ id }) => !joined.has(`${owner.id}.${id}`));
    return open.length < ports.length ? open : [];
  };
  const ends = (part: Part) => isPlainThrough(part) && part.kind !== "bulkhead";
  return [
    ...job.tanks.map((owner) => ({ owner, isTank: true as const, ports: unused(owner, owner.ports) })),
    ...plan.parts
      .filter((part) => !ends(part) && part.kind !== "filter")
      .map((owner) => ({ owner, isTank: false as const, ports: unused(owner, portsOf(owner)) })),
  ].filter(({ ports }) => ports.length > 0);
}
