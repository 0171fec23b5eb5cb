/**
 * A plan run over hours: levels, temperatures and filter loading carried from one solve to the next, quasi-steadily,
 * through a duty of steps. Bogacki and Shampine's pair of order 3(2) (Appl. Math. Lett. 2, 1989) chooses its own
 * steps; where what flows changes at once (a mouth comes clear, an engine starves, a tank runs over) the step is
 * halved until the moment is known to half a second.
 */

import { portFlowM3S } from "../hydraulics/pot";
import { LineUpSolver, type SolvedLineUp } from "../hydraulics/solve";
import { judgeLineUp } from "../hydraulics/worst";
import { elementsOf, type Filtering } from "../kinds/families";
import type { Id } from "../kinds/record";
import type { SwirlPot } from "../kinds/swirlPot";
import { FILTER_LIFE_H } from "../laws/elementLife";
import type { Network } from "../network/network";
import { postureOf } from "../network/posture";
import { returnCooler } from "../network/returnCooler";
import type { Conditions, DutyStep, LineUp, Tank } from "../plan/types";
import { FUEL_TOO_HOT_C, STILL_AIR_W_M2K, specificHeatJKgK } from "../tanks/heat";
import { capacityM3, levelOfVolumeM, standingLevel } from "../tanks/tank";
import { HOUR_S } from "../units/factors";
import { mixTemperatures } from "./mixing";

/** What happened, apart from when. */
export type Happening =
  | { kind: "step" }
  | { kind: "uncovered"; tankId: Id; portId: Id; leftM3: number }
  | { kind: "starved" | "air" | "noPath"; consumerId: Id }
  | { kind: "overfilled"; tankId: Id }
  | { kind: "limit"; atId: Id; vacuumPa: number; limitPa: number }
  | { kind: "hot"; tankId: Id; tempC: number }
  | { kind: "filterDue"; partId: Id }
  /** A swirl pot draws back over its overflow: what fills it does not keep up. */
  | { kind: "potDrains"; partId: Id }
  /** Its own mouth has come clear: air is drawn with the fuel from here on. */
  | { kind: "potEmpty"; partId: Id }
  /** No solution: fuel outside what is known of it, or a line-up that is gone. */
  | { kind: "failed"; why: string };
/** What ends a run until a consumer is no longer fed. */
const endings = new Set<Happening["kind"]>(["starved", "air", "noPath", "failed"]);
export type RunEvent = { atS: number; stepId: Id; lineUpId: Id } & Happening;

/** The state at a moment, with what a chart shows of it. */
export interface RunPoint {
  atS: number;
  stepId: Id;
  lineUpId: Id;
  aboardM3: Record<Id, number>;
  tempC: Record<Id, number>;
  loading: Record<Id, number>;
  spilledM3: Record<Id, number>;
  /** What each swirl pot holds. */
  potM3: Record<Id, number>;
  fuelC: number;
  vacuumPa: number | null;
  limitPa: number | null;
}

export interface RunResult {
  points: RunPoint[];
  events: RunEvent[];
  /** Seconds asked for. */
  ofS: number;
  burnedM3: number;
}

export interface RunOptions {
  ambientC: number;
  onProgress?: (doneS: number, ofS: number) => void;
}

const MOST_STEP_S = 600;
const LEAST_STEP_S = 0.5;
/** Error of a step held under this share of a tank, K and loading. */
const VOLUME_SHARE = 2e-6;
const TEMP_K = 2e-3;
const LOADING_TOLERANCE = 1e-3;
/** A tank with less than this holds nothing worth a temperature. */
const LEAST_M3 = 1e-4;

/** Wetted wall by volume, standing level, as a table: it changes slowly and is asked for often. */
class WetWall {
  private readonly areas: Float64Array;
  constructor(
    tank: Tank,
    private readonly capacity: number,
  ) {
    const tilted = standingLevel(tank);
    this.areas = Float64Array.from(
      { length: 33 },
      (_, i) => tilted.below(levelOfVolumeM(tank, (capacity * i) / 32)).wettedM2,
    );
  }
  at(m3: number): number {
    const place = Math.min(32, Math.max(0, (m3 / this.capacity) * 32));
    const i = Math.min(31, Math.floor(place));
    const a = this.areas[i] as number;
    return a + (place - i) * ((this.areas[i + 1] as number) - a);
  }
}

interface Rates {
  dy: Float64Array;
  /** What flows at once changes with: outcomes of consumers, ports that stand clear, tanks that run over. */
  signature: string;
  solved: SolvedLineUp | null;
  why: string;
}

class Runner {
  readonly tanks: readonly Tank[];
  readonly elements: readonly { id: Id; part: Filtering }[];
  readonly capacity: Float64Array;
  private readonly solver: LineUpSolver;
  private readonly wet: readonly WetWall[];
  /** Coolers that only Survey knows of, by tank. */
  private readonly coolers: readonly Tank["cooler"][];
  private readonly temps: Float64Array;
  private readonly elementLink: readonly number[];
  /** Share of the flow that each tank gives: what the fuel's temperature on the way is taken from. */
  private weights: Float64Array;
  readonly size: number;

  constructor(
    readonly network: Network,
    readonly ambientC: number,
  ) {
    this.tanks = network.job.tanks;
    this.elements = elementsOf(network.plan.parts);
    this.solver = new LineUpSolver(network);
    this.capacity = Float64Array.from(this.tanks, (tank) => capacityM3(tank));
    this.wet = this.tanks.map((tank, i) => new WetWall(tank, this.capacity[i] as number));
    // A cooler of the plan cools what passes it on the way.
    this.coolers = this.tanks.map((tank) => (returnCooler(network, tank) ? undefined : tank.cooler));
    this.temps = new Float64Array(network.topology.nodes);
    this.weights = new Float64Array(this.tanks.length);
    this.elementLink = this.elements.map(({ part }) =>
      network.links.findIndex((link) => link.kind === "filter" && link.part.id === part.id),
    );
    // Volumes, temperatures, spilled, loadings, and what is burned.
    this.size = 3 * this.tanks.length + this.elements.length + 1;
  }

  start({ aboardM3, fuelC, loading }: Conditions): Float64Array {
    const n = this.tanks.length;
    const y = new Float64Array(this.size);
    this.tanks.forEach(({ id }, i) => {
      y[i] = aboardM3[id] ?? 0;
      y[n + i] = fuelC;
    });
    this.elements.forEach(({ id }, j) => {
      y[3 * n + j] = loading[id] ?? 1;
    });
    return y;
  }

  fuelC(y: Float64Array): number {
    const n = this.tanks.length;
    let all = 0;
    let sum = 0;
    for (let i = 0; i < n; i++) {
      all += this.weights[i] as number;
      sum += (this.weights[i] as number) * (y[n + i] as number);
    }
    return all > 0 ? sum / all : (y[n] ?? this.ambientC);
  }

  conditions(y: Float64Array, step: DutyStep): Conditions {
    const n = this.tanks.length;
    const list = (ids: readonly { id: Id }[], from: number) =>
      Object.fromEntries(ids.map(({ id }, i) => [id, y[from + i] as number]));
    return {
      fuelC: this.fuelC(y),
      aboardM3: Object.fromEntries(
        this.tanks.map(({ id }, i) => [
          id,
          Math.min(this.capacity[i] as number, Math.max(0, y[i] as number)),
        ]),
      ),
      loading: list(this.elements, 3 * n),
      load: Object.fromEntries(this.network.job.consumers.map(({ id }) => [id, step.load])),
      trim: { pitchDeg: step.pitchDeg, rollDeg: step.rollDeg },
    };
  }

  /** Before a step: where fuel comes from now, for the temperature on the way. */
  weigh({ solved }: Rates): void {
    this.weights = new Float64Array(this.tanks.length);
    if (!solved) return;
    for (const { index, link } of this.network.sorted.tankPorts) {
      const out = -(solved.flow[index] as number);
      const i = this.tanks.indexOf(link.tank);
      if (out > 0) this.weights[i] = (this.weights[i] as number) + out;
    }
  }

  /** Did fuel come from this tank in the step just taken? */
  draws(tank: number): boolean {
    return (this.weights[tank] as number) > 0;
  }

  rates(y: Float64Array, step: DutyStep, lineUp: LineUp): Rates {
    const conditions = this.conditions(y, step);
    const result = this.solver.solveInPlace(lineUp, conditions);
    const dy = new Float64Array(this.size);
    if (result.outcome !== "solved")
      return { dy, signature: result.outcome, solved: null, why: result.outcome };
    this.tankRates(result, y, dy);
    const n = this.tanks.length;
    this.elements.forEach(({ part }, j) => {
      const q = Math.abs(result.flow[this.elementLink[j] as number] ?? 0);
      const grows = Math.log(part.changeLoading) / (FILTER_LIFE_H * HOUR_S);
      dy[3 * n + j] = (y[3 * n + j] as number) * grows * (q / part.ratedFlowM3S);
    });
    for (const [, outcome] of result.consumers)
      if (outcome.outcome === "fed") dy[this.size - 1] = (dy[this.size - 1] as number) + outcome.burnM3S;
    return { dy, signature: this.signature(result, dy), solved: result, why: "" };
  }

  private tankRates(result: SolvedLineUp, y: Float64Array, dy: Float64Array): void {
    const n = this.tanks.length;
    const { unknowns } = this.network.topology;
    const { fuel } = result.settings;
    for (let i = 0; i < n; i++) this.temps[unknowns + i] = y[n + i] as number;
    mixTemperatures(result, this.temps);
    for (const { index, link } of this.network.sorted.tankPorts) {
      const into = result.flow[index] as number;
      const i = link.to - unknowns;
      dy[i] = (dy[i] as number) + into;
      if (!(into > 0)) continue;
      const cooler = this.coolers[i];
      const came = this.temps[link.from] as number;
      const comesC = cooler ? came - cooler.effectiveness * (came - cooler.coolantC) : came;
      const holds = Math.max(LEAST_M3, y[i] as number);
      dy[n + i] = (dy[n + i] as number) + (into * (comesC - (y[n + i] as number))) / holds;
    }
    for (let i = 0; i < n; i++) {
      const holds = Math.max(LEAST_M3, y[i] as number);
      const tempC = y[n + i] as number;
      const storesJK = holds * fuel.densityKgM3 * specificHeatJKgK(fuel.densityKgM3, tempC);
      const wet = (this.wet[i] as WetWall).at(y[i] as number);
      dy[n + i] = (dy[n + i] as number) - (STILL_AIR_W_M2K * wet * (tempC - this.ambientC)) / storesJK;
      if ((y[i] as number) >= (this.capacity[i] as number) && (dy[i] as number) > 0) {
        dy[2 * n + i] = dy[i] as number;
        dy[i] = 0;
      }
    }
  }

  private signature(result: SolvedLineUp, dy: Float64Array): string {
    const n = this.tanks.length;
    let text = "";
    for (const { index } of this.network.sorted.tankPorts) text += result.settings.laws.way[index];
    for (const [, { outcome }] of result.consumers) text += outcome[0];
    for (let i = 0; i < n; i++) text += (dy[2 * n + i] as number) > 0 ? "o" : "-";
    return text;
  }

  /** Step size by the error of a trial step, over what is allowed. */
  errorOf(e: Float64Array): number {
    const n = this.tanks.length;
    let worst = 0;
    for (let i = 0; i < n; i++) {
      worst = Math.max(
        worst,
        Math.abs(e[i] as number) / (VOLUME_SHARE * (this.capacity[i] as number)),
        Math.abs(e[n + i] as number) / TEMP_K,
      );
    }
    for (let j = 0; j < this.elements.length; j++)
      worst = Math.max(worst, Math.abs(e[3 * n + j] as number) / LOADING_TOLERANCE);
    return worst;
  }

  point(
    y: Float64Array,
    atS: number,
    step: DutyStep,
    lineUp: LineUp,
    potM3: Record<Id, number> = {},
  ): RunPoint {
    const n = this.tanks.length;
    const conditions = this.conditions(y, step);
    const { suction } = judgeLineUp(this.solver, lineUp, conditions);
    return {
      atS,
      stepId: step.id,
      lineUpId: step.lineUpId,
      aboardM3: conditions.aboardM3,
      tempC: Object.fromEntries(this.tanks.map(({ id }, i) => [id, y[n + i] as number])),
      loading: conditions.loading,
      spilledM3: Object.fromEntries(this.tanks.map(({ id }, i) => [id, y[2 * n + i] as number])),
      potM3,
      fuelC: conditions.fuelC,
      vacuumPa: suction?.vacuumPa ?? null,
      limitPa: suction?.limitPa ?? null,
    };
  }

  get pots(): SwirlPot[] {
    return this.network.plan.parts.filter((part) => part.kind === "swirlPot");
  }

  /** Outlets whose mouths stand clear though fuel would come from them. */
  clearMouths(conditions: Conditions): { tankId: Id; portId: Id }[] {
    const posture = postureOf(this.network, conditions.trim);
    return this.network.sorted.tankPorts.flatMap(({ link }, k) =>
      link.port.role === "outlet" &&
      (posture.mouthM[k] as number) >= posture.surfaceM(link.tank, conditions.aboardM3[link.tank.id] ?? 0)
        ? [{ tankId: link.tank.id, portId: link.port.id }]
        : [],
    );
  }
}

const combine = (y: Float64Array, h: number, ...terms: [number, Float64Array][]): Float64Array => {
  const out = y.slice();
  for (const [weight, k] of terms)
    for (let i = 0; i < out.length; i++) out[i] = (out[i] as number) + h * weight * (k[i] as number);
  return out;
};

/** Cubic Hermite between two states, at share s of the step. */
function between(
  y0: Float64Array,
  k0: Float64Array,
  y1: Float64Array,
  k1: Float64Array,
  h: number,
  s: number,
) {
  const out = new Float64Array(y0.length);
  const [a, b, c, d] = [(1 + 2 * s) * (1 - s) ** 2, s * (1 - s) ** 2, s * s * (3 - 2 * s), s * s * (s - 1)];
  for (let i = 0; i < out.length; i++) {
    out[i] =
      a * (y0[i] as number) + b * h * (k0[i] as number) + c * (y1[i] as number) + d * h * (k1[i] as number);
  }
  return out;
}

interface Trial {
  y: Float64Array;
  end: Rates;
  error: number;
  isSame: boolean;
}

function trial(run: Runner, y: Float64Array, k1: Rates, h: number, step: DutyStep, lineUp: LineUp): Trial {
  const k2 = run.rates(combine(y, h, [0.5, k1.dy]), step, lineUp);
  const k3 = run.rates(combine(y, h, [0.75, k2.dy]), step, lineUp);
  const next = combine(y, h, [2 / 9, k1.dy], [1 / 3, k2.dy], [4 / 9, k3.dy]);
  const end = run.rates(next, step, lineUp);
  const low = combine(y, h, [7 / 24, k1.dy], [1 / 4, k2.dy], [1 / 3, k3.dy], [1 / 8, end.dy]);
  const off = next.map((value, i) => value - (low[i] as number));
  const isSame = [k2, k3, end].every(({ signature }) => signature === k1.signature);
  return { y: next, end, error: run.errorOf(off), isSame };
}

type Watch = {
  /** Positive while all is well. */
  of: (y: Float64Array) => number;
  event: (y: Float64Array) => Happening;
};

/** What is passed smoothly, looked for along each step. */
function watches(run: Runner, step: DutyStep, lineUp: LineUp): Watch[] {
  const n = run.tanks.length;
  return [
    ...run.tanks.flatMap(({ id }, i): Watch[] => [
      {
        of: (y) => FUEL_TOO_HOT_C - (y[n + i] as number),
        event: (y) => ({ kind: "hot", tankId: id, tempC: y[n + i] as number }),
      },
      {
        of: (y) => (run.capacity[i] as number) - (y[i] as number),
        event: () => ({ kind: "overfilled", tankId: id }),
      },
    ]),
    ...run.elements.map(
      ({ part }, j): Watch => ({
        of: (y) => part.changeLoading - (y[3 * n + j] as number),
        event: () => ({ kind: "filterDue", partId: part.id }),
      }),
    ),
    limitWatch(run, step, lineUp),
  ];
}

function limitWatch(run: Runner, step: DutyStep, lineUp: LineUp): Watch {
  const suctionAt = (y: Float64Array) => run.point(y, 0, step, lineUp);
  return {
    of: (y) => {
      const { vacuumPa, limitPa } = suctionAt(y);
      return vacuumPa === null || limitPa === null ? 1 : limitPa - vacuumPa;
    },
    event: (y) => {
      const { vacuumPa, limitPa } = suctionAt(y);
      return { kind: "limit", atId: lineUp.id, vacuumPa: vacuumPa ?? 0, limitPa: limitPa ?? 0 };
    },
  };
}

const EVENT_STEPS = 24;

/** A day and more: what a duty asks for in all. */
export const dutySeconds = (duty: readonly DutyStep[]): number =>
  duty.reduce((sum, { hours }) => sum + hours * HOUR_S, 0);

/** The line-up of a step with what has starved in it stopped. */
const without = (lineUp: LineUp, stopped: ReadonlySet<Id>): LineUp =>
  stopped.size === 0
    ? lineUp
    : {
        ...lineUp,
        consumers: Object.fromEntries(
          Object.entries(lineUp.consumers).map(([id, state]) => [id, stopped.has(id) ? "stopped" : state]),
        ),
      };

/**
 * What the swirl pots hold over a run. They begin full; where fuel would come back over the overflow, that way gives air
 * in truth, and the pot falls by as much until its mouth comes clear. Fuel that goes over has filled it.
 */
class Pots {
  private readonly held: Map<Id, number>;

  constructor(private readonly pots: readonly SwirlPot[]) {
    this.held = new Map(pots.map(({ id, volumeM3 }) => [id, volumeM3]));
  }

  /** Seconds to the next pot that runs empty at these flows. */
  lastS(solved: SolvedLineUp): number {
    return this.pots.reduce((least, { id }) => {
      const falls = portFlowM3S(solved, id, "over");
      const holds = this.held.get(id) ?? 0;
      return falls > 0 && holds > 0 ? Math.min(least, holds / falls) : least;
    }, Infinity);
  }

  /** @returns the pots that fall at these flows though they were full, and those that came empty, with when. */
  pass(solved: SolvedLineUp, seconds: number): { falling: Id[]; empty: { id: Id; afterS: number }[] } {
    const falling: Id[] = [];
    const empty: { id: Id; afterS: number }[] = [];
    for (const { id, volumeM3 } of this.pots) {
      const falls = portFlowM3S(solved, id, "over");
      const holds = this.held.get(id) ?? 0;
      const left = Math.min(volumeM3, holds - falls * seconds);
      if (falls > 0 && holds === volumeM3) falling.push(id);
      // What rounding leaves of a step that was cut to end here.
      const isEmpty = left < 1e-9 * volumeM3;
      if (isEmpty && holds > 0) empty.push({ id, afterS: Math.min(seconds, holds / falls) });
      this.held.set(id, isEmpty ? 0 : left);
    }
    return { falling, empty };
  }

  get now(): Record<Id, number> {
    return Object.fromEntries(this.held);
  }
}

class Course {
  readonly points: RunPoint[] = [];
  readonly events: RunEvent[] = [];
  private readonly ofS: number;
  private readonly pots: Pots;
  private atS = 0;
  private y: Float64Array;

  constructor(
    private readonly run: Runner,
    private readonly duty: readonly DutyStep[],
    start: Conditions,
    private readonly onProgress: RunOptions["onProgress"],
    /** Nothing more is wanted of it. */
    private readonly isDone?: (events: readonly RunEvent[]) => boolean,
  ) {
    this.y = run.start(start);
    this.pots = new Pots(run.pots);
    this.ofS = dutySeconds(duty);
  }

  whole(): RunResult {
    for (const step of this.duty) this.step(step);
    return {
      points: this.points,
      events: this.events,
      ofS: this.ofS,
      burnedM3: this.y[this.run.size - 1] as number,
    };
  }

  private note(step: DutyStep, event: Happening, atS = this.atS): void {
    this.events.push({ atS, stepId: step.id, lineUpId: step.lineUpId, ...event });
  }

  private step(step: DutyStep): void {
    const asSet = this.run.network.plan.lineUps.find(({ id }) => id === step.lineUpId);
    const endS = this.atS + step.hours * HOUR_S;
    this.note(step, { kind: "step" });
    if (!asSet) {
      this.note(step, { kind: "failed", why: "missingLineUp" });
      this.atS = endS;
      return;
    }
    const stopped = new Set<Id>();
    let lineUp = asSet;
    let now = this.run.rates(this.y, step, lineUp);
    this.run.weigh(now);
    now = this.run.rates(this.y, step, lineUp);
    let seen = new Set(
      this.run
        .clearMouths(this.run.conditions(this.y, step))
        .map(({ tankId, portId }) => `${tankId}.${portId}`),
    );
    let h = 30;
    let watching = watches(this.run, step, lineUp);
    let good = watching.map(({ of }) => of(this.y) > 0);
    const settle = () => {
      const fresh = this.starved(now, step, stopped);
      if (!fresh) return;
      lineUp = without(asSet, stopped);
      now = this.run.rates(this.y, step, lineUp);
      watching = watches(this.run, step, lineUp);
      good = watching.map(({ of }) => of(this.y) > 0);
    };
    settle();
    this.points.push(this.run.point(this.y, this.atS, step, lineUp, this.pots.now));
    while (this.atS < endS - 1e-9) {
      if (!now.solved) {
        this.note(step, { kind: "failed", why: now.why });
        this.atS = endS;
        break;
      }
      h = Math.min(h, endS - this.atS, Math.max(LEAST_STEP_S, this.pots.lastS(now.solved)));
      const tried = trial(this.run, this.y, now, h, step, lineUp);
      if ((!tried.isSame || tried.error > 1) && h > LEAST_STEP_S) {
        const shrink = tried.isSame ? Math.max(0.2, 0.9 * tried.error ** (-1 / 3)) : 0.5;
        h = Math.max(LEAST_STEP_S, h * shrink);
        continue;
      }
      this.smooth(step, watching, good, now, tried, h);
      const { falling, empty } = this.pots.pass(now.solved, h);
      for (const partId of falling) this.note(step, { kind: "potDrains", partId });
      for (const { id, afterS } of empty)
        this.note(step, { kind: "potEmpty", partId: id }, this.atS + afterS);
      this.y = tried.y;
      this.atS += h;
      now = tried.end;
      seen = this.clear(step, seen);
      settle();
      if (this.isDone?.(this.events)) return;
      this.run.weigh(now);
      this.points.push(this.run.point(this.y, this.atS, step, lineUp, this.pots.now));
      this.onProgress?.(this.atS, this.ofS);
      h = Math.min(MOST_STEP_S, h * Math.min(4, 0.9 * Math.max(1e-3, tried.error) ** (-1 / 3)));
    }
  }

  /** Consumers that starve or lose their way now: told, and stopped for the rest of the step. */
  private starved({ solved }: Rates, step: DutyStep, stopped: Set<Id>): boolean {
    let fresh = false;
    for (const [id, { outcome }] of solved?.consumers ?? []) {
      if (outcome === "fed" || outcome === "stopped") continue;
      this.note(step, { kind: outcome, consumerId: id });
      stopped.add(id);
      fresh = true;
    }
    return fresh;
  }

  private clear(step: DutyStep, seen: ReadonlySet<string>): Set<string> {
    const clear = this.run.clearMouths(this.run.conditions(this.y, step));
    for (const { tankId, portId } of clear) {
      const i = this.run.tanks.findIndex(({ id }) => id === tankId);
      if (seen.has(`${tankId}.${portId}`) || !this.run.draws(i)) continue;
      this.note(step, { kind: "uncovered", tankId, portId, leftM3: this.y[i] as number });
    }
    return new Set(clear.map(({ tankId, portId }) => `${tankId}.${portId}`));
  }

  /** What was passed within the step, by bisection along it. */
  private smooth(
    step: DutyStep,
    watching: readonly Watch[],
    good: boolean[],
    now: Rates,
    tried: Trial,
    h: number,
  ) {
    watching.forEach((watch, k) => {
      const ends = watch.of(tried.y) > 0;
      if (good[k] && !ends) {
        let [low, high] = [0, 1];
        const at = (s: number) => between(this.y, now.dy, tried.y, tried.end.dy, h, s);
        for (let i = 0; i < EVENT_STEPS && (high - low) * h > 0.1; i++) {
          const middle = (low + high) / 2;
          if (watch.of(at(middle)) > 0) low = middle;
          else high = middle;
        }
        this.note(step, watch.event(at(high)), this.atS + high * h);
      }
      good[k] = ends;
    });
  }
}

/** Runs a duty from conditions as they stand. Fuel whose viscosity is not known ends a step as failed. */
export function runOverTime(
  network: Network,
  start: Conditions,
  duty: readonly DutyStep[],
  { ambientC, onProgress }: RunOptions,
): RunResult {
  const { events, ...rest } = new Course(new Runner(network, ambientC), duty, start, onProgress).whole();
  return { ...rest, events: [...events].sort((a, b) => a.atS - b.atS) };
}

/** Conditions at a moment of a run, straight between its points: what the Keel shows as it is scrubbed. */
export function conditionsAt(network: Network, { points }: RunResult, atS: number): Conditions | null {
  const found = points.findIndex((point) => point.atS >= atS);
  const after = found < 0 ? points.length - 1 : found;
  const high = points[after];
  const low = points[Math.max(0, after - 1)];
  const step = network.plan.duty?.find(({ id }) => id === high?.stepId);
  if (!high || !low || !step) return null;
  const s = high.atS > low.atS ? Math.min(1, Math.max(0, (atS - low.atS) / (high.atS - low.atS))) : 1;
  const mix = (a: Record<Id, number>, b: Record<Id, number>) =>
    Object.fromEntries(
      Object.entries(b).map(([id, value]) => [id, (a[id] ?? value) + s * (value - (a[id] ?? value))]),
    );
  return {
    fuelC: low.fuelC + s * (high.fuelC - low.fuelC),
    aboardM3: mix(low.aboardM3, high.aboardM3),
    loading: mix(low.loading, high.loading),
    load: Object.fromEntries(network.job.consumers.map(({ id }) => [id, step.load])),
    trim: { pitchDeg: step.pitchDeg, rollDeg: step.rollDeg },
  };
}

const hasEnded = (events: readonly RunEvent[]) => events.some(({ kind }) => endings.has(kind));

/** Hours a line-up feeds for at conditions held, until something starves; null where it outlasts `mostH`. */
export function enduranceH(
  network: Network,
  lineUp: LineUp,
  conditions: Conditions,
  { ambientC }: RunOptions,
  mostH = 500,
): { hours: number; burnedM3: number } | null {
  const { pitchDeg, rollDeg } = conditions.trim ?? { pitchDeg: 0, rollDeg: 0 };
  const load = Math.max(0, ...network.job.consumers.map(({ id }) => conditions.load[id] ?? 1));
  const step: DutyStep = { id: "endurance", hours: mostH, lineUpId: lineUp.id, load, pitchDeg, rollDeg };
  const course = new Course(new Runner(network, ambientC), [step], conditions, undefined, hasEnded).whole();
  const end = course.events.find(({ kind }) => endings.has(kind));
  return end ? { hours: end.atS / HOUR_S, burnedM3: course.burnedM3 } : null;
}

/**
 * Hours a line-up feeds for from here at the work that is planned: at the load and the slope of its own first step, of the
 * duty's first where it has none.
 */
export function enduranceInDuty(
  network: Network,
  lineUp: LineUp,
  start: Conditions,
  duty: readonly DutyStep[],
  options: RunOptions,
  mostH?: number,
): { load: number; found: { hours: number; burnedM3: number } | null } {
  const step = duty.find(({ lineUpId }) => lineUpId === lineUp.id) ?? duty[0];
  const held: Conditions = step
    ? {
        ...start,
        load: Object.fromEntries(network.job.consumers.map(({ id }) => [id, step.load])),
        trim: { pitchDeg: step.pitchDeg, rollDeg: step.rollDeg },
      }
    : start;
  const load = step?.load ?? Math.max(0, ...Object.values(start.load));
  return { load, found: enduranceH(network, lineUp, held, options, mostH) };
}

/** What happens in a line-up held for hours, from conditions as they are, until no more is wanted. */
export function heldRun(
  network: Network,
  lineUp: LineUp,
  conditions: Conditions,
  { ambientC }: RunOptions,
  hours: number,
  isDone: (events: readonly RunEvent[]) => boolean,
): RunResult {
  const { pitchDeg, rollDeg } = conditions.trim ?? { pitchDeg: 0, rollDeg: 0 };
  const load = Math.max(0, ...network.job.consumers.map(({ id }) => conditions.load[id] ?? 1));
  const step: DutyStep = { id: "held", hours, lineUpId: lineUp.id, load, pitchDeg, rollDeg };
  return new Course(new Runner(network, ambientC), [step], conditions, undefined, isDone).whole();
}
