/**
 * The settings of a line-up for what it is to do: the shortest way over open ports from a tank to what it feeds, and
 * back to the same tank; valves on it stand for it, all others shut, pumps on it run, all others rest.
 */
import type { Command } from "../edit/command";
import { isPowered, isValve, type Valve } from "../kinds/families";
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import { hasArrow } from "../plan/ports";
import type { Purpose, ValveSetting } from "../plan/types";
import { positionsOf } from "../plan/valves";

export interface Asked {
  purpose: Purpose;
  name: string;
  fromTank: Id;
  /** What it feeds: for a run and for priming. */
  consumer?: Id;
  /** Where it goes: for a transfer. */
  toTank?: Id;
}

export interface Found {
  /** Makes the line-up and sets everything in it. */
  commands: Command[];
  /** Is there a way at all, out and, where it returns, back? */
  feeds: boolean;
  returns: boolean;
}

interface Step {
  link: number;
  before: number;
}

/** Against a hose: a way through a pump is sought, one round it is not. */
const COST = { plain: 1, pump: 0.2, check: 1.5 };

type Links = Network["links"];
const valveOf = (link: Links[number]): Valve | null => (link.kind === "valve" ? link.valve : null);

/** Ways through valves that must be open, by valve. */
type Ways = Map<Id, (readonly [Id, Id])[]>;

/** A position in which all the ways are open, and as little else as there is. */
function settingFor(valve: Valve, ways: readonly (readonly [Id, Id])[]): ValveSetting | null {
  if (valve.kind === "bank")
    return { kind: "branches", open: [...new Set(ways.map(([, branch]) => branch))] };
  const joins = (groups: readonly Id[][], [a, b]: readonly [Id, Id]) =>
    groups.some((group) => group.includes(a) && group.includes(b));
  const fitting = positionsOf(valve)
    .filter((position) => ways.every((way) => joins(position.joins, way)))
    .sort((a, b) => a.joins.flat().length - b.joins.flat().length);
  const [best] = fitting;
  return best ? { kind: "position", position: best.id } : null;
}

/** The cheapest way from some nodes to others, by links; null where there is none. */
function wayBetween(
  network: Network,
  from: ReadonlySet<number>,
  to: ReadonlySet<number>,
  open: Ways,
  needsPump: boolean,
  along: (link: number, forward: boolean) => boolean,
): number[] | null {
  const { links, nodes } = network;
  const count = nodes.length;
  const cost = new Float64Array(2 * count).fill(Infinity);
  const came: (Step | null)[] = new Array<Step | null>(2 * count).fill(null);
  const waiting = new Set<number>();
  for (const node of from) {
    cost[node] = 0;
    waiting.add(node);
  }
  const goals = (state: number) => to.has(state % count) && (!needsPump || state >= count);
  while (waiting.size > 0) {
    const state = [...waiting].reduce((a, b) => ((cost[b] as number) < (cost[a] as number) ? b : a));
    waiting.delete(state);
    if (goals(state) && came[state]) {
      const way: number[] = [];
      for (let at = state, step = came[at]; step; at = step.before, step = came[at]) way.push(step.link);
      return way.reverse();
    }
    const node = state % count;
    links.forEach((link, index) => {
      const forward = link.from === node;
      if (!forward && link.to !== node) return;
      if (!along(index, forward)) return;
      const valve = valveOf(link);
      if (valve && link.kind === "valve") {
        const others = open.get(valve.id) ?? [];
        if (settingFor(valve, [...others, link.ports]) === null) return;
      }
      const pumps = link.kind === "pump";
      const next = (forward ? link.to : link.from) + (pumps || state >= count ? count : 0);
      const price =
        (cost[state] as number) + (pumps ? COST.pump : link.kind === "check" ? COST.check : COST.plain);
      if (price >= (cost[next] as number)) return;
      cost[next] = price;
      came[next] = { link: index, before: state };
      waiting.add(next);
    });
  }
  return null;
}

/** A line-up that does what is asked, as far as the plan lets it. */
export function lineUpFor(network: Network, id: Id, asked: Asked): Found {
  const { job, plan, links } = network;
  const { purpose, fromTank, consumer, toTank } = asked;
  const open: Ways = new Map();
  const running = new Set<Id>();
  const portNodes = (tank: Id, role: "outlet" | "return") =>
    new Set(
      links.flatMap((link) =>
        link.kind === "tankPort" && link.tank.id === tank && link.port.role === role ? [link.from] : [],
      ),
    );
  const oneWay = (index: number, forward: boolean): boolean => {
    const link = links[index] as Links[number];
    if (link.kind === "tankPort") return false;
    return forward || !("part" in link) || !hasArrow(link.part);
  };
  const take = (way: readonly number[] | null) => {
    for (const index of way ?? []) {
      const link = links[index] as Links[number];
      if (link.kind === "valve") open.set(link.valve.id, [...(open.get(link.valve.id) ?? []), link.ports]);
      else if ("part" in link && isPowered(link.part)) running.add(link.part.id);
    }
    return way !== null;
  };
  let [feeds, returns] = [false, true];
  const outlets = portNodes(fromTank, "outlet");
  if (purpose === "run" || purpose === "prime") {
    const engine = network.engines.find(({ part }) => part.id === consumer);
    if (engine) {
      feeds = take(wayBetween(network, outlets, new Set([engine.feed]), open, false, oneWay));
      if (engine.back !== null)
        returns = take(
          wayBetween(network, new Set([engine.back]), portNodes(fromTank, "return"), open, false, oneWay),
        );
    }
  } else {
    const into = portNodes(purpose === "transfer" && toTank !== undefined ? toTank : fromTank, "return");
    feeds = take(wayBetween(network, outlets, into, open, true, oneWay));
  }
  const commands: Command[] = [{ name: "addLineUp", id, lineUpName: asked.name }];
  for (const part of plan.parts) {
    if (isValve(part)) {
      const setting = settingFor(part, open.get(part.id) ?? []);
      if (setting) commands.push({ name: "setValve", lineUpId: id, valveId: part.id, setting });
    }
    if (isPowered(part)) {
      // A primer is for priming; with the engine running fuel passes it.
      const primes = part.kind === "primingPump";
      const isOn = running.has(part.id) && (primes ? purpose === "prime" : true);
      commands.push({ name: "setPump", lineUpId: id, pumpId: part.id, state: isOn ? "on" : "off" });
    }
  }
  for (const one of job.consumers)
    commands.push({
      name: "setConsumer",
      lineUpId: id,
      consumerId: one.id,
      state: purpose === "run" && one.id === consumer ? "running" : "stopped",
    });
  commands.push({
    name: "editLineUp",
    id,
    change: { purpose, intendedTransfer: purpose === "transfer" },
  });
  return { commands, feeds, returns };
}
