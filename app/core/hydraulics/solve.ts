/** A line-up solved: outcome per consumer, and pressures and flows only where a solve succeeded. */
import { headPa } from "../fuel/fuel";
import type { Id } from "../kinds/record";
import { churchill, type FrictionLaw } from "../laws/friction";
import { tabulated } from "../laws/tabulated";
import type { Network } from "../network/network";
import { engineFlows, makeSettings, type Settings, type SettingsFault } from "../network/settings";
import { walk } from "../network/walk";
import type { Conditions, LineUp } from "../plan/types";
import { NetworkSolver, type NewtonEnd, Way } from "../solver/newton";
import { Adjusters, MOST_ADJUSTMENTS } from "./adjust";
import { KeptByBytes } from "./kept";
import { NO_FLOW_M3S, Places, type Shortage, type Starvation } from "./starving";

export type ConsumerOutcome =
  | { outcome: "fed"; feedM3S: number; burnM3S: number }
  | { outcome: "starved"; feedM3S: number; mostM3S: number; at: string; cause: Exclude<Shortage, "air"> }
  /** Beyond its most, air comes in at a mouth that is clear of fuel. */
  | { outcome: "air"; feedM3S: number; mostM3S: number; at: string }
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

const NONE_FORCED: readonly Id[] = [];
const STARVED_STEPS = 40;
const STARVED_TOLERANCE = 1e-4;

/** Can fuel pass from `from` to `to` (forward) of a link, by its way alone? */
const passes = (way: number, forward: boolean) => way === Way.open || (way === Way.oneWay && forward);

/** Nodes that tanks reach, and nodes that reach one. */
interface Reached {
  readonly fromTanks: Uint8Array;
  readonly toTanks: Uint8Array;
}

interface Draw {
  readonly feedM3S: number;
  readonly backM3S: number;
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
  private readonly places: Places;
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
    this.places = new Places(network);
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

  /**
   * Like {@link solve}, with something changed in the settings that the plan has not: a way that is half shut, air that
   * comes in, a pump that is worn. The plan stays as it is.
   */
  solveWith(lineUp: LineUp, conditions: Conditions, change: (settings: Settings) => void): LineUpResult {
    const settings = makeSettings(this.network, lineUp, conditions);
    if ("code" in settings) return { outcome: "badConditions", fault: settings };
    change(settings);
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
    if (this.places.worst(settings, this.warm)) {
      const short = this.lessen(settings, consumers);
      end = this.run(settings, settings.demand);
      if (end.outcome !== "solved") return { outcome: end.outcome, iterations: end.iterations };
      if (short) return { outcome: "boils", at: short.at, cause: short.cause };
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

  /**
   * Lessens draws to what can be fed. All rise from nothing by one share of what they ask; whom a place that is reached
   * concerns stays at that share, the others go on. Returns what stands wrong with nothing drawn.
   */
  private lessen(settings: Settings, consumers: Map<Id, ConsumerOutcome>): Starvation | null {
    const full = this.ownDraws(settings, consumers);
    const shares = new Float64Array(full.length);
    let active = [...full.keys()].filter((k) => (full[k] as Draw).feedM3S > 0);
    /** What is wrong with all that still rise at a share; null where nothing is, `noFlows` where too much was asked for. */
    const wrongAt = (share: number): Starvation | "noFlows" | null => {
      for (const k of active) shares[k] = share;
      this.draw(settings, full, shares);
      if (this.run(settings, settings.demand).outcome !== "solved") return "noFlows";
      return this.places.worst(settings, this.warm, withAir);
    };
    // Air that comes with nothing drawn is a transfer's own: no consumer can be blamed for it.
    let withAir = true;
    let atRest = wrongAt(0);
    if (atRest !== "noFlows" && atRest?.cause === "air") {
      withAir = false;
      atRest = wrongAt(0);
    }
    // Without flows at rest the caller's own solve says so.
    if (atRest) return atRest === "noFlows" ? null : atRest;
    let low = 0;
    while (active.length > 0) {
      const atFull = wrongAt(1);
      if (!atFull) break;
      // A trial without flows tells nothing of the place: the last one with flows does.
      let reason = atFull === "noFlows" ? null : atFull;
      let high = 1;
      for (let step = 0; step < STARVED_STEPS && high - low > STARVED_TOLERANCE; step++) {
        const share = (low + high) / 2;
        const wrong = wrongAt(share);
        if (!wrong) low = share;
        else {
          high = share;
          if (wrong !== "noFlows") reason = wrong;
        }
      }
      if (!reason) {
        // No share that fails has flows: asked for in full, the caller's own solve says that it found none.
        wrongAt(1);
        return null;
      }
      const at = this.places.consumersAt(reason.node, this.warm.flow);
      const concerned = active.filter((k) => at.has(k));
      const held = concerned.length > 0 ? concerned : active;
      wrongAt(low);
      for (const k of held) this.tell(consumers, k, low, reason);
      active = active.filter((k) => !held.includes(k));
    }
    return null;
  }

  /** Draws as lessened; a consumer sends back as it draws. */
  private draw({ demand }: Settings, full: readonly Draw[], shares: Float64Array): void {
    demand.fill(0);
    this.network.engines.forEach(({ feed, back }, k) => {
      const { feedM3S, backM3S } = full[k] as Draw;
      const share = shares[k] as number;
      demand[feed] = (demand[feed] as number) + share * feedM3S;
      if (back !== null) demand[back] = (demand[back] as number) - share * backM3S;
    });
  }

  /** What each consumer asks for and sends back, where it has its ways. */
  private ownDraws({ conditions }: Settings, consumers: ReadonlyMap<Id, ConsumerOutcome>): Draw[] {
    return this.network.engines.map(({ part, back }) => {
      if (consumers.get(part.id)?.outcome !== "fed") return { feedM3S: 0, backM3S: 0 };
      const { feedM3S, burnM3S } = engineFlows(part, conditions.load[part.id] ?? 1);
      return { feedM3S, backM3S: back === null ? 0 : feedM3S - burnM3S };
    });
  }

  private tell(consumers: Map<Id, ConsumerOutcome>, k: number, share: number, reason: Starvation): void {
    const id = this.network.engines[k]?.part.id ?? "";
    const was = consumers.get(id);
    if (was?.outcome !== "fed") return;
    const { feedM3S } = was;
    const { at, cause } = reason;
    const most = { feedM3S, mostM3S: share * feedM3S, at };
    consumers.set(id, cause === "air" ? { outcome: "air", ...most } : { outcome: "starved", ...most, cause });
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
      // A pump that works against a shut way holds its side at what it gives at rest.
      const holds = (flow[i] as number) > NO_FLOW_M3S || (laws.curve[i] as number) >= 0;
      open[i] = way === Way.open || (way === Way.oneWay && holds) ? 1 : 0;
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
