/** All line-ups at their stated worst: coldest site temperature, change-point loading, lowest usable level, full load. */
import { fuelAt } from "../fuel/fuel";
import type { Network } from "../network/network";
import { mouthHeightM } from "../network/network";
import { elementsOf } from "../plan/families";
import type { Conditions, Id, Job, LineUp, Plan } from "../plan/types";
import { volumeAtLevelM3 } from "../tanks/tank";
import { type Suction, suctionOf } from "./limits";
import { type FuelWay, fuelWay } from "./route";
import { type LineUpResult, LineUpSolver } from "./solve";

/** Common practice, no source: fuel this far over the mouth still feeds without drawing air. */
const LEAST_OVER_MOUTH_M = 0.01;

/** Fuel aboard when the surface stands just over the outlet's mouth. */
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

export interface LineUpVerdict {
  lineUp: LineUp;
  result: LineUpResult;
  way: FuelWay | null;
  suction: Suction | null;
}

export function judgeLineUp(solver: LineUpSolver, lineUp: LineUp, conditions: Conditions): LineUpVerdict {
  const result = solver.solve(lineUp, conditions);
  const way = result.outcome === "solved" ? fuelWay(result) : null;
  const suction = result.outcome === "solved" && way ? suctionOf(result, way, solver.network.plan) : null;
  return { lineUp, result, way, suction };
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
  outcome: "fed" | "starved" | "noPath" | "failed";
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
  const way = fuelWay(result);
  const suction = way ? suctionOf(result, way, solver.network.plan) : null;
  const outcomes = [...result.consumers.values()].map(({ outcome }) => outcome);
  const outcome = outcomes.includes("noPath") ? "noPath" : outcomes.includes("starved") ? "starved" : "fed";
  return { outcome, vacuumPa: outcome === "noPath" ? null : (suction?.vacuumPa ?? null) };
}
