/**
 * All flows and piezometric pressures of a network at once: Newton on heads and flows
 * (global gradient method, E. Todini and S. Pilati 1988, in Coulbeck and Orr, Computer Applications in Water Supply).
 *
 * Every link law is continuous and rises with flow, so there is one solution. Shut links and reversed one-way
 * links keep a very high linear resistance instead of leaving the matrix: the symbolic factor stays good
 * whatever valves are set, and the solution is unique for parts cut off from every tank.
 */
import type { FrictionLaw, FrictionValue } from "../laws/friction";
import { LAMINAR_BELOW_RE } from "../laws/friction";
import { analyse, factorAndSolve, type SymbolicFactor } from "./factor";

/** Unknown nodes come first: node indices below `unknowns` are junctions, the rest hold a fixed potential. */
export interface Topology {
  readonly unknowns: number;
  readonly nodes: number;
  readonly from: Int32Array;
  readonly to: Int32Array;
  readonly factor: SymbolicFactor;
  /** Pair index of a link between two unknowns, or -1. */
  readonly pairOfLink: Int32Array;
  /** Links at a node: `linkAt` from `linkStart[node]` to `linkStart[node + 1]`. */
  readonly linkStart: Int32Array;
  readonly linkAt: Int32Array;
}

export const enum Way {
  open = 0,
  shut = 1,
  /** Open from `from` to `to` only. */
  oneWay = 2,
}

/** dp = constant + linear Q + square Q|Q| + friction f(Re) Q|Q|; pump links read a curve instead. SI. */
export interface LinkLaws {
  readonly way: Uint8Array;
  readonly constant: Float64Array;
  readonly linear: Float64Array;
  readonly square: Float64Array;
  readonly friction: Float64Array;
  readonly reynoldsPerFlow: Float64Array;
  readonly relativeRoughness: Float64Array;
  /** Index in `curves`, or -1. */
  readonly curve: Int16Array;
  readonly curves: readonly Curve[];
}

/** Drop over flow as straight pieces (a pump's is negative), flow ascending from 0. */
export interface Curve {
  readonly flow: Float64Array;
  readonly drop: Float64Array;
}

export interface FlowState {
  readonly flow: Float64Array;
  /** Piezometric pressure p + rho g z, Pa, by node; fixed nodes are set by the caller. */
  readonly potential: Float64Array;
}

export type NewtonEnd =
  | { outcome: "solved"; iterations: number; massM3S: number; energyPa: number }
  | { outcome: "notConverged"; iterations: number }
  | { outcome: "notFinite"; iterations: number };

/** Flow through a shut link at 100 kPa is then 1e-12 m3/s, the tolerance where nothing flows. */
const SHUT_PA_S_M3 = 1e17;
/** Least slope of a law: keeps the step finite for a link that costs nothing at rest. 0.6 Pa at 210 L/h. */
const LEAST_SLOPE = 1e4;
/**
 * The next step would change the flows by at most this share of them. With mass in balance the next step is the
 * projection of the links' misses on the loops, so its norm (flow squared times slope) is at most theirs.
 */
const FLOW_TOLERANCE = 1e-6;
/** Where nothing flows, next steps under 1e-13 m3/s at the least slope count as none: that, squared, times 1e4. */
const NO_STEP = 1e-22;
const ENERGY_TOLERANCE_PA = 0.05;
/** Random networks with loops of shut check valves have needed up to 40. */
const MOST_ITERATIONS = 150;
/** Newton goes in full steps while it converges; a cycle between two branches of a law is broken by a search along the step. */
const SEARCH_AFTER = 14;
const SEARCH_STEPS = 60;
/**
 * A step that moves less than this in all has found the flows. A pocket that is shut in on all sides has no pressure of
 * its own: round-off opens and shuts a check in it for ever, over flows of 1e-17 m3/s (a boat at rest with its returns
 * shut, a random line-up of the demo).
 */
const STILL_M3_S = 1e-12;

export function makeTopology(unknowns: number, nodes: number, from: Int32Array, to: Int32Array): Topology {
  const pairOfLink = new Int32Array(from.length).fill(-1);
  const pairs: [number, number][] = [];
  for (let link = 0; link < from.length; link++) {
    const a = from[link] as number;
    const b = to[link] as number;
    if (a === b || a >= unknowns || b >= unknowns) continue;
    pairOfLink[link] = pairs.length;
    pairs.push([a, b]);
  }
  const linkStart = new Int32Array(nodes + 1);
  for (let link = 0; link < from.length; link++) {
    for (const node of [from[link] as number, to[link] as number])
      linkStart[node + 1] = (linkStart[node + 1] as number) + 1;
  }
  for (let node = 0; node < nodes; node++)
    linkStart[node + 1] = (linkStart[node + 1] as number) + (linkStart[node] as number);
  const linkAt = new Int32Array(2 * from.length);
  const next = linkStart.slice();
  for (let link = 0; link < from.length; link++) {
    for (const node of [from[link] as number, to[link] as number]) {
      linkAt[next[node] as number] = link;
      next[node] = (next[node] as number) + 1;
    }
  }
  return { unknowns, nodes, from, to, factor: analyse(unknowns, pairs), pairOfLink, linkStart, linkAt };
}

interface Workspace {
  readonly conductance: Float64Array;
  readonly offset: Float64Array;
  readonly change: Float64Array;
  readonly trial: Float64Array;
  readonly balance: Float64Array;
  readonly drop: Float64Array;
  readonly slope: Float64Array;
  readonly diagonal: Float64Array;
  readonly lower: Float64Array;
  readonly x: Float64Array;
}

function curveValue(curve: Curve, q: number, out: { drop: number; slope: number }): void {
  const { flow, drop } = curve;
  const last = flow.length - 1;
  let i = 1;
  while (i < last && (flow[i] as number) < q) i++;
  const slope =
    ((drop[i] as number) - (drop[i - 1] as number)) / ((flow[i] as number) - (flow[i - 1] as number));
  out.drop = (drop[i - 1] as number) + slope * (q - (flow[i - 1] as number));
  out.slope = slope;
}

/** A network kept ready: its factor and buffers serve every setting, and the last flows start the next solve. */
export class NetworkSolver {
  private readonly work: Workspace;
  private readonly value: FrictionValue = { factor: 0, logSlope: 0 };
  private readonly piece = { drop: 0, slope: 0 };

  constructor(
    readonly topology: Topology,
    readonly law: FrictionLaw,
  ) {
    const links = topology.from.length;
    this.work = {
      conductance: new Float64Array(links),
      offset: new Float64Array(links),
      change: new Float64Array(links),
      trial: new Float64Array(links),
      balance: new Float64Array(topology.nodes),
      drop: new Float64Array(links),
      slope: new Float64Array(links),
      diagonal: new Float64Array(topology.unknowns),
      lower: new Float64Array(topology.factor.row.length),
      x: new Float64Array(topology.unknowns),
    };
  }

  /**
   * Solves in place. `demand` is the flow drawn at each node (m3/s, negative puts in); `state.flow` is the start.
   * The state is good only when the outcome is `solved`.
   */
  solve(laws: LinkLaws, demand: Float64Array, state: FlowState): NewtonEnd {
    for (let iteration = 0; iteration <= MOST_ITERATIONS; iteration++) {
      const energyPa = this.linearise(laws, state);
      if (iteration > 0 && this.settled && energyPa <= ENERGY_TOLERANCE_PA) {
        const massM3S = this.worstMass(demand, state.flow);
        return { outcome: "solved", iterations: iteration, massM3S, energyPa };
      }
      this.assemble(demand, state.potential);
      factorAndSolve(this.topology.factor, this.work.diagonal, this.work.lower, this.work.x);
      const moved = this.step(laws, state, iteration >= SEARCH_AFTER);
      if (!Number.isFinite(moved)) return { outcome: "notFinite", iterations: iteration };
      if (iteration >= SEARCH_AFTER && moved <= STILL_M3_S) {
        const flowingPa = this.worstOfFlowing(laws, state);
        const massM3S = this.worstMass(demand, state.flow);
        if (flowingPa <= ENERGY_TOLERANCE_PA && massM3S <= STILL_M3_S)
          return { outcome: "solved", iterations: iteration, massM3S, energyPa: flowingPa };
      }
    }
    return { outcome: "notConverged", iterations: MOST_ITERATIONS };
  }

  /** Is the next step sure to be small enough? Told by {@link linearise}; good only after a whole step. */
  private settled = false;

  /** Drop and slope of every link at `flow`, written to the workspace. */
  private evaluate(laws: LinkLaws, flow: Float64Array): void {
    const { way, constant, linear, square, friction, reynoldsPerFlow, relativeRoughness, curve, curves } =
      laws;
    const { drop, slope } = this.work;
    const { piece, value, law } = this;
    for (let i = 0; i < flow.length; i++) {
      const q = flow[i] as number;
      const kind = way[i] as number;
      if (kind === Way.shut || (kind === Way.oneWay && q < 0)) {
        slope[i] = SHUT_PA_S_M3;
        drop[i] = (kind === Way.shut ? 0 : this.dropAtRest(laws, i)) + SHUT_PA_S_M3 * q;
        continue;
      }
      if ((curve[i] as number) >= 0) {
        curveValue(curves[curve[i] as number] as Curve, q, piece);
        drop[i] = piece.drop;
        slope[i] = piece.slope;
        continue;
      }
      const size = q < 0 ? -q : q;
      const s = (square[i] as number) * size;
      let perFlow = (linear[i] as number) + s;
      let grows = perFlow + s;
      const re = (reynoldsPerFlow[i] as number) * size;
      if (re < LAMINAR_BELOW_RE) {
        const laminar = (64 * (friction[i] as number)) / (reynoldsPerFlow[i] as number);
        perFlow += laminar;
        grows += laminar;
      } else {
        law.evaluate(re, relativeRoughness[i] as number, value);
        const turbulent = (friction[i] as number) * value.factor * size;
        perFlow += turbulent;
        grows += turbulent * (2 + value.logSlope);
      }
      drop[i] = (constant[i] as number) + perFlow * q;
      slope[i] = grows;
    }
  }

  /** Conductance and offset of every link at its flow; gives the worst |drop - potential difference|, Pa. */
  private linearise(laws: LinkLaws, state: FlowState): number {
    const { from, to } = this.topology;
    const { conductance, offset, drop, slope } = this.work;
    const { flow, potential } = state;
    this.evaluate(laws, flow);
    let worst = 0;
    let next = 0;
    let all = 0;
    for (let i = 0; i < flow.length; i++) {
      const fall = drop[i] as number;
      const q = flow[i] as number;
      const rise = slope[i] as number;
      const steep = rise > LEAST_SLOPE ? rise : LEAST_SLOPE;
      const g = 1 / steep;
      conductance[i] = g;
      offset[i] = q - fall * g;
      const miss = fall - ((potential[from[i] as number] as number) - (potential[to[i] as number] as number));
      next += g * miss * miss;
      all += steep * q * q;
      const off = miss < 0 ? -miss : miss;
      if (!(off <= worst)) worst = off;
    }
    this.settled = next <= FLOW_TOLERANCE * FLOW_TOLERANCE * all + NO_STEP;
    return worst;
  }

  /** Worst |drop - potential difference| of the links that carry fuel, Pa. */
  private worstOfFlowing(laws: LinkLaws, { flow, potential }: FlowState): number {
    const { from, to } = this.topology;
    this.evaluate(laws, flow);
    let worst = 0;
    for (let i = 0; i < flow.length; i++) {
      if (Math.abs(flow[i] as number) <= STILL_M3_S) continue;
      const fall = (potential[from[i] as number] as number) - (potential[to[i] as number] as number);
      const off = Math.abs((this.work.drop[i] as number) - fall);
      if (!(off <= worst)) worst = off;
    }
    return worst;
  }

  private dropAtRest(laws: LinkLaws, i: number): number {
    const index = laws.curve[i] as number;
    if (index < 0) return laws.constant[i] as number;
    return (laws.curves[index] as Curve).drop[0] as number;
  }

  private assemble(demand: Float64Array, potential: Float64Array): void {
    const { from, to, unknowns, factor, pairOfLink } = this.topology;
    const { position, slotOfPair } = factor;
    const { conductance, offset, diagonal, lower, x } = this.work;
    diagonal.fill(0);
    lower.fill(0);
    for (let node = 0; node < unknowns; node++) x[position[node] as number] = -(demand[node] as number);
    for (let i = 0; i < conductance.length; i++) {
      const a = from[i] as number;
      const b = to[i] as number;
      const g = conductance[i] as number;
      const w = offset[i] as number;
      if (a === b) continue;
      if (a < unknowns) {
        const pa = position[a] as number;
        diagonal[pa] = (diagonal[pa] as number) + g;
        x[pa] = (x[pa] as number) - w + (b < unknowns ? 0 : g * (potential[b] as number));
      }
      if (b < unknowns) {
        const pb = position[b] as number;
        diagonal[pb] = (diagonal[pb] as number) + g;
        x[pb] = (x[pb] as number) + w + (a < unknowns ? 0 : g * (potential[a] as number));
      }
      const pair = pairOfLink[i] as number;
      if (pair >= 0) {
        const slot = slotOfPair[pair] as number;
        lower[slot] = (lower[slot] as number) - g;
      }
    }
    // A part joined to no tank by any link: hold it at zero, with a conductance no one can feel.
    for (let p = 0; p < unknowns; p++) diagonal[p] = (diagonal[p] as number) * (1 + 1e-14) + 1e-24;
  }

  /** Takes the step, whole or with `search` as far as the energy falls; gives the flow that moved, m3/s. */
  private step(laws: LinkLaws, state: FlowState, search: boolean): number {
    const { from, to, unknowns, factor } = this.topology;
    const { conductance, offset, x, change } = this.work;
    const { flow, potential } = state;
    for (let node = 0; node < unknowns; node++)
      potential[node] = x[factor.position[node] as number] as number;
    for (let i = 0; i < flow.length; i++) {
      const drop = (potential[from[i] as number] as number) - (potential[to[i] as number] as number);
      change[i] = (offset[i] as number) + (conductance[i] as number) * drop - (flow[i] as number);
    }
    const share = search ? this.searchAlong(laws, state) : 1;
    let moved = 0;
    for (let i = 0; i < flow.length; i++) {
      const by = share * (change[i] as number);
      flow[i] = (flow[i] as number) + by;
      moved += by < 0 ? -by : by;
    }
    return moved;
  }

  /**
   * The solution is the least of a convex content, the sum of each law's integral (Collins et al. 1978).
   * Its slope along the step, by share of the step taken, is bisected until it is near none.
   */
  private searchAlong(laws: LinkLaws, state: FlowState): number {
    const start = this.contentSlope(laws, state, 0);
    if (this.contentSlope(laws, state, 1) <= -0.5 * start) return 1;
    let low = 0;
    let high = 1;
    for (let k = 0; k < SEARCH_STEPS; k++) {
      const share = (low + high) / 2;
      const slope = this.contentSlope(laws, state, share);
      if (Math.abs(slope) <= -0.5 * start) return share;
      if (slope < 0) low = share;
      else high = share;
    }
    return low > 0 ? low : high;
  }

  private contentSlope(laws: LinkLaws, { flow, potential }: FlowState, share: number): number {
    const { from, to } = this.topology;
    const { change, drop, trial } = this.work;
    for (let i = 0; i < flow.length; i++) trial[i] = (flow[i] as number) + share * (change[i] as number);
    this.evaluate(laws, trial);
    let sum = 0;
    for (let i = 0; i < flow.length; i++) {
      const fall = (potential[from[i] as number] as number) - (potential[to[i] as number] as number);
      sum += (change[i] as number) * ((drop[i] as number) - fall);
    }
    return sum;
  }

  /** Worst imbalance of a node, m3/s. */
  private worstMass(demand: Float64Array, flow: Float64Array): number {
    const { from, to, unknowns } = this.topology;
    const { balance } = this.work;
    balance.fill(0);
    for (let i = 0; i < flow.length; i++) {
      const a = from[i] as number;
      const b = to[i] as number;
      balance[a] = (balance[a] as number) - (flow[i] as number);
      balance[b] = (balance[b] as number) + (flow[i] as number);
    }
    let worst = 0;
    for (let node = 0; node < unknowns; node++) {
      worst = Math.max(worst, Math.abs((balance[node] as number) - (demand[node] as number)));
    }
    return worst;
  }
}
