/** What is read off a solved line-up at its points and along its links. */

import { freeAirFraction } from "../fuel/dissolvedAir";
import type { PlanPart } from "../kinds/index";
import type { Id } from "../kinds/record";
import { churchill } from "../laws/friction";
import { linkKindOf } from "../network/links";
import type { NetworkLink } from "../network/links/link";
import { walk } from "../network/walk";
import { portsOf } from "../plan/ports";
import type { Run } from "../plan/types";
import { areaM2 } from "../units/bore";
import { GRAVITY_M_S2 } from "../units/factors";
import type { SolvedLineUp } from "./solve";

export interface PointFigures {
  gaugePa: number;
  absolutePa: number;
  vacuumPa: number;
  /** Volume of air out of solution a volume of fuel; null at or below vapour pressure. */
  freeAir: number | null;
  /** Absolute pressure over vapour pressure. */
  vapourMarginPa: number;
}

export function figuresAt(solved: SolvedLineUp, gaugePa: number): PointFigures {
  const { atmospherePa, fuel } = solved.settings;
  const absolutePa = atmospherePa + gaugePa;
  return {
    gaugePa,
    absolutePa,
    vacuumPa: Math.max(0, -gaugePa),
    freeAir: freeAirFraction(fuel.ostwaldAir, atmospherePa, absolutePa, fuel.vapourPa),
    vapourMarginPa: absolutePa - fuel.vapourPa,
  };
}

/** Gauge pressure at a port, Pa; NaN where unknown. */
export function gaugeAtPort(solved: SolvedLineUp, portKey: string): number {
  const node = solved.network.nodeOf.get(portKey);
  return node === undefined ? Number.NaN : (solved.gaugePa[node] as number);
}

export interface LinkFigures {
  flowM3S: number;
  velocityMS: number;
  reynolds: number;
  /** Pressure lost along the flow, heights apart, Pa; negative over a pump that pushes. */
  lossPa: number;
}

const boreOfLink = (link: NetworkLink): number => linkKindOf(link).boreM(link);

export function figuresOf(solved: SolvedLineUp, index: number): LinkFigures {
  const { network, settings, flow } = solved;
  const link = network.links[index] as NetworkLink;
  const q = flow[index] as number;
  const bore = boreOfLink(link);
  const velocityMS = q / areaM2(bore);
  const reynolds = (Math.abs(velocityMS) * bore) / settings.fuel.kinematicM2S;
  const lossPa = q === 0 ? 0 : lossOverHeights(solved, link) * Math.sign(q);
  return { flowM3S: q, velocityMS, reynolds, lossPa };
}

/** Fall of p + rho g z from the link's start to its end. */
function lossOverHeights(solved: SolvedLineUp, link: NetworkLink): number {
  const { network, settings, gaugePa } = solved;
  const column = settings.fuel.densityKgM3 * GRAVITY_M_S2;
  const potential = (node: number) =>
    node >= network.topology.unknowns
      ? (settings.fixed[node - network.topology.unknowns] as number)
      : (gaugePa[node] as number) + column * (settings.posture.nodeM[node] as number);
  return potential(link.from) - potential(link.to);
}

/** Transition of flow, where laws differ: a verdict that rests on it is shown as a range. */
export const isTransition = (reynolds: number) => reynolds > 2000 && reynolds < 4000;

/** The range of the loss of a run between laminar and turbulent law where its Reynolds number is between the two, Pa. */
export function transitionRange(
  solved: SolvedLineUp,
  index: number,
): { lowPa: number; highPa: number } | null {
  const { reynolds, lossPa } = figuresOf(solved, index);
  if (!isTransition(reynolds) || solved.network.links[index]?.kind !== "run") return null;
  const laminar = 64 / reynolds;
  const turbulent = 0.25 / Math.log10(5.74 / reynolds ** 0.9) ** 2;
  const now = { factor: 0, logSlope: 0 };
  churchill.evaluate(reynolds, 0, now);
  return { lowPa: (lossPa * laminar) / now.factor, highPa: (lossPa * turbulent) / now.factor };
}

/** Runs that carry flow, with which side of it they are on. */
export function flowOfRun(solved: SolvedLineUp, run: Run): number {
  return solved.flow[solved.network.linkOf.get(run.id) ?? -1] ?? 0;
}

/** Links along which fuel goes on from nodes (or comes to them, against its flow), tanks not passed: 1 by link. */
function alongFlow({ network, flow }: SolvedLineUp, starts: readonly number[], isDown: boolean): Uint8Array {
  const { from, to } = network.topology;
  const found = new Uint8Array(flow.length);
  // Every link with flow at a node that is reached, also where two lead to one place.
  walk(network.topology, starts, (link, node) => {
    const q = flow[link] as number;
    const isAlong = q !== 0 && (q > 0 === isDown ? from : to)[link] === node;
    if (isAlong) found[link] = 1;
    return isAlong;
  });
  return found;
}

/**
 * Links that carry what a running consumer sends back, up to the tanks or to where it joins a feed: 1 by link. What comes
 * from a tank and goes on to a consumer is feed, whatever joins it.
 */
export function returnLinks(solved: SolvedLineUp): Uint8Array {
  const { network, settings } = solved;
  const running = network.engines.filter(({ part }) => settings.lineUp.consumers[part.id] === "running");
  const backs = running.flatMap(({ back }) => (back === null ? [] : [back]));
  if (backs.length === 0) return new Uint8Array(solved.flow.length);
  const tanks = network.job.tanks.map((_, i) => network.topology.unknowns + i);
  const found = alongFlow(solved, backs, true);
  const fromTanks = alongFlow(solved, tanks, true);
  const toFeeds = alongFlow(
    solved,
    running.map(({ feed }) => feed),
    false,
  );
  return found.map((is, link) => (is && !(fromTanks[link] && toFeeds[link]) ? 1 : 0));
}

/** What passes a part, and between which pressures. */
export interface Passing {
  flowM3S: number;
  isReturn: boolean;
  /** Gauge pressure where it comes in and where it leaves, Pa. */
  beforePa: number;
  afterPa: number;
}

/**
 * What passes each part of the plan that anything passes: what comes into its own ways, with the pressures over the one
 * that carries most; for parts that hoses meet without a way of their own (gauges, taps, pots) the most at their node.
 */
export function passingParts(solved: SolvedLineUp): Map<Id, Passing> {
  const { network, flow, gaugePa } = solved;
  const { links, topology, plan, nodeOf } = network;
  const returns = returnLinks(solved);
  const ways = new Map<Id, number[]>();
  links.forEach((link, index) => {
    if (link.kind === "run" || link.kind === "tankPort") return;
    const id = linkKindOf(link).owner(link)?.id ?? "";
    ways.set(id, [...(ways.get(id) ?? []), index]);
  });
  const atNodes = (part: PlanPart): number[] =>
    portsOf(part).flatMap(({ id }) => {
      const node = nodeOf.get(`${part.id}.${id}`) as number;
      return [
        ...topology.linkAt.subarray(
          topology.linkStart[node] as number,
          topology.linkStart[node + 1] as number,
        ),
      ];
    });
  /** What comes into some links from elsewhere: a bypass that takes part of it counts once, what goes round not. */
  const comesIn = (indices: readonly number[]): number => {
    const net = new Map<number, number>();
    for (const i of indices) {
      const { from, to } = links[i] as NetworkLink;
      net.set(from, (net.get(from) ?? 0) + (flow[i] as number));
      net.set(to, (net.get(to) ?? 0) - (flow[i] as number));
    }
    return [...net.values()].reduce((sum, q) => sum + Math.max(0, q), 0);
  };
  const passing = new Map<Id, Passing>();
  for (const part of plan.parts) {
    const own = ways.get(part.id);
    const indices = own ?? atNodes(part);
    const most = indices.reduce(
      (best, i) => (best < 0 || Math.abs(flow[i] as number) > Math.abs(flow[best] as number) ? i : best),
      -1,
    );
    const q = flow[most] ?? 0;
    if (q === 0) continue;
    const { from, to } = links[most] as NetworkLink;
    const [tail, head] = q > 0 ? [from, to] : [to, from];
    passing.set(part.id, {
      flowM3S: own ? comesIn(own) : Math.abs(q),
      isReturn: returns[most] === 1,
      beforePa: gaugePa[tail] as number,
      afterPa: gaugePa[head] as number,
    });
  }
  return passing;
}

/** Net flow out of (+) or into (-) each tank, m3/s. */
export function tankFlows(solved: SolvedLineUp): Map<Id, number> {
  const out = new Map<Id, number>();
  solved.network.links.forEach((link, i) => {
    if (link.kind !== "tankPort") return;
    out.set(link.tank.id, (out.get(link.tank.id) ?? 0) - (solved.flow[i] as number));
  });
  return out;
}
