/**
 * Where a solved setting asks for what cannot be: fuel that would boil, a pump that cannot draw or give so much, air
 * that comes in at a mouth which is clear of fuel. Which consumers each place concerns is told by the flow.
 */
import { headPa } from "../fuel/fuel";
import type { DosingPump } from "../kinds/dosingPump";
import { linkKindOf } from "../network/links";
import type { LinkOf, NetworkLink } from "../network/links/link";
import type { Network } from "../network/network";
import type { Settings } from "../network/settings";
import { walk } from "../network/walk";
import { type FlowState, Way } from "../solver/newton";

/** Why a consumer gets less than it asks for. */
export type Shortage = "vapour" | "pumpSuction" | "pumpCapacity" | "pumpRise" | "air";

/** Where it shows, and by how much (negative). */
export interface Starvation {
  at: string;
  node: number;
  cause: Shortage;
  marginPa: number;
}

/** Flows below this are none: 0.0004 L/h, the leakage of a shut link at a few bar is a thousand times less. */
export const NO_FLOW_M3S = 1e-10;
/** A burner's pressure this far under the air's is the solver's own play. */
const BURNER_PLAY_PA = 1;
/** A seal of fuel this low is none: 0.1 mm. */
const SEAL_PLAY_PA = 1;
/** A rate over its most is weighed as if all of it were a bar. */
const RATE_PA = 1e5;

/** What a dosing pump draws where its maker does not say: small piston pumps draw 20 to 35 kPa. Common practice, no source. */
export const DOSING_SUCTION_PA = 25_000;

/** What a pump that draws in part of its period takes over the mean: its loss goes with the flow while it draws. */
const strokePa = ({ strokeM3, strokeS }: DosingPump, meanM3S: number, lossPa: number): number =>
  meanM3S > 0 ? Math.max(0, strokeM3 / strokeS / meanM3S - 1) * lossPa : 0;

/**
 * The lowest pressure before a dosing pump, in its stroke. A line that would ask for more than the pump can draw slows
 * the piston: the stroke lasts longer and draws no harder, and while it ends before the next begins as much is given.
 * @param gaugePa at its inlet at the mean flow
 * @param lossPa of it lost to flow, from its tank on
 */
export function strokeGaugePa(pump: DosingPump, meanM3S: number, lossPa: number, gaugePa: number): number {
  const most = -(pump.mostSuctionPa ?? DOSING_SUCTION_PA);
  return Math.min(gaugePa, Math.max(gaugePa - strokePa(pump, meanM3S, lossPa), most));
}

interface Dosing {
  readonly index: number;
  readonly link: LinkOf<"dosing">;
  /** Node of the burner it meters for; null without one. */
  readonly burner: number | null;
}

export class Places {
  private readonly dosing: readonly Dosing[];
  private readonly scratch: { queue: Int32Array; by: Int32Array; reachedAt: Int32Array; stamp: number };

  constructor(private readonly network: Network) {
    const make = () => new Int32Array(network.topology.nodes);
    this.scratch = { queue: make(), by: make(), reachedAt: make(), stamp: 0 };
    this.dosing = network.links.flatMap((link, index) => {
      if (link.kind !== "dosing") return [];
      const held = network.adjusted.find((one) => one.index === index);
      return [{ index, link, burner: held?.kind === "hold" ? held.node : null }];
    });
  }

  /** The worst place; null where all is well. */
  worst(settings: Settings, { flow, potential }: FlowState, withAir = true): Starvation | null {
    const { nodes, links, sorted, topology } = this.network;
    const { from, to, unknowns } = topology;
    const { fuel, atmospherePa, lineUp, posture } = settings;
    const { nodeM } = posture;
    const limitPa = fuel.vapourPa - atmospherePa;
    let worst: Starvation | null = null;
    const judge = (at: string, node: number, marginPa: number, cause: Shortage) => {
      if (marginPa > 0 || (worst && worst.marginPa <= marginPa)) return;
      worst = { at, node, cause, marginPa };
    };
    const gauge = (node: number) =>
      (potential[node] as number) - headPa(fuel.densityKgM3, nodeM[node] as number);
    const judgeNode = (node: number) => {
      const marginPa = gauge(node) - limitPa;
      if (!(marginPa > 0)) judge(nodes[node]?.id ?? "", node, marginPa, "vapour");
    };
    const flows = (i: number) => Math.abs(flow[i] as number) >= NO_FLOW_M3S;
    for (let i = 0; i < from.length; i++) {
      // A tank's own node is no place in a pipe.
      if ((to[i] as number) >= unknowns || !flows(i)) continue;
      judgeNode(from[i] as number);
      judgeNode(to[i] as number);
    }
    for (const { index, link } of sorted.humped) {
      if (!flows(index)) continue;
      // Straight between its ends' potentials; written out, since it is asked of every solve.
      const start = potential[link.from] as number;
      const slope = ((potential[link.to] as number) - start) / link.geometry.lengthM;
      for (const { atM, zM } of posture.profileOf(link)) {
        const marginPa = start + slope * atM - headPa(fuel.densityKgM3, zM) - limitPa;
        if (!(marginPa > 0)) judge(link.id, link.to, marginPa, "vapour");
      }
    }
    for (const index of sorted.drawing) {
      const link = links[index] as NetworkLink;
      const draws = linkKindOf(link).draws?.(link);
      if (draws?.mostSuctionPa === undefined || lineUp.pumps[draws.id] !== "on" || !flows(index)) continue;
      // At the mean flow: a dosing pump whose strokes would fill all its time draws at its hardest without a pause.
      judge(nodes[link.from]?.id ?? "", link.from, gauge(link.from) + draws.mostSuctionPa, "pumpSuction");
    }
    for (const { index, link, burner } of this.dosing) {
      if (!flows(index)) continue;
      const { strokeM3, mostHz, id } = link.part;
      const mostM3S = strokeM3 * mostHz;
      const over = ((flow[index] as number) - mostM3S) / mostM3S;
      if (over > 1e-9) judge(id, link.to, -over * RATE_PA, "pumpCapacity");
      if (burner !== null && gauge(burner) < -BURNER_PLAY_PA) judge(id, burner, gauge(burner), "pumpRise");
    }
    const { tankPorts } = sorted;
    for (let i = 0; withAir && i < tankPorts.length; i++) {
      const { index, link } = tankPorts[i] as (typeof tankPorts)[number];
      // A mouth over the surface through which nothing falls: the fuel that stands before it may be drawn away.
      if (settings.laws.way[index] !== Way.oneWay || flows(index) || !(gauge(link.from) < 0)) continue;
      const met = this.airMeets(link.from, settings, flow);
      if (!met) continue;
      const marginPa = (potential[met.node] as number) - headPa(fuel.densityKgM3, met.lowestM);
      if (marginPa < -SEAL_PLAY_PA) judge(link.id, met.node, marginPa, "air");
    }
    return worst;
  }

  private flowsInto(link: number, node: number, flow: Float64Array): boolean {
    const { from, to } = this.network.topology;
    const q = flow[link] as number;
    return q > NO_FLOW_M3S ? to[link] === node : q < -NO_FLOW_M3S && from[link] === node;
  }

  /**
   * Where the still fuel behind a clear mouth meets what flows, and the lowest point on the way there, along the true
   * vertical: air comes by only when the pressure where they meet no longer holds fuel up to it. Null where a shut way
   * or a check lies between.
   */
  private airMeets(
    start: number,
    settings: Settings,
    flow: Float64Array,
  ): { node: number; lowestM: number } | null {
    const { topology, links } = this.network;
    const { from, to, linkStart, linkAt, unknowns } = topology;
    const { posture, laws } = settings;
    const { queue, by, reachedAt } = this.scratch;
    const stamp = ++this.scratch.stamp;
    // Asked of every solve for each idle mouth: a walk without new arrays, which ends at the first node that flows.
    let met = -1;
    let count = 1;
    queue[0] = start;
    by[start] = -1;
    reachedAt[start] = stamp;
    for (let i = 0; i < count && met < 0; i++) {
      const node = queue[i] as number;
      if (node >= unknowns) continue;
      for (let k = linkStart[node] as number; k < (linkStart[node + 1] as number); k++) {
        const link = linkAt[k] as number;
        if (Math.abs(flow[link] as number) >= NO_FLOW_M3S) {
          met = node;
          break;
        }
        const way = laws.way[link] as Way;
        const isForward = from[link] === node;
        if (way === Way.shut || (way === Way.oneWay && !isForward) || links[link]?.kind === "tankPort")
          continue;
        const next = (isForward ? to[link] : from[link]) as number;
        if (reachedAt[next] === stamp) continue;
        reachedAt[next] = stamp;
        by[next] = link;
        queue[count++] = next;
      }
    }
    if (met < 0) return null;
    let lowestM = posture.nodeM[met] as number;
    for (let at = met; (by[at] as number) >= 0; ) {
      const link = links[by[at] as number] as NetworkLink;
      const heights = link.kind === "run" ? posture.profileOf(link).map(({ zM }) => zM) : [];
      lowestM = Math.min(lowestM, posture.nodeM[at] as number, ...heights);
      at = link.from === at ? link.to : link.from;
    }
    return { node: met, lowestM };
  }

  /** Consumers that what happens at a node concerns: those its fuel goes to, and those whose return passes it. */
  consumersAt(node: number, flow: Float64Array): Set<number> {
    const { topology, engines } = this.network;
    const below = walk(topology, [node], (k, at) => {
      const q = flow[k] as number;
      return q > NO_FLOW_M3S ? topology.from[k] === at : q < -NO_FLOW_M3S && topology.to[k] === at;
    }).seen;
    const above = walk(topology, [node], (k, at) => this.flowsInto(k, at, flow)).seen;
    const found = new Set<number>();
    engines.forEach(({ feed, back }, k) => {
      if (below[feed] || (back !== null && above[back])) found.add(k);
    });
    return found;
  }
}
