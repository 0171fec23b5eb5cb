/**
 * A stand-in for the system itself: what its gauges would read with a fault, by a truth that is worse than the plan (each
 * hose, element, pump and feed off by its own share), with the zero of each gauge, noise, and now and then a slip.
 */
import { type LineUpResult, LineUpSolver } from "../hydraulics/solve";
import type { Settings } from "../network/settings";
import { seeded } from "../random/seeded";
import { capacityM3 } from "../tanks/tank";
import { ZERO_CELSIUS_K } from "../units/factors";
import type { CareReading, Diagnoser, ReadState } from "./diagnose";
import type { CareFault } from "./faults";
import { computedAt, type Instrument, instrumentsOf } from "./instruments";
import { type Look, lookChance, type Symptom, symptomChance, symptoms } from "./looks";
import type { PlainVisit } from "./visits";

/** What the truth is off by, worse than the method takes for granted. */
const TRUTH = {
  hose: 0.15,
  filter: 0.18,
  pump: 0.1,
  feed: 0.07,
  zeroPa: 640,
  repeatPa: 300,
  slips: 0.04,
} as const;
const SLIP_TIMES = 5;
/** A dial is read to this, Pa. */
const READ_TO_PA = 500;

export class SimulatedSystem {
  private readonly random: () => number;
  private readonly solver: LineUpSolver;
  private readonly scales: { links: number[]; feed: number; pumps: number };
  private readonly zeros = new Map<string, number>();

  /** @param fault what is wrong, and how much; null where nothing is */
  constructor(
    readonly of: Diagnoser,
    readonly fault: { fault: CareFault; size: number } | null,
    seed: number,
  ) {
    this.random = seeded(seed);
    this.solver = new LineUpSolver(of.network);
    const off = (share: number) => Math.exp(share * this.normal());
    this.scales = {
      links: of.network.links.map(({ kind }) => off(kind === "filter" ? TRUTH.filter : TRUTH.hose)),
      feed: off(TRUTH.feed),
      pumps: off(TRUTH.pump),
    };
  }

  /** Box and Muller. */
  private normal(): number {
    return Math.sqrt(-2 * Math.log(1 - this.random())) * Math.cos(2 * Math.PI * this.random());
  }

  private worse({ laws, demand }: Settings): void {
    this.scales.links.forEach((scale, i) => {
      for (const law of [laws.linear, laws.square, laws.friction]) law[i] = (law[i] as number) * scale;
    });
    for (let i = 0; i < demand.length; i++) demand[i] = (demand[i] as number) * this.scales.feed;
    const curves = laws.curves.map((one) => ({ ...one, drop: one.drop.map((pa) => pa * this.scales.pumps) }));
    Object.assign(laws, { curves });
  }

  private truth(state: ReadState): LineUpResult {
    const gone = this.fault && this.of.isGone(this.fault.fault, state);
    return this.solver.solveWith(
      this.of.lineUpAt(state, this.fault?.fault.lineUp ?? this.of.lineUp),
      this.of.conditionsAt(state),
      (settings) => {
        this.worse(settings);
        if (this.fault && !gone) this.fault.fault.apply(settings, this.fault.size);
      },
    );
  }

  /** What stands at a port in truth, Pa over the air; NaN where nothing flows or is known. */
  truePa(port: string, state: ReadState): number {
    const result = this.truth(state);
    const node = this.of.network.nodeOf.get(port);
    return result.outcome === "solved" && node !== undefined ? (result.gaugePa[node] as number) : Number.NaN;
  }

  /** What passes a meter, or how warm it is at a thermometer; null where nothing flows. */
  trueAt(instrument: Instrument, state: ReadState): number | null {
    return computedAt(this.of.network, this.truth(state), instrument, this.of.conditions);
  }

  /** What a gauge is off by, always. */
  zeroOf(port: string): number {
    const zero = this.zeros.get(port) ?? TRUTH.zeroPa * this.normal();
    this.zeros.set(port, zero);
    return zero;
  }

  noise(pa: number): number {
    return pa * this.normal();
  }

  /** What the dial shows. */
  private read(port: string, state: ReadState): number {
    const zero = this.zeroOf(port);
    const times = this.random() < TRUTH.slips ? SLIP_TIMES : 1;
    const pa = this.truePa(port, state) + zero + times * TRUTH.repeatPa * this.normal();
    return Math.round(pa / READ_TO_PA) * READ_TO_PA;
  }

  private look(look: Look, port: string | undefined): boolean {
    const { fault } = this;
    const chance = fault
      ? lookChance(fault.fault, look, this.of.isAfter(fault.fault, port))
      : look === "handlesRight"
        ? 0.97
        : 0.03;
    return this.random() < chance;
  }

  /** What a visit finds. */
  visit(visit: PlainVisit): CareReading[] {
    if (visit.kind === "look" && visit.look)
      return [
        {
          kind: "look",
          look: visit.look,
          seen: this.look(visit.look, visit.port),
          ...(visit.port !== undefined && { port: visit.port }),
        },
      ];
    return this.of
      .placesOf(visit)
      .map(
        ({ port, state }): CareReading => ({ kind: "gauge", port, state, gaugePa: this.read(port, state) }),
      )
      .filter((one) => one.kind !== "gauge" || Number.isFinite(one.gaugePa));
  }

  /** What its owner tells: half of the symptoms are asked for, and some are told wrongly. */
  told(): CareReading[] {
    const { fault } = this;
    return symptoms.flatMap((symptom: Symptom): CareReading[] => {
      if (this.random() < 0.5) return [];
      const chance = fault ? symptomChance(fault.fault.kind, symptom) : 0.02;
      return [{ kind: "symptom", symptom, has: this.random() < chance }];
    });
  }
}

/** A fault drawn by the priors, its size anywhere between its least and its most; null one time in four: all is well. */
export function drawnFault(of: Diagnoser, seed: number): { fault: CareFault; size: number } | null {
  const random = seeded(seed);
  if (random() < 0.25) return null;
  let left = random();
  const fault = of.faults.find(({ prior }) => (left -= prior) <= 0) ?? of.faults.at(-1);
  if (!fault) return null;
  const [least, most] = [fault.sizes[0] as number, fault.sizes.at(-1) as number];
  return { fault, size: least * (most / least) ** random() };
}

export interface Trial {
  truth: string | null;
  /** Groups after so many visits, best first, and what was said then. */
  after: { groups: string[]; share: number; outcome: string; minutes: number }[];
}

/** One case by the method's own proposals: what is told, gauges at full load, then the visit that tells most for its minutes. */
export function trial(
  of: Diagnoser,
  visits: readonly PlainVisit[],
  truth: { fault: CareFault; size: number } | null,
  seed: number,
  count: number,
  system = new SimulatedSystem(of, truth, seed),
): Trial {
  const readings: CareReading[] = system.told();
  const left = [...visits];
  let minutes = 0;
  const after: Trial["after"] = [];
  for (let i = 0; i < count; i++) {
    const [first] = i === 0 ? left : of.next(readings, left);
    if (!first) break;
    left.splice(
      left.findIndex(({ id }) => id === first.id),
      1,
    );
    readings.push(...system.visit(first));
    minutes += first.minutes;
    const { ranked, outcome } = of.diagnose(readings);
    after.push({ groups: ranked.map(({ group }) => group), share: ranked[0]?.share ?? 0, outcome, minutes });
  }
  return { truth: truth?.fault.group ?? null, after };
}

/** Deltas of the Signal K format: SI values by path, pressures over the air. */
export interface Delta {
  context: "vessels.self";
  updates: {
    source: { label: "simulated"; type: "keel" };
    timestamp: string;
    values: { path: string; value: number }[];
  }[];
}

/** Between two deltas, s; a gauge follows in this time; and wanders by so much a step, Pa. Invented, for the stand-in alone. */
const EVERY_S = 5;
const LAG_S = 3;
const DRIFT_PA = 8;
/** Noise of a meter, as a share, and of a thermometer, K. Invented, for the stand-in alone. */
const METER_SHARE = 0.01;
const WARMTH_K = 0.4;
const START = Date.UTC(2026, 0, 1);

/** What the gauges and senders say from the engine's start on: from rest to full load, with lag, drift and noise. */
export function deltasOf(system: SimulatedSystem, minutes: number): Delta[] {
  const { network, conditions } = system.of;
  const gauges = system.of.placesOf({ kind: "state", state: "full" }).map(({ port }) => ({
    path: `fuelSystem.${port.split(".")[0]}.pressure`,
    rest: system.truePa(port, "stopped"),
    full: system.truePa(port, "full"),
    drift: system.zeroOf(port),
  }));
  const tanks = network.job.tanks.map((tank) => ({
    path: `tanks.fuel.${tank.id}.currentLevel`,
    value: Math.min(1, (conditions.aboardM3[tank.id] ?? 0) / capacityM3(tank)),
  }));
  const others = instrumentsOf(network.job, network.plan).flatMap((one) => {
    const full = system.trueAt(one, "full");
    if (full === null || (one.quantity !== "flow" && one.quantity !== "temperature")) return [];
    const isFlow = one.quantity === "flow";
    return [
      {
        path: `fuelSystem.${one.id}.${one.quantity}`,
        from: isFlow ? 0 : conditions.fuelC + ZERO_CELSIUS_K,
        full: isFlow ? full : full + ZERO_CELSIUS_K,
        noise: isFlow ? METER_SHARE * full : WARMTH_K,
      },
    ];
  });
  return Array.from({ length: Math.max(1, Math.round((minutes * 60) / EVERY_S)) }, (_, i): Delta => {
    const atS = i * EVERY_S;
    const risen = 1 - Math.exp(-atS / LAG_S);
    const values = gauges.flatMap((gauge) => {
      gauge.drift += system.noise(DRIFT_PA);
      const from = Number.isFinite(gauge.rest) ? gauge.rest : gauge.full;
      const value = from + (gauge.full - from) * risen + gauge.drift + system.noise(TRUTH.repeatPa);
      return Number.isFinite(value) ? [{ path: gauge.path, value: Math.round(value) }] : [];
    });
    const passing = others.map(({ path, from, full, noise }) => ({
      path,
      value: Math.max(0, from + (full - from) * risen + system.noise(noise)),
    }));
    return {
      context: "vessels.self",
      updates: [
        {
          source: { label: "simulated", type: "keel" },
          timestamp: new Date(START + atS * 1000).toISOString(),
          values: [...values, ...passing, ...tanks],
        },
      ],
    };
  });
}
