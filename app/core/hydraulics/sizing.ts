/** What each size of hose and filter on the suction side buys: vacuum saved, the least that keeps a wanted margin. */

import { type Filtering, isFiltering } from "../kinds/families";
import type { Id } from "../kinds/record";
import { buildNetwork, type Network } from "../network/network";
import { tryBore } from "../network/shape";
import type { Conditions, LineUp, Run } from "../plan/types";
import { LITRE_PER_HOUR_M3_S } from "../units/factors";
import { firstSuction } from "./limits";
import { LineUpSolver } from "./solve";
import { judgeLineUp, worstConditions } from "./worst";

/** Inside diameters that hose is sold in: 2, 3, 4 and 5 mm, then sixteenths and eighths of an inch. Common practice, no source. */
export const boresM = [
  0.002, 0.003, 0.004, 0.005, 0.0064, 0.0079, 0.0095, 0.0127, 0.0159, 0.0191, 0.0254,
] as const;
/** Rated flows that filters are sold in, L/h. Common practice, no source. */
const ratedFlows = [60, 100, 150, 227, 340, 500, 750, 1000, 1500];

export interface SizeTried {
  /** Bore, m, or rated flow, m3/s. */
  size: number;
  /** Margin of the suction limit, Pa; null where it starves or has no way. */
  marginPa: number | null;
}

export interface Sized {
  id: Id;
  kind: "run" | "filter";
  now: number;
  tried: SizeTried[];
  /** Smallest size that keeps the wanted margin with all else as it is; null where none does. */
  least: number | null;
}

/** Margin where all is fed: of the first inlet, for what stands before it, or of the one nearest to its limit. */
function marginOf(
  solver: LineUpSolver,
  lineUp: LineUp,
  conditions: Conditions,
  at: "first" | "nearest" = "nearest",
): number | null {
  const { result, way, suction } = judgeLineUp(solver, lineUp, conditions);
  if (result.outcome !== "solved" || !way) return null;
  if (![...result.consumers.values()].every(({ outcome }) => outcome === "fed" || outcome === "stopped"))
    return null;
  const judged = at === "first" ? firstSuction(result, way, solver.network.plan) : suction;
  return judged?.marginPa ?? null;
}

const leastOf = (tried: readonly SizeTried[], wantedPa: number): number | null =>
  tried.find(({ marginPa }) => marginPa !== null && marginPa >= wantedPa)?.size ?? null;

const withOwn = (sizes: readonly number[], own: number): number[] =>
  [...new Set([...sizes.filter((size) => Math.abs(size - own) > 1e-4 * own), own])].sort((a, b) => a - b);

function sizeRun(
  solver: LineUpSolver,
  lineUp: LineUp,
  conditions: Conditions,
  run: Run,
  wantedPa: number,
): Sized {
  const { network } = solver;
  const index = network.linkOf.get(run.id) as number;
  const tried = withOwn(boresM, run.boreM).map((size) => {
    tryBore(network, index, size);
    return { size, marginPa: marginOf(solver, lineUp, conditions, "first") };
  });
  tryBore(network, index, run.boreM);
  return { id: run.id, kind: "run", now: run.boreM, tried, least: leastOf(tried, wantedPa) };
}

function sizeFilter(
  { job, plan }: Network,
  lineUp: LineUp,
  conditions: Conditions,
  filter: Filtering,
  wantedPa: number,
): Sized {
  const tried = withOwn(
    ratedFlows.map((flow) => flow * LITRE_PER_HOUR_M3_S),
    filter.ratedFlowM3S,
  ).map((size) => {
    const parts = plan.parts.map((part) =>
      part.id === filter.id ? { ...filter, ratedFlowM3S: size } : part,
    );
    const solver = new LineUpSolver(buildNetwork(job, { ...plan, parts }));
    return { size, marginPa: marginOf(solver, lineUp, conditions, "first") };
  });
  return { id: filter.id, kind: "filter", now: filter.ratedFlowM3S, tried, least: leastOf(tried, wantedPa) };
}

/** Every hose and filter before the first pump of a line-up, at the given conditions, one changed at a time. */
export function sizesOf(network: Network, lineUp: LineUp, conditions: Conditions, wantedPa: number): Sized[] {
  const solver = new LineUpSolver(network);
  const { way } = judgeLineUp(solver, lineUp, conditions);
  if (!way) return [];
  const runs = new Map(network.plan.runs.map((run) => [run.id, run]));
  const filters = new Map(network.plan.parts.filter(isFiltering).map((part) => [part.id, part]));
  return way.suctionLosses.flatMap(({ id }): Sized[] => {
    const run = runs.get(id);
    const filter = filters.get(id);
    if (run) return [sizeRun(solver, lineUp, conditions, run, wantedPa)];
    return filter ? [sizeFilter(network, lineUp, conditions, filter, wantedPa)] : [];
  });
}

export interface MarginLine {
  fuelC: number;
  points: { load: number; marginPa: number | null }[];
}

const LOADS = 21;

/** Margin over load at a few temperatures, all else at the plan's worst: what the chart shows. */
export function marginOverLoad(network: Network, lineUp: LineUp): MarginLine[] {
  const { job, plan } = network;
  const solver = new LineUpSolver(network);
  const { ambientLowC: low, ambientHighC: high } = job.site;
  const worst = worstConditions(job, plan);
  return [low, (low + high) / 2, high].map((fuelC) => ({
    fuelC,
    points: Array.from({ length: LOADS }, (_, i) => {
      const load = i / (LOADS - 1);
      const loads = Object.fromEntries(job.consumers.map(({ id }) => [id, load]));
      return { load, marginPa: marginOf(solver, lineUp, { ...worst, fuelC, load: loads }) };
    }),
  }));
}
