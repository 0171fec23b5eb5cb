import type { Cooler } from "../kinds/cooler";
import type { Tank } from "../plan/types";
import type { Network } from "./network";
import { walk } from "./walk";

/** The cooler of the plan that every return to a tank passes; null where one comes by another way, or none comes. */
export function returnCooler({ engines, links, topology, nodeOf, plan }: Network, tank: Tank): Cooler | null {
  const at = nodeOf.get(tank.id);
  const backs = engines.flatMap(({ back }) => (back === null ? [] : [back]));
  if (at === undefined || backs.length === 0) return null;
  const isOutlet = (link: number) => {
    const one = links[link];
    return one?.kind === "tankPort" && one.port.role === "outlet";
  };
  const reaches = (opens: (link: number) => boolean) =>
    walk(topology, backs, (link) => opens(link) && !isOutlet(link)).seen[at] === 1;
  if (!reaches(() => true)) return null;
  const coolers = plan.parts.filter((part): part is Cooler => part.kind === "cooler");
  return coolers.find(({ id }) => !reaches((link) => links[link]?.id !== id)) ?? null;
}

/** What cools the return to a tank: the plan's cooler; where the plan has none there, the one that Survey was told of. */
export const coolerOf = (network: Network, tank: Tank): Pick<Cooler, "effectiveness" | "coolantC"> | null =>
  returnCooler(network, tank) ?? tank.cooler ?? null;
