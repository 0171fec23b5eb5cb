/** All line-ups at their stated worst: coldest site temperature, change-point loading, lowest usable level, full load. */
import { fuelAt } from "../fuel/fuel";
import { elementsOf } from "../kinds/families";
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import { mouthHeightM } from "../network/network";
import { postureOf } from "../network/posture";
import { envelopeOf } from "../plan/envelope";
import type { Conditions, Job, LineUp, Plan } from "../plan/types";
import { type Attitude, tankAttitude } from "../tanks/attitude";
import { TiltedTank, volumeAtLevelM3 } from "../tanks/tank";
import { type Suction, suctionOf } from "./limits";
import { type FuelWay, fuelWay } from "./route";
import { type LineUpResult, LineUpSolver, type SolvedLineUp } from "./solve";

/** Common practice, no source: fuel this far over the mouth still feeds without drawing air. */
const LEAST_OVER_MOUTH_M = 0.01;

/** Fuel aboard when the surface stands just over the outlet's mouth, standing level. */
export function lowestUsableM3(job: Job): Record<Id, number> {
  return Object.fromEntries(
    job.tanks.map((tank) => {
      const outlets = tank.ports.filter(({ role }) => role === "outlet");
      const mouth = Math.max(...outlets.map((port) => mouthHeightM(tank, port) - tank.origin.zM), 0);
      return [tank.id, volumeAtLevelM3(tank, mouth + LEAST_OVER_MOUTH_M)];
    }),
  );
}

export function worstConditions(job: Job, plan: Plan): Conditions {
  const loading = elementsOf(plan.parts).map(({ id, part }) => [id, part.changeLoading]);
  return {
    fuelC: job.site.ambientLowC,
    aboardM3: { ...plan.conditions.aboardM3, ...lowestUsableM3(job) },
    loading: Object.fromEntries(loading),
    load: Object.fromEntries(job.consumers.map(({ id }) => [id, 1])),
  };
}

/** The same at a trim: the surface just over the mouth along the true vertical. */
export function lowestUsableAtM3(network: Network, trim: Attitude): Record<Id, number> {
  const posture = postureOf(network, trim);
  return Object.fromEntries(
    network.job.tanks.map((tank) => {
      const tilted = new TiltedTank(tank, tankAttitude(tank, trim));
      const base = posture.heightM(tank.origin);
      const mouths = network.sorted.tankPorts.flatMap(({ link }, i) =>
        link.tank === tank && link.port.role === "outlet" ? [(posture.mouthM[i] as number) - base] : [],
      );
      if (mouths.length === 0) return [tank.id, 0];
      return [tank.id, tilted.volumeM3(Math.min(tilted.high, Math.max(...mouths) + LEAST_OVER_MOUTH_M))];
    }),
  );
}

/** What makes the worst case what it is, one thing at a time. */
export const worstCauses = ["cold", "loaded", "low", "slope", "load"] as const;
export type WorstCause = (typeof worstCauses)[number];

export interface WorstCase {
  verdict: LineUpVerdict;
  conditions: Conditions;
  trim: Attitude;
  /** Vacuum saved at the first pump if that one thing were as it is now, Pa; worst first. Null where it then feeds and did not. */
  causes: { cause: WorstCause; savedPa: number | null }[];
}

/** Fed before starved before shut; among the fed, the one with the most margin is best. */
const badness = ({ result, suction }: LineUpVerdict): number => {
  if (result.outcome !== "solved") return 3e9;
  const outcomes = [...result.consumers.values()].map(({ outcome }) => outcome);
  if (outcomes.includes("noPath")) return 2e9;
  if (outcomes.includes("starved") || outcomes.includes("air")) return 1e9;
  return suction ? -suction.marginPa : -1e9;
};

/** Level, and the corners and edges of the envelope. */
function trimsOf(job: Job): Attitude[] {
  const { pitchDeg, rollDeg } = envelopeOf(job);
  return [-1, 0, 1].flatMap((p) => [-1, 0, 1].map((r) => ({ pitchDeg: p * pitchDeg, rollDeg: r * rollDeg })));
}

/** A line-up at its own worst: every limit of the site and the plan at once, at the worst trim of the envelope. */
export function worstOfLineUp(solver: LineUpSolver, lineUp: LineUp): WorstCase {
  const { network } = solver;
  const { job, plan } = network;
  const base = worstConditions(job, plan);
  const at = (trim: Attitude): Conditions => ({ ...base, aboardM3: lowestUsableAtM3(network, trim), trim });
  const tried = trimsOf(job).map((trim) => {
    const conditions = at(trim);
    return { trim, conditions, verdict: judgeLineUp(solver, lineUp, conditions) };
  });
  const worst = tried.reduce((a, b) => (badness(b.verdict) > badness(a.verdict) ? b : a));
  const relaxed = relaxedFrom(worst.conditions, plan.conditions, at({ pitchDeg: 0, rollDeg: 0 }));
  const is = worst.verdict.suction?.vacuumPa ?? null;
  const causes = worstCauses.map((cause) => {
    const { suction } = judgeLineUp(solver, lineUp, relaxed[cause]);
    return { cause, savedPa: is !== null && suction ? is - suction.vacuumPa : null };
  });
  return { ...worst, causes: causes.sort((a, b) => (b.savedPa ?? 0) - (a.savedPa ?? 0)) };
}

/**
 * The lowest pressure before a consumer at the line-up's worst; null where it is not fed there. At the slopes that were
 * entered for the site: those that are assumed for its kind of vehicle condemn no pump.
 */
export function worstFeed(
  solver: LineUpSolver,
  lineUp: LineUp,
  consumerId: Id,
): { feedPa: number; causes: WorstCause[] } | null {
  const { network } = solver;
  const { job, plan } = network;
  const base = worstConditions(job, plan);
  const at = (trim: Attitude): Conditions => ({ ...base, aboardM3: lowestUsableAtM3(network, trim), trim });
  const feedPa = (conditions: Conditions): number | null => {
    const { way } = judgeLineUp(solver, lineUp, conditions, consumerId);
    return way?.stations.find(({ id }) => id === consumerId)?.beforePa ?? null;
  };
  let worst: { conditions: Conditions; pa: number } | null = null;
  const level: Attitude = { pitchDeg: 0, rollDeg: 0 };
  for (const trim of job.site.envelope ? trimsOf(job) : [level]) {
    const conditions = at(trim);
    const pa = feedPa(conditions);
    if (pa === null) return null;
    if (!worst || pa < worst.pa) worst = { conditions, pa };
  }
  if (!worst) return null;
  const { conditions, pa } = worst;
  const relaxed = relaxedFrom(conditions, plan.conditions, at(level));
  const saved = worstCauses.map((cause) => ({ cause, pa: (feedPa(relaxed[cause]) ?? pa) - pa }));
  return { feedPa: pa, causes: saved.sort((a, b) => b.pa - a.pa).map(({ cause }) => cause) };
}

/** The worst with one of its causes as it is now. */
const relaxedFrom = (
  worst: Conditions,
  now: Conditions,
  level: Conditions,
): Record<WorstCause, Conditions> => ({
  cold: { ...worst, fuelC: now.fuelC },
  loaded: { ...worst, loading: now.loading },
  low: { ...worst, aboardM3: now.aboardM3 },
  slope: level,
  load: { ...worst, load: now.load },
});

export interface Judged {
  way: FuelWay;
  suction: Suction | null;
}

export interface LineUpVerdict {
  lineUp: LineUp;
  result: LineUpResult;
  /** The way to the consumer that was asked for, or to the one with the least margin. */
  way: FuelWay | null;
  suction: Suction | null;
  /** The ways to all running consumers, this one among them. */
  all: readonly Judged[];
}

/** The way to every running consumer, the one with the least margin first; from tank to tank where none runs. */
function waysOf(result: SolvedLineUp, plan: Plan): Judged[] {
  const { network, settings } = result;
  const running = network.engines.filter(
    ({ part, feed }) => settings.lineUp.consumers[part.id] === "running" && (settings.demand[feed] ?? 0) > 0,
  );
  const ids = running.length > 0 ? running.map(({ part }) => part.id) : [undefined];
  return ids
    .flatMap((id): Judged[] => {
      const way = fuelWay(result, id);
      return way ? [{ way, suction: suctionOf(result, way, plan) }] : [];
    })
    .sort((a, b) => (a.suction?.marginPa ?? Infinity) - (b.suction?.marginPa ?? Infinity) || 0);
}

export function judgeLineUp(
  solver: LineUpSolver,
  lineUp: LineUp,
  conditions: Conditions,
  consumerId?: Id,
): LineUpVerdict {
  const result = solver.solve(lineUp, conditions);
  const all = result.outcome === "solved" ? waysOf(result, solver.network.plan) : [];
  const shown = all.find(({ way }) => way.consumer?.id === consumerId) ?? all[0];
  return { lineUp, result, way: shown?.way ?? null, suction: shown?.suction ?? null, all };
}

export const judgeAll = (network: Network, conditions: Conditions): LineUpVerdict[] => {
  const solver = new LineUpSolver(network);
  return network.plan.lineUps.map((lineUp) => judgeLineUp(solver, lineUp, conditions));
};

export interface Sweep {
  temperaturesC: number[];
  loadings: number[];
  fills: number[];
}

/** Vacuum at the first pump for every line-up, temperature, filter loading and level: what the worst is found in. */
export interface SweepCase {
  lineUpId: Id;
  fuelC: number;
  loading: number;
  fill: number;
  outcome: "fed" | "starved" | "air" | "noPath" | "failed";
  vacuumPa: number | null;
}

/** How many of a line-up's cases are fed within a suction limit. */
export function casesWithin(
  cases: readonly SweepCase[],
  lineUpId: Id,
  limitPa: number,
): { good: number; of: number } {
  const own = cases.filter((one) => one.lineUpId === lineUpId);
  return {
    good: own.filter(({ outcome, vacuumPa }) => outcome === "fed" && (vacuumPa ?? 0) <= limitPa).length,
    of: own.length,
  };
}

export function defaultSweep(job: Job): Sweep {
  const { ambientLowC: low, ambientHighC: high } = job.site;
  const steps = [0, 0.25, 0.5, 0.75, 1];
  return {
    temperaturesC: steps.map((s) => low + s * (high - low)).filter((t) => fuelAt(job.fuel, t) !== null),
    loadings: [1, 1.75, 2.5, 3.25, 4],
    fills: [0, 0.25, 0.5, 0.75, 1],
  };
}

export function sweepAll(
  network: Network,
  base: Conditions,
  sweep: Sweep,
  onCase?: (done: number, of: number) => void,
): SweepCase[] {
  const { job, plan } = network;
  const solver = new LineUpSolver(network);
  const lowest = lowestUsableM3(job);
  const elements = elementsOf(plan.parts).map(({ id }) => id);
  const cases: SweepCase[] = [];
  const of = plan.lineUps.length * sweep.temperaturesC.length * sweep.loadings.length * sweep.fills.length;
  for (const lineUp of plan.lineUps) {
    for (const fuelC of sweep.temperaturesC) {
      for (const loading of sweep.loadings) {
        for (const fill of sweep.fills) {
          const aboardM3 = Object.fromEntries(
            job.tanks.map(({ id }) => [
              id,
              (lowest[id] ?? 0) + fill * Math.max(0, (base.aboardM3[id] ?? 0) - (lowest[id] ?? 0)),
            ]),
          );
          const conditions = {
            fuelC,
            aboardM3,
            loading: Object.fromEntries(elements.map((id) => [id, loading])),
            load: base.load,
          };
          cases.push({ lineUpId: lineUp.id, fuelC, loading, fill, ...quick(solver, lineUp, conditions) });
        }
      }
    }
    onCase?.(cases.length, of);
  }
  return cases;
}

function quick(
  solver: LineUpSolver,
  lineUp: LineUp,
  conditions: Conditions,
): Pick<SweepCase, "outcome" | "vacuumPa"> {
  const result = solver.solveInPlace(lineUp, conditions);
  if (result.outcome !== "solved") return { outcome: "failed", vacuumPa: null };
  const suction = waysOf(result, solver.network.plan)[0]?.suction ?? null;
  const outcomes = [...result.consumers.values()].map(({ outcome }) => outcome);
  const outcome = (["noPath", "starved", "air"] as const).find((one) => outcomes.includes(one)) ?? "fed";
  return { outcome, vacuumPa: outcome === "noPath" ? null : (suction?.vacuumPa ?? null) };
}
