/** How a valve stands in a line-up, in words. */

import { isValve } from "~/core/kinds/families";
import type { Part } from "~/core/kinds/index";
import { tankBehind } from "~/core/manifold/leadsTo";
import type { Network } from "~/core/network/network";
import type { ValveSetting } from "~/core/plan/types";
import { positionsOf, waysThrough } from "~/core/plan/valves";

export function settingText(part: Part, setting: ValveSetting | undefined): string {
  if (!isValve(part)) return "";
  if (!setting || setting.kind === "unset") return "not set";
  if (setting.kind === "branches") {
    const names =
      part.kind === "bank"
        ? part.branches.filter(({ id }) => setting.open.includes(id)).map(({ name }) => name)
        : [];
    return names.length > 0 ? `open: ${names.join(", ")}` : "all shut";
  }
  const position =
    part.kind === "selector"
      ? part.positions.find(({ id }) => id === setting.position)?.name
      : setting.position;
  return position ?? "not set";
}

/** A selector's position with the tanks that it opens to, 'way 1: port tank'; for others as {@link settingText}. */
export function settingWithTanks(network: Network, part: Part, setting: ValveSetting | undefined): string {
  const said = settingText(part, setting);
  if (!isValve(part) || part.kind === "twoWay" || !setting || setting.kind === "unset") return said;
  const opened =
    setting.kind === "branches"
      ? setting.open
      : part.kind === "selector"
        ? (positionsOf(part)
            .find(({ id }) => id === setting.position)
            ?.joins.flat() ?? [])
        : [];
  const ways = new Set(waysThrough(part).flatMap(({ ports }) => ports));
  const names = [...new Set(opened)].flatMap((port) => {
    const tank = ways.has(port) ? tankBehind(network, part.id, port) : null;
    return tank ? [tank.name] : [];
  });
  const isSaid = (name: string) => said.toLowerCase().includes(name.toLowerCase());
  const added = [...new Set(names)].filter((name) => !isSaid(name));
  return added.length > 0 ? `${said}: ${added.join(", ")}` : said;
}
