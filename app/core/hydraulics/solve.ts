/** A line-up solved: outcome per consumer, and pressures and flows only where a solve succeeded. */
import { headPa } from "../fuel/fuel";
import type { Id } from "../kinds/record";
import { churchill, type FrictionLaw } from "../laws/friction";
import { tabulated } from "../laws/tabulated";
import { linkKindOf } from "../network/links";
import type { NetworkLink } from "../network/links/link";
import type { Network } from "../network/network";
import { makeSettings, type Settings, type SettingsFault } from "../network/settings";
import { walk } from "../network/walk";
import type { Conditions, LineUp } from "../plan/types";
import { NetworkSolver, type NewtonEnd, Way } from "../solver/newton";
import { Adjusters, MOST_ADJUSTMENTS } from "./adjust";
import { KeptByBytes } from "./kept";

export type ConsumerOutcome =
  | { outcome: "fed"; feedM3S: number; burnM3S: number }
  | { outcome: "starved"; feedM3S: number; mostM3S: number; at: string; cause: "vapour" | "pumpSuction" }
  | { outcome: "noPath"; side: "feed" | "return" }
  | { outcome: "stopped" };

export interface SolvedLineUp {
  outcome: "solved";
  network: Network;
  settings: Settings;
  /** m3/s by link, along the link's direction; exactly 0 through shut ways. */
  flow: Float64Array;
  /** Gauge pressure by node, Pa; NaN where fuel is shut in and its pressure is not known. */
  gaugePa: Float64Array;
  consumers: Map<Id, ConsumerOutcome>;
  /** Parts that fuel is forced through although they should hold it: a regulator in the way of a return. */
  forcedIds: readonly Id[];
  iterations: number;
  massM3S: number;
  energyPa: number;
}

export type LineUpResult =
  | SolvedLineUp
  | { outcome: "notConverged" | "notFinite"; iterations: number }
  /** Fuel would boil or a pump lose its suction where no consumer's draw can be lessened. */
  | { outcome: "boils"; at: string; cause: Starvation["cause"] }
  | { outcome: "badConditions"; fault: SettingsFault };

/** Shared by all solvers: what one has asked for, the next finds. */
const churchillTable = tabulated(churchill);

/** Flows below this are none: 0.0004 L/h, the leakage of a shut link at a few bar is a thousand times less. */
export const NO_FLOW_M3S = 1e-10;
const NONE_FORCED: readonly Id[] = [];
const STARVED_STEPS = 40;
const STARVED_TOLERANCE = 1e-4;

/** Where the pressure falls under what fuel or a pump can bear, and by how much (negative). */
export interface Starvation {
  at: string;
  cause: "vapour" | "pumpSuction";
  marginPa: number;
}

/** Can fuel pass from `from` to `to` (forward) of a link, by its way alone? */
const passes = (way: number, forward: boolean) => way === Way.open || (way === Way.oneWay && forward);

/** Nodes that tanks reach, and nodes that reach one. */
interface Reached {
  readonly fromTanks: Uint8Array;
  readonly toTanks: Uint8Array;
}

/** Where a solve in place leaves its figures. */
interface Results {
  readonly flow: Float64Array;
  readonly gaugePa: Float64Array;
}

/** Solves line-ups of one network; keeps its factor, buffers and last flows between calls. */
export class LineUpSolver {
  private readonly newton: NetworkSolver;
  private readonly warm: { flow: Float64Array; potential: Float64Array };
  private readonly adjusters: Adjusters;
  private buffers: Settings | undefined;
  private readonly results: Results;
  private readonly tankNodes: readonly number[];
  private readonly open: Uint8Array;
  private readonly connected = new KeptByBytes<Uint8Array>();
  private readonly reached = new KeptByBytes<Reached>();

  constructor(
    readonly network: Network,
    law: FrictionLaw = churchillTable,
  ) {
    const { topology } = network;
    this.newton = new NetworkSolver(topology, law);
    this.adjusters = new Adjusters(network.adjusted);
    this.results = {
      flow: new Float64Array(topology.from.length),
      gaugePa: new Float64Array(topology.nodes),
    };
    this.open = new Uint8Array(topology.from.length);
    this.tankNodes = Array.from(
      { length: topology.nodes - topology.unknowns },
      (_, i) => topology.unknowns + i,
    );
    this.warm = {
      flow: new Float64Array(topology.from.length).fill(1e-6),
      potential: new Float64Array(topology.nodes),
    };
  }

  /** The result holds copies and stays good after further calls. */
  solve(lineUp: LineUp, conditions: Conditions): LineUpResult {
    const settings = makeSettings(this.network, lineUp, conditions);
    if ("code" in settings) return { outcome: "badConditions", fault: settings };
    return this.solveSettings(settings);
  }

  /** Like {@link solve}, but hands the buffers on to the next call: read what is wanted before it. */
  solveInPlace(lineUp: LineUp, conditions: Conditions): LineUpResult {
    const settings = makeSettings(this.network, lineUp, conditions, this.buffers);
    if ("code" in settings) return { outcome: "badConditions", fault: settings };
    this.buffers = settings;
    return this.solveSettings(settings, this.results);
  }

  /** Outcomes by way alone, without a solve: which running consumers have one from a tank and back to one. */
  paths(lineUp: LineUp, conditions: Conditions): Map<Id, ConsumerOutcome> {
    const settings = makeSettings(this.network, lineUp, conditions);
    return "code" in settings ? new Map() : this.consumersWithPaths(settings);
  }

  private solveSettings(settings: Settings, into?: Results): LineUpResult {
    const consumers = this.consumersWithPaths(settings);
    let end = this.run(settings, settings.demand);
    if (end.outcome !== "solved") {
      this.warm.flow.fill(1e-6);
      end = this.run(settings, settings.demand);
      if (end.outcome !== "solved") return { outcome: end.outcome, iterations: end.iterations };
    }
    const reason = this.starvation(settings);
    if (reason) {
      const share = this.throttle(settings, consumers, reason);
      end = this.run(settings, settings.demand);
      if (end.outcome !== "solved") return { outcome: end.outcome, iterations: end.iterations };
      if (share === null || this.starvation(settings))
        return { outcome: "boils", at: reason.at, cause: reason.cause };
    }
    const { iterations, massM3S, energyPa } = end;
    const flow = into?.flow ?? new Float64Array(this.warm.flow.length);
    for (let i = 0; i < flow.length; i++) {
      const q = this.warm.flow[i] as number;
      flow[i] = q < NO_FLOW_M3S && q > -NO_FLOW_M3S ? 0 : q;
    }
    return {
      outcome: "solved",
      network: this.network,
      settings,
      flow,
      gaugePa: this.gauge(settings, into?.gaugePa ?? new Float64Array(this.warm.potential.length)),
      consumers,
      forcedIds:
        this.adjusters.forced.size === 0
          ? NONE_FORCED
          : [...this.adjusters.forced].map((index) => this.network.links[index]?.id ?? ""),
      iterations,
      massM3S,
      energyPa,
    };
  }

  /** Lessens every draw to what can be fed; null where nothing draws. */
  private throttle(
    settings: Settings,
    consumers: Map<Id, ConsumerOutcome>,
    { at, cause }: Starvation,
  ): number | null {
    const drawing = [...consumers].filter(([, { outcome }]) => outcome === "fed");
    if (drawing.length === 0) return null;
    const full = settings.demand.slice();
    const share = this.mostShare(settings, full);
    for (let node = 0; node < full.length; node++) settings.demand[node] = share * (full[node] as number);
    for (const [id, was] of drawing) {
      if (was.outcome !== "fed") continue;
      const { feedM3S } = was;
      consumers.set(id, { outcome: "starved", feedM3S, mostM3S: share * feedM3S, at, cause });
    }
    return share;
  }

  /** Draws without a way from a tank, or back to one, are taken off before the solve. */
  private consumersWithPaths(settings: Settings): Map<Id, ConsumerOutcome> {
    const { engines } = this.network;
    const { demand, lineUp, laws } = settings;
    const outcomes = new Map<Id, ConsumerOutcome>();
    const running = engines.filter(({ part }) => lineUp.consumers[part.id] === "running");
    for (const { part } of engines) outcomes.set(part.id, { outcome: "stopped" });
    if (running.length === 0) return outcomes;
    const { fromTanks, toTanks } = this.reachable(laws.way);
    for (const { part, feed, back } of running) {
      const side = !fromTanks[feed] ? "feed" : back !== null && !toTanks[back] ? "return" : null;
      if (side) {
        outcomes.set(part.id, { outcome: "noPath", side });
        demand[feed] = 0;
        if (back !== null) demand[back] = 0;
      } else {
        const feedM3S = demand[feed] ?? 0;
        const backM3S = back === null ? 0 : -(demand[back] ?? 0);
        outcomes.set(part.id, { outcome: "fed", feedM3S, burnM3S: feedM3S - backM3S });
      }
    }
    return outcomes;
  }

  private reachable(way: Uint8Array): Reached {
    const kept = this.reached.get(way);
    if (kept) return kept;
    const outlets = this.network.sorted.tankPorts
      .filter(({ index }) => way[index] === Way.open)
      .map(({ link }) => link.from);
    const { topology } = this.network;
    const opens = (against: boolean) => (link: number, node: number) =>
      passes(way[link] as number, (topology.from[link] === node) !== against);
    const fromTanks = walk(topology, outlets, opens(false)).seen;
    const toTanks = walk(topology, this.tankNodes, opens(true)).seen;
    return this.reached.set(way, { fromTanks, toTanks });
  }

  private run(settings: Settings, demand: Float64Array): NewtonEnd {
    const { unknowns } = this.network.topology;
    this.warm.potential.set(settings.fixed, unknowns);
    const { adjusted } = this.network;
    if (adjusted.length === 0) return this.newton.solve(settings.laws, demand, this.warm);
    const { adjusters } = this;
    adjusters.begin(settings);
    let iterations = 0;
    for (let turn = 0; turn < MOST_ADJUSTMENTS; turn++) {
      adjusters.follow(this.warm.flow);
      const end = this.newton.solve(settings.laws, demand, this.warm);
      iterations += end.iterations;
      if (end.outcome !== "solved") return end;
      if (!adjusters.correct(this.warm)) return { ...end, iterations };
    }
    return { outcome: "notConverged", iterations };
  }

  /** The worst place where fuel would boil, or a pump cannot draw; null where all is well. */
  private starvation(settings: Settings): Starvation | null {
    const { nodes, links, sorted, topology } = this.network;
    const { from, to, unknowns } = topology;
    const { flow, potential } = this.warm;
    const { fuel, atmospherePa, lineUp, posture } = settings;
    const nodeHeightM = posture.nodeM;
    const limitPa = fuel.vapourPa - atmospherePa;
    let worst: Starvation | null = null;
    const judge = (at: string, marginPa: number, cause: Starvation["cause"]) => {
      if (!(marginPa > 0) && !(worst && worst.marginPa <= marginPa)) worst = { at, cause, marginPa };
    };
    const gauge = (node: number) =>
      (potential[node] as number) - headPa(fuel.densityKgM3, nodeHeightM[node] as number);
    const judgeNode = (node: number) => {
      const marginPa = gauge(node) - limitPa;
      if (!(marginPa > 0)) judge(nodes[node]?.id ?? "", marginPa, "vapour");
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
        if (!(marginPa > 0)) judge(link.id, marginPa, "vapour");
      }
    }
    for (const index of sorted.drawing) {
      const link = links[index] as NetworkLink;
      const draws = linkKindOf(link).draws?.(link);
      if (draws?.mostSuctionPa === undefined || lineUp.pumps[draws.id] !== "on" || !flows(index)) continue;
      judge(nodes[link.from]?.id ?? "", gauge(link.from) + draws.mostSuctionPa, "pumpSuction");
    }
    return worst;
  }

  /** The largest share of every draw that can be fed: bisection on the margin, which falls with flow. */
  private mostShare(settings: Settings, full: Float64Array): number {
    const trial = new Float64Array(full.length);
    let low = 0;
    let high = 1;
    for (let step = 0; step < STARVED_STEPS && high - low > STARVED_TOLERANCE; step++) {
      const share = (low + high) / 2;
      for (let node = 0; node < full.length; node++) trial[node] = share * (full[node] as number);
      const end = this.run(settings, trial);
      if (end.outcome === "solved" && !this.starvation(settings)) low = share;
      else high = share;
    }
    return low;
  }

  private gauge(settings: Settings, gauge: Float64Array): Float64Array {
    const { topology } = this.network;
    const nodeHeightM = settings.posture.nodeM;
    const { potential } = this.warm;
    const known = this.connectedToTanks(settings);
    const { densityKgM3 } = settings.fuel;
    for (let node = 0; node < gauge.length; node++) {
      if (node >= topology.unknowns)
        gauge[node] = 0 - (this.network.ventVacuumPa[node - topology.unknowns] as number);
      else if (!known[node]) gauge[node] = Number.NaN;
      else gauge[node] = (potential[node] as number) - headPa(densityKgM3, nodeHeightM[node] as number);
    }
    return gauge;
  }

  /** Nodes whose pressure is fixed by a tank: joined to one by ways that stand open. */
  private connectedToTanks({ laws }: Settings): Uint8Array {
    const { flow } = this.warm;
    const { open } = this;
    for (let i = 0; i < open.length; i++) {
      const way = laws.way[i];
      open[i] = way === Way.open || (way === Way.oneWay && (flow[i] as number) > NO_FLOW_M3S) ? 1 : 0;
    }
    return (
      this.connected.get(open) ??
      this.connected.set(open, walk(this.network.topology, this.tankNodes, (link) => open[link] === 1).seen)
    );
  }
}

export function solveLineUp(network: Network, lineUp: LineUp, conditions: Conditions): LineUpResult {
  return new LineUpSolver(network).solve(lineUp, conditions);
}

/** Is every running consumer fed? */
export const isFed = (result: LineUpResult): boolean =>
  result.outcome === "solved" &&
  [...result.consumers.values()].every(({ outcome }) => outcome === "fed" || outcome === "stopped");
