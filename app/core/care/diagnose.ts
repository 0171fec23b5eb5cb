/**
 * What is wrong, from what was read: every fault of a line-up is laid over its settings, solved, and weighed by how well it
 * explains all readings together. Errors are shared: the plan's hoses, elements, feed and pumps are off for all readings
 * of a job, a gauge's zero for all of that gauge (independent errors rank as well and are wrong too often when they say
 * 'sure'). No joint is named out of a group that no reading parts. Two faults at once are often taken for one: after
 * each mend, read again.
 */
import jstat from "jstat";
import { fuelWay } from "../hydraulics/route";
import { type LineUpResult, LineUpSolver } from "../hydraulics/solve";
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import type { Settings } from "../network/settings";
import type { Conditions, LineUp } from "../plan/types";
import { type CareFault, faultsOf, portPlaces } from "./faults";
import { cholesky, logDensity, squares, whitened } from "./gauss";
import { type Look, lookChance, type Symptom, symptomChance } from "./looks";

export const readStates = ["full", "idle", "stopped", "capOff"] as const;
export type ReadState = (typeof readStates)[number];

export type CareReading =
  /** At a port, by a gauge that is there or was put there; over the air, Pa: vacuum is negative. */
  | { kind: "gauge"; port: string; state: ReadState; gaugePa: number }
  | { kind: "look"; look: Look; port?: string; seen: boolean }
  | { kind: "symptom"; symptom: Symptom; has: boolean };

/** A dial as it is sold: class 1.6 over 40 kPa, read to a fifth of 2.5 kPa. Assumed; common practice, no source. */
const ZERO_PA = 640;
const REPEAT_PA = 250;
const READ_PA = 290;
const OWN_SHARE = 0.05;
/** Shares that the plan's own figures are off by, for all readings alike. Common practice, no source. */
const shared = { hoses: 0.12, elements: 0.15, feed: 0.06, pumps: 0.08 } as const;
/** Readings that are far off: slips of the hand, a step of the dial. */
const WIDE_SHARE = 0.04;
const WIDE_TIMES = 5;
/** Sizes that are solved lie this dense when they are weighed. */
const WEIGHED_SIZES = 9;
const SURE = 0.8;
const FITS = 0.05;
const MISFITS = 0.002;
/** Where no gauge is, so many looks say that nothing shows. Common practice, no source. */
const LOOKS_ENOUGH = 2;

interface Predicted {
  fault: CareFault;
  /** By state the gauge pressures of all nodes, one array a size; null where nothing flows at that size. */
  byState: Record<ReadState, (Float64Array | null)[]>;
}

export interface CareGroup {
  group: string;
  share: number;
  /** Parts, runs, tanks or line-ups of it, in the order of the way. */
  ids: Id[];
  faultIds: string[];
  kind: CareFault["kind"];
  /** The size that the readings make likely, in the fault's own measure. */
  size: number;
  /** What the likeliest of it would read at each reading's place. */
  wouldReadPa: number[];
}

export type CareOutcome = "nothingShows" | "found" | "open" | "badReading";

export interface Diagnosis {
  outcome: CareOutcome;
  ranked: CareGroup[];
  /** Chi squared of what was read against nothing wrong, and against the best. */
  fit: { healthyP: number; bestP: number };
  /** Index of the reading with the largest pull, where it alone keeps the best from fitting. */
  badIndex: number | null;
}

/** What a visit reads: how long it takes, and how much it is likely to tell. */
export interface Visit {
  id: string;
  kind: "state" | "look" | "gauge";
  state?: ReadState;
  look?: Look;
  port?: string;
  minutes: number;
  bits: number;
  /** The group that each outcome would speak for: what it would read, and whom it leaves first. */
  ifThen: { reads: string; group: string }[];
}

/** Interpolates the solved sizes: place i of n between them. */
const between = (solved: readonly number[], place: number): number => {
  const at = place * (solved.length - 1);
  const low = Math.floor(at);
  const [a, b] = [solved[low] as number, solved[Math.min(low + 1, solved.length - 1)] as number];
  return a + (b - a) * (at - low);
};

const logSum = (values: readonly number[]): number => {
  const most = Math.max(...values);
  return Number.isFinite(most)
    ? most + Math.log(values.reduce((sum, one) => sum + Math.exp(one - most), 0))
    : most;
};

const survival = (chi2: number, freedom: number): number =>
  freedom === 0 ? 1 : 1 - jstat.chisquare.cdf(chi2, freedom);

/** What is wrong with one line-up at its conditions; solves every fault once and weighs readings as they come. */
export class Diagnoser {
  private readonly solver: LineUpSolver;
  readonly faults: readonly CareFault[];
  private readonly healthy: Record<ReadState, Float64Array | null>;
  /** Ports of the way by their distance along it, m. */
  readonly portM: ReadonlyMap<string, number>;
  /** Where the consumer stands along it, m. */
  readonly consumerM: number;
  /** How all readings move when the plan is off by one of its shared errors. */
  private readonly moves: Record<keyof typeof shared, Record<ReadState, Float64Array | null>>;
  private readonly predicted: Predicted[];

  /** @param turned what the shop found before, by kind: its own counts turn common practice */
  constructor(
    readonly network: Network,
    readonly lineUp: LineUp,
    readonly conditions: Conditions,
    turned: Readonly<Partial<Record<CareFault["kind"], number>>> = {},
  ) {
    this.solver = new LineUpSolver(network);
    const others = network.plan.lineUps.filter(
      ({ id, purpose }) => id !== lineUp.id && purpose === lineUp.purpose,
    );
    const full = this.solver.solve(lineUp, this.conditionsAt("full"));
    const way = full.outcome === "solved" ? fuelWay(full) : null;
    const faults = full.outcome === "solved" && way ? faultsOf(full, way, others) : [];
    this.consumerM = way?.consumerAtM ?? 0;
    this.portM = full.outcome === "solved" && way ? portPlaces(full, way) : new Map();
    this.faults = turnedPriors(faults, turned);
    this.healthy = this.states(() => undefined);
    this.moves = {
      hoses: this.states(scaleOf(network, "run", 1 + shared.hoses)),
      elements: this.states(scaleOf(network, "filter", 1 + shared.elements)),
      feed: this.states(({ demand }) => {
        for (let i = 0; i < demand.length; i++) demand[i] = (demand[i] as number) * (1 + shared.feed);
      }),
      pumps: this.states(({ laws }) => {
        const curves = laws.curves.map((one) => ({
          ...one,
          drop: one.drop.map((pa) => pa * (1 + shared.pumps)),
        }));
        Object.assign(laws, { curves });
      }),
    };
    this.predicted = this.faults.map((fault) => {
      const solved = fault.sizes.map((size) => this.states((settings) => fault.apply(settings, size), fault));
      const byState = Object.fromEntries(
        readStates.map((state) => [state, solved.map((one) => one[state])]),
      ) as Predicted["byState"];
      return { fault, byState };
    });
  }

  /** Can it be told at all: is the line-up fed when nothing is wrong? */
  get isReady(): boolean {
    return this.faults.length > 0;
  }

  conditionsAt(state: ReadState): Conditions {
    const load = Object.fromEntries(
      this.network.job.consumers.map(({ id }) => [id, state === "idle" ? 0 : 1]),
    );
    return { ...this.conditions, load };
  }

  lineUpAt(state: ReadState, lineUp: LineUp): LineUp {
    if (state !== "stopped") return lineUp;
    const still = <T>(record: Record<Id, unknown>, value: T) =>
      Object.fromEntries(Object.keys(record).map((id) => [id, value]));
    return {
      ...lineUp,
      consumers: still(lineUp.consumers, "stopped" as const),
      pumps: still(lineUp.pumps, "off" as const),
    };
  }

  private states(
    change: (settings: Settings) => void,
    fault?: CareFault,
  ): Record<ReadState, Float64Array | null> {
    const one = (state: ReadState): Float64Array | null => {
      const apply = fault && this.isGone(fault, state) ? () => undefined : change;
      const result: LineUpResult = this.solver.solveWith(
        this.lineUpAt(state, fault?.lineUp ?? this.lineUp),
        this.conditionsAt(state),
        apply,
      );
      return result.outcome === "solved" ? result.gaugePa : null;
    };
    const full = one("full");
    return {
      full,
      idle: one("idle"),
      stopped: one("stopped"),
      capOff: fault?.kind === "ventBlocked" ? one("capOff") : full,
    };
  }

  /** With the cap off nothing is drawn against the vent; what stands still draws no air and passes no restriction. */
  isGone({ kind }: CareFault, state: ReadState): boolean {
    return (state === "capOff" && kind === "ventBlocked") || (state === "stopped" && kind !== "ventBlocked");
  }

  private gaugeOf(pa: Float64Array | null, port: string): number {
    const node = this.network.nodeOf.get(port);
    return pa === null || node === undefined ? Number.NaN : (pa[node] as number);
  }

  /** Whether a port lies behind where a fault lets air in; null where either has no place on the way. */
  isAfter({ airInAt }: CareFault, port: string | undefined): boolean | null {
    const [from, at] = [this.portM.get(airInAt ?? ""), this.portM.get(port ?? "")];
    return from === undefined || at === undefined ? null : at >= from - 1e-9;
  }

  /** What a port reads with nothing wrong, Pa; NaN where nothing tells. */
  healthyPa(port: string, state: ReadState): number {
    return this.gaugeOf(this.healthy[state], port);
  }

  /** What it reads with a fault of a weighed size. */
  private faultPa({ byState }: Predicted, port: string, state: ReadState, k: number): number {
    const sizes = byState[state].map((pa) => this.gaugeOf(pa, port));
    return between(sizes, k / (WEIGHED_SIZES - 1));
  }

  private covariance(
    gauges: readonly Extract<CareReading, { kind: "gauge" }>[],
    wide: number | null,
  ): number[][] {
    const base = gauges.map(({ port, state }) => this.healthyPa(port, state));
    const shifts = Object.values(this.moves).map((by) =>
      gauges.map(({ port, state }, i) => {
        const moved = this.gaugeOf(by[state], port) - (base[i] as number);
        return Number.isFinite(moved) ? moved : 0;
      }),
    );
    return gauges.map((a, i) =>
      gauges.map((b, j) => {
        const common = shifts.reduce((sum, shift) => sum + (shift[i] as number) * (shift[j] as number), 0);
        const zero = a.port === b.port ? ZERO_PA ** 2 : 0;
        const own = REPEAT_PA ** 2 + READ_PA ** 2 + (OWN_SHARE * a.gaugePa) ** 2;
        return common + zero + (i === j ? own * (wide === i ? WIDE_TIMES ** 2 : 1) : 0);
      }),
    );
  }

  diagnose(readings: readonly CareReading[]): Diagnosis {
    const { ranked, healthyP, weights, gauges, lower } = this.weigh(readings);
    const best = this.bestOf(weights);
    const offOf = (index: number, k: number) =>
      gauges.map(({ port, state, gaugePa }) =>
        finite(gaugePa - this.faultPa(this.predicted[index] as Predicted, port, state, k)),
      );
    const pulls = best ? whitened(lower, offOf(best.index, best.k)) : [];
    const bestP = survival(squares(pulls), gauges.length);
    const [first] = ranked;
    const isAdverse = readings.some(
      (one) =>
        (one.kind === "symptom" && one.has) || (one.kind === "look" && isAdverseLook(one.look, one.seen)),
    );
    const looked = readings.filter(({ kind }) => kind === "look").length;
    const isEnough = gauges.length > 0 || looked >= LOOKS_ENOUGH;
    const bad = bestP < MISFITS && healthyP < MISFITS && gauges.length > 2 ? this.badOf(readings) : null;
    const outcome: CareOutcome =
      bad !== null
        ? "badReading"
        : isEnough && healthyP > FITS && !isAdverse
          ? "nothingShows"
          : first && first.share >= SURE
            ? "found"
            : "open";
    return { outcome, ranked, fit: { healthyP, bestP }, badIndex: bad };
  }

  /** The reading without which the rest fits something: null where none alone spoils it. */
  private badOf(readings: readonly CareReading[]): number | null {
    const tried = readings.flatMap((one, index) => {
      if (one.kind !== "gauge") return [];
      const rest = readings.filter((_, i) => i !== index);
      const { weights, gauges, lower, healthyP } = this.weigh(rest);
      const best = this.bestOf(weights);
      const off = gauges.map(({ port, state, gaugePa }) =>
        best
          ? finite(gaugePa - this.faultPa(this.predicted[best.index] as Predicted, port, state, best.k))
          : 0,
      );
      return [{ index, p: Math.max(healthyP, survival(squares(whitened(lower, off)), gauges.length)) }];
    });
    const [best] = tried.sort((a, b) => b.p - a.p);
    return best && best.p > FITS ? best.index : null;
  }

  private bestOf(weights: readonly number[][]): { index: number; k: number } | null {
    let best: { index: number; k: number } | null = null;
    let most = -Infinity;
    weights.forEach((sizes, index) =>
      sizes.forEach((weight, k) => {
        if (weight > most) [most, best] = [weight, { index, k }];
      }),
    );
    return best;
  }

  /** Log weights of every fault at every size, and what they make of the groups. */
  private weigh(readings: readonly CareReading[]) {
    const gauges = readings.filter(
      (one): one is Extract<CareReading, { kind: "gauge" }> =>
        one.kind === "gauge" && Number.isFinite(this.healthyPa(one.port, one.state)),
    );
    const lower = cholesky(this.covariance(gauges, null));
    const wides = gauges.map((_, i) => cholesky(this.covariance(gauges, i)));
    const n = gauges.length;
    const logOf = (off: readonly number[]): number =>
      n === 0
        ? 0
        : logSum([
            n * Math.log(1 - WIDE_SHARE) + logDensity(lower, off),
            ...wides.map(
              (wide) => Math.log(WIDE_SHARE) + (n - 1) * Math.log(1 - WIDE_SHARE) + logDensity(wide, off),
            ),
          ]);
    const healthyOff = gauges.map(({ port, state, gaugePa }) => gaugePa - this.healthyPa(port, state));
    const healthyP = survival(squares(whitened(lower, healthyOff)), n);
    const told = (fault: CareFault) =>
      readings.reduce((sum, one) => {
        if (one.kind === "look") {
          const p = lookChance(fault, one.look, this.isAfter(fault, one.port));
          return sum + Math.log(one.seen ? p : 1 - p);
        }
        if (one.kind === "symptom") {
          const p = symptomChance(fault.kind, one.symptom);
          return sum + Math.log(one.has ? p : 1 - p);
        }
        return sum;
      }, 0);
    const weights = this.predicted.map((one) => {
      const base = Math.log(one.fault.prior / WEIGHED_SIZES) + told(one.fault);
      return Array.from({ length: WEIGHED_SIZES }, (_, k) => {
        const off = gauges.map(({ port, state, gaugePa }) =>
          finite(gaugePa - this.faultPa(one, port, state, k)),
        );
        return base + logOf(off);
      });
    });
    return { weights, gauges, lower, healthyP, ranked: this.rank(weights, gauges) };
  }

  private rank(
    weights: readonly number[][],
    gauges: readonly Extract<CareReading, { kind: "gauge" }>[],
  ): CareGroup[] {
    const all = logSum(weights.flat());
    const groups = new Map<string, { index: number; share: number }[]>();
    weights.forEach((sizes, index) => {
      const { fault } = this.predicted[index] as Predicted;
      const share = Math.exp(logSum(sizes) - all);
      groups.set(fault.group, [...(groups.get(fault.group) ?? []), { index, share }]);
    });
    return [...groups]
      .map(([group, members]): CareGroup => {
        members.sort((a, b) => b.share - a.share);
        const [{ index } = { index: 0 }] = members;
        const one = this.predicted[index] as Predicted;
        const sizes = weights[index] as number[];
        const k = sizes.indexOf(Math.max(...sizes));
        return {
          group,
          share: members.reduce((sum, { share }) => sum + share, 0),
          ids: inOrder(members.map(({ index: i }) => (this.predicted[i] as Predicted).fault)),
          faultIds: members.map(({ index: i }) => (this.predicted[i] as Predicted).fault.id),
          kind: one.fault.kind,
          size: between(one.fault.sizes, k / (WEIGHED_SIZES - 1)),
          wouldReadPa: gauges.map(({ port, state }) => this.faultPa(one, port, state, k)),
        };
      })
      .sort((a, b) => b.share - a.share);
  }

  /** What a fault of a size makes of the line-up, solved: its line over the Keel. */
  solvedWith(faultId: string, size: number): LineUpResult | null {
    const fault = this.faults.find(({ id }) => id === faultId);
    return fault
      ? this.solver.solveWith(fault.lineUp ?? this.lineUp, this.conditionsAt("full"), (settings) =>
          fault.apply(settings, size),
        )
      : null;
  }

  /** The line-up with nothing wrong, solved. */
  solvedHealthy(): LineUpResult {
    return this.solver.solve(this.lineUp, this.conditionsAt("full"));
  }

  /** Visits by what they are likely to tell for their minutes, best first. */
  next(readings: readonly CareReading[], visits: readonly Omit<Visit, "bits" | "ifThen">[]): Visit[] {
    const { weights } = this.weigh(readings);
    const all = logSum(weights.flat());
    const shares = weights.map((sizes) => sizes.map((one) => Math.exp(one - all)));
    const groupOf = this.predicted.map(({ fault }) => fault.group);
    const entropy = (weight: readonly number[]): number => {
      const sum = weight.reduce((total, one) => total + one, 0);
      const byGroup = new Map<string, number>();
      weight.forEach((one, i) =>
        byGroup.set(groupOf[i] as string, (byGroup.get(groupOf[i] as string) ?? 0) + one / sum),
      );
      return [...byGroup.values()].reduce((bits, p) => (p > 0 ? bits - p * Math.log2(p) : bits), 0);
    };
    const total = shares.map((sizes) => sizes.reduce((sum, one) => sum + one, 0));
    const before = entropy(total);
    const truths = total
      .map((share, index) => ({ share, index }))
      .filter(({ share }) => share > LEAST_SHARE)
      .sort((a, b) => b.share - a.share)
      .slice(0, MOST_TRUTHS);
    const known = truths.reduce((sum, { share }) => sum + share, 0);
    return visits
      .map((visit): Visit => {
        const told = truths.map(({ share, index }) => {
          const after = this.afterVisit(visit, index, shares);
          return { share: share / known, index, bits: entropy(after.weights), reads: after.reads };
        });
        const left = told.reduce((sum, { share, bits }) => sum + share * bits, 0);
        return {
          ...visit,
          bits: Math.max(0, before - left),
          ifThen: told.slice(0, 3).map(({ reads, index }) => ({ reads, group: groupOf[index] as string })),
        };
      })
      .sort((a, b) => worth(b) - worth(a));
  }

  /** Weights by fault once a visit read what one of them, of its likeliest size, makes of it. */
  private afterVisit(visit: Omit<Visit, "bits" | "ifThen">, truth: number, shares: readonly number[][]) {
    const one = this.predicted[truth] as Predicted;
    const sizes = shares[truth] as number[];
    const k = sizes.indexOf(Math.max(...sizes));
    if (visit.kind === "look" && visit.look) {
      const { look, port } = visit;
      const seen = lookChance(one.fault, look, this.isAfter(one.fault, port)) > 0.5;
      const weights = shares.map((weight, i) => {
        const { fault } = this.predicted[i] as Predicted;
        const p = lookChance(fault, look, this.isAfter(fault, port));
        return weight.reduce((sum, w) => sum + w, 0) * (seen ? p : 1 - p);
      });
      return { weights, reads: seen ? "yes" : "no" };
    }
    const places = this.placesOf(visit);
    const reads = places.map(({ port, state }) => this.faultPa(one, port, state, k));
    const weights = shares.map((weight, i) =>
      weight.reduce((sum, w, size) => {
        const log = places.reduce((total, { port, state }, at) => {
          const off = (reads[at] as number) - this.faultPa(this.predicted[i] as Predicted, port, state, size);
          const spread = Math.hypot(ZERO_PA, REPEAT_PA, READ_PA, PLAN_SHARE * (reads[at] as number));
          return Number.isFinite(off) ? total - 0.5 * (off / spread) ** 2 : total - UNREAD_LOG;
        }, 0);
        return sum + w * Math.exp(log);
      }, 0),
    );
    return { weights, reads: reads.map((pa) => String(Math.round(pa))).join(" ") };
  }

  /** What is read on a visit: every gauge of the plan in a state, or one port at full load. */
  placesOf({
    kind,
    state = "full",
    port,
  }: Pick<Visit, "kind" | "state" | "port">): { port: string; state: ReadState }[] {
    if (kind === "gauge" && port) return [{ port, state }];
    return this.network.plan.parts
      .filter((part) => part.kind === "gauge")
      .map(({ id }) => ({ port: `${id}.a`, state }))
      .filter(({ port: at }) => Number.isFinite(this.healthyPa(at, state)));
  }
}

/** What a group holds, along the way of the fuel. */
const inOrder = (faults: readonly CareFault[]): Id[] => [
  ...new Set([...faults].sort((a, b) => a.atM - b.atM).map(({ at }) => at)),
];

/** What a proposal is weighed by: faults that are likelier than this, and so many of them, for its speed. */
const LEAST_SHARE = 0.005;
const MOST_TRUTHS = 16;
/** What the plan is off by where a reading is only foreseen: its shared errors in one. Common practice, no source. */
const PLAN_SHARE = 0.15;
/** Log weight of a fault that lets nothing flow where another one reads. */
const UNREAD_LOG = 4;

/** Bits a square root of minutes and four: what is quick may tell less. */
const worth = ({ bits, minutes }: Visit): number => bits / Math.sqrt(minutes + 4);

/** No flow at all where something is read: as far off as a reading can be. */
const NO_FLOW_OFF_PA = 60_000;
const finite = (off: number): number => (Number.isFinite(off) ? off : NO_FLOW_OFF_PA);

const isAdverseLook = (look: Look, seen: boolean): boolean => (look === "handlesRight" ? !seen : seen);

/** What the shop found turns common practice: as if each kind had been found as often as ten finds would say. */
const PRIOR_FINDS = 10;
function turnedPriors(
  faults: readonly CareFault[],
  turned: Readonly<Partial<Record<CareFault["kind"], number>>>,
): CareFault[] {
  const ofKind = new Map<string, number>();
  for (const { kind, prior } of faults) ofKind.set(kind, (ofKind.get(kind) ?? 0) + prior);
  const finds = Object.values(turned).reduce((sum, one) => sum + (one ?? 0), 0);
  return faults.map((fault) => {
    const mine = ofKind.get(fault.kind) ?? 1;
    const share = (mine * PRIOR_FINDS + (turned[fault.kind] ?? 0)) / (PRIOR_FINDS + finds);
    return { ...fault, prior: (fault.prior / mine) * share };
  });
}

/** Links of a kind that take more than the plan says. */
const scaleOf =
  (network: Network, kind: "run" | "filter", times: number) =>
  ({ laws }: Settings): void => {
    network.links.forEach((link, i) => {
      if (link.kind !== kind) return;
      for (const law of [laws.linear, laws.square, laws.friction]) law[i] = (law[i] as number) * times;
    });
  };
