/** A part that hangs loose, or one that no line-up sends fuel through: told, and nothing is judged by it. Common practice. */
import { isPlainThrough, isValve } from "../../kinds/families";
import { kindOf, type PlanPart } from "../../kinds/index";
import type { Network } from "../../network/network";
import { walk } from "../../network/walk";
import { joinedPorts, portsOf } from "../../plan/ports";
import { onPart } from "../onPart";
import { rule } from "../rule";

/** Ports by which fuel passes it; of what fuel does not pass, all. */
const neededPorts = (part: PlanPart): readonly string[] =>
  kindOf(part).through(part) ?? portsOf(part).map(({ id }) => id);

/** Is a part joined at the ports by which fuel passes it? A dead-ended gauge or tap is, by one. */
export function isJoined(part: PlanPart, joined: ReadonlySet<string>): boolean {
  const ports = portsOf(part);
  const has = (port: string) =>
    ports.some(({ id, sameAs }) => (id === port || sameAs === port) && joined.has(`${part.id}.${id}`));
  return isPlainThrough(part) ? neededPorts(part).some(has) : neededPorts(part).every(has);
}

export const notJoined = rule({
  id: "notJoined",
  practice: [48],
  place: "layout",
  judge: ({ plan }) => {
    const joined = joinedPorts(plan);
    return plan.parts
      .filter((part) => !isJoined(part, joined))
      .map((part) => onPart({ grade: "watch", part, values: {} }));
  },
});

/** Parts that a node hangs together with, up to the tanks. */
function partsAround({ links, topology }: Network, node: number): string[] {
  const { order } = walk(topology, [node], (k) => links[k]?.kind !== "tankPort");
  const reached = new Set(order);
  return links.flatMap((link) =>
    "part" in link && (reached.has(link.from) || reached.has(link.to)) ? [link.part.id] : [],
  );
}

export const neverUsed = rule({
  id: "neverUsed",
  practice: [],
  place: "layout",
  judge: ({ plan, network, verdicts }) => {
    const joined = joinedPorts(plan);
    const used = new Set<string>();
    const solved = verdicts.flatMap(({ result }) => (result.outcome === "solved" ? [result] : []));
    for (const { flow } of solved)
      network.links.forEach((link, i) => {
        if ("part" in link && flow[i] !== 0) used.add(link.part.id);
      });
    if (solved.length === 0) return [];
    // What hangs on a consumer that gets too little is told by that: it is not unused.
    for (const { consumers } of solved)
      for (const { part, feed } of network.engines)
        if (["starved", "air", "noPath"].includes(consumers.get(part.id)?.outcome ?? "fed"))
          for (const id of partsAround(network, feed)) used.add(id);
    return plan.parts
      .filter((part) => isJoined(part, joined) && !isValve(part) && !used.has(part.id))
      .filter((part) => network.links.some((link) => "part" in link && link.part.id === part.id))
      .map((part) => onPart({ grade: "watch", part, values: {} }));
  },
});
