/**
 * Readings of a gauge brought to one measure: the restriction of the filter before it over a clean one's, each by the plan's
 * own solution at what the reading was taken at. What a consumer draws does not change with a filter, so that the vacuum
 * goes straight with its restriction: two solves give it, under 1 as well.
 */

import type { Book } from "../book/entries";
import { entriesOf, type VacuumReading } from "../book/entries";
import { gaugeAtPort } from "../hydraulics/derive";
import { fuelWay } from "../hydraulics/route";
import { LineUpSolver } from "../hydraulics/solve";
import type { Filter } from "../kinds/filter";
import type { Gauge } from "../kinds/gauge";
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import type { LineUp } from "../plan/types";
import { HOUR_S, LITRE_M3 } from "../units/factors";
import { type LoadingPoint, offBy, type Weighed, weighedTrend } from "./blocking";
import { fittedAt } from "./elementLives";
import { filterBefore } from "./filterBefore";

/** A dial of class 1.6 over 40 kPa reads the same twice within half its class. Common practice, no source; assumed. */
export const REPEATS_PA = 320;
/** Nothing is restricted less than this: a reading under it tells of the gauge. */
const LEAST_LOADING = 0.05;
export const TREND_SHARE = 0.9;
const DAY_MS = 86_400_000;

/** A filter is changed at this on its gauge, 6 inHg, until the user's own limit is typed. Common practice, no source. */
export const COMMON_LIMIT_PA = 20_000;
export const limitOf = (gauge: Pick<Gauge, "changeAtPa"> | null): number =>
  gauge?.changeAtPa ?? COMMON_LIMIT_PA;

export interface TrendPoint extends LoadingPoint {
  entryId: Id;
  at: string;
  /** Far from what the others say: left out of the fit, and kept. */
  isOutlier: boolean;
}

export type TrendBy = "hours" | "days" | "litres";

export interface GaugeTrend {
  gaugeId: Id;
  filter: Filter;
  /** Engine hours where every reading has them, else days from the first; litres through the filter where they are asked for. */
  by: TrendBy;
  /** The vacuum at which the element is changed, Pa under the air: the one limit of the gauge. */
  limitPa: number;
  /** The last reading, Pa under the air. */
  lastPa: number;
  /** What the limit is of a clean element's restriction; the maker's where the limit is met by a clean one. */
  target: number;
  points: TrendPoint[];
  /** Of what is left of the readings since the pace changed. Null with fewer than three, or all at one place. */
  weighed: Weighed | null;
  /** Place of the first reading that lies over all that the ones before foretold, and all after it too; null where none does. */
  changedAt: number | null;
}

/** A reading this far from what all others say is an outlier; one this far over what those before foretold is a change of pace. Spreads. */
const OUTLIES = 3;
const CHANGES = 2.5;
/** So many readings, before one of them is doubted. */
const LEAST_TO_DOUBT = 5;

/** The one reading between others that lies farthest from what they say, where that is far; the last may be a change of pace. */
function outlierIn(points: readonly LoadingPoint[]): number | null {
  if (points.length < LEAST_TO_DOUBT) return null;
  const off = points.slice(0, -1).map((point, i) =>
    Math.abs(
      offBy(
        points.filter((_, k) => k !== i),
        point,
      ) ?? 0,
    ),
  );
  const most = Math.max(...off);
  return most > OUTLIES ? off.indexOf(most) : null;
}

/** The first reading that, with all after it, lies over what those before it foretold. */
function changeIn(points: readonly LoadingPoint[]): number | null {
  for (let j = 3; j < points.length; j++) {
    const before = points.slice(0, j);
    if (points.slice(j).every((point) => (offBy(before, point) ?? 0) > CHANGES)) return j;
  }
  return null;
}

/** The filter before a gauge on a line-up's way, and what its restriction makes of the vacuum there. */
function slopeAt(
  solver: LineUpSolver,
  lineUp: LineUp,
  { conditions, gaugeId }: VacuumReading,
): { filter: Filter; cleanPa: number; perLoadingPa: number; flowM3S: number } | null {
  const solved = solver.solve(lineUp, conditions);
  const way = solved.outcome === "solved" ? fuelWay(solved) : null;
  const filter = way && filterBefore(solver.network.plan, way, gaugeId);
  if (!filter) return null;
  const { id } = filter.element;
  const vacuum = (loading: number): number => {
    const result = solver.solve(lineUp, { ...conditions, loading: { ...conditions.loading, [id]: loading } });
    return result.outcome === "solved" ? -gaugeAtPort(result, `${gaugeId}.a`) : Number.NaN;
  };
  const [one, two] = [vacuum(1), vacuum(2)];
  const index = solver.network.linkOf.get(filter.id);
  const flowM3S =
    solved.outcome === "solved" && index !== undefined ? Math.abs(solved.flow[index] as number) : 0;
  return two > one ? { filter, cleanPa: one, perLoadingPa: two - one, flowM3S } : null;
}

/** Readings since the element that is in now was fitted, oldest first. */
export function gaugeTrend(network: Network, book: Book, gaugeId: Id, asked?: TrendBy): GaugeTrend | null {
  const solver = new LineUpSolver(network);
  const { plan } = network;
  const found = entriesOf(book, "vacuum")
    .filter((entry) => entry.gaugeId === gaugeId)
    .sort((a, b) => a.at.localeCompare(b.at))
    .flatMap((entry) => {
      const lineUp = plan.lineUps.find(({ id }) => id === entry.lineUpId);
      const slope = lineUp && slopeAt(solver, lineUp, entry);
      return slope ? [{ entry, slope }] : [];
    });
  const last = found.at(-1);
  if (!last) return null;
  const { filter } = last.slope;
  const fitted = fittedAt(filter, book);
  const own = found.filter(({ entry, slope }) => slope.filter.id === filter.id && entry.at >= fitted);
  const first = own[0]?.entry;
  if (!first) return null;
  const gauge = plan.parts.find(({ id }) => id === gaugeId);
  const limitPa = limitOf(gauge?.kind === "gauge" ? gauge : null);
  const hasHours = own.every(({ entry }) => entry.engineH !== undefined);
  const by = asked === "days" || !hasHours ? "days" : (asked ?? "hours");
  // Between two readings fuel passed as it did at the later one.
  let litresM3 = 0;
  const passed = own.map(({ entry, slope }, i) => {
    const before = own[i - 1]?.entry.engineH;
    if (before !== undefined) litresM3 += ((entry.engineH as number) - before) * HOUR_S * slope.flowM3S;
    return litresM3;
  });
  const all = own.map(({ entry, slope }, i) => ({
    entryId: entry.id,
    at: entry.at,
    x:
      by === "litres"
        ? (passed[i] as number) / LITRE_M3
        : by === "hours"
          ? (entry.engineH as number)
          : (Date.parse(entry.at) - Date.parse(first.at)) / DAY_MS,
    loading: Math.max(LEAST_LOADING, 1 + (entry.vacuumPa - slope.cleanPa) / slope.perLoadingPa),
    plusMinus: REPEATS_PA / slope.perLoadingPa,
  }));
  const outlier = outlierIn(all);
  const points = all.map((point, i) => ({ ...point, isOutlier: i === outlier }));
  const sound = points.filter(({ isOutlier }) => !isOutlier);
  // What the hoses take and a clean element shows is under the limit; what is left of it is the filter's.
  const atLimit = 1 + (limitPa - last.slope.cleanPa) / last.slope.perLoadingPa;
  const target = atLimit > 1 ? atLimit : filter.changeLoading;
  const change = changeIn(sound);
  // The fit since the change, from the last reading before it on, as soon as there are enough.
  const since = change === null ? sound : sound.slice(change - 1);
  return {
    gaugeId,
    filter,
    by,
    limitPa,
    lastPa: last.entry.vacuumPa,
    target,
    points,
    weighed: weighedTrend(since.length >= 3 ? since : sound, target, TREND_SHARE),
    changedAt: change === null ? null : (sound[change]?.x ?? null),
  };
}

/** Trends of all gauges that have one. */
export const trendsOf = (network: Network, book: Book): GaugeTrend[] =>
  network.plan.parts.flatMap((part) => {
    const trend = part.kind === "gauge" ? gaugeTrend(network, book, part.id) : null;
    return trend ? [trend] : [];
  });

/** How far ahead a trend is drawn: as far again as the readings go back, farther to its middle date, thrice at the most. */
export function horizonOf({ points, weighed }: GaugeTrend): number {
  const [first, last] = [points[0]?.x ?? 0, points.at(-1)?.x ?? 0];
  const back = Math.max(1, last - first);
  return Math.min(last + 3 * back, Math.max(last + back, weighed?.due ?? last));
}

/** A place of the trend as a day, where it goes by days; null where it goes by hours. */
export function dayOf({ by, points }: GaugeTrend, x: number): Date | null {
  const first = points[0];
  return by === "days" && first ? new Date(Date.parse(first.at) + x * DAY_MS) : null;
}

/** As scripts read it. Field names are the contract. */
export function trendReport(trend: GaugeTrend) {
  const { weighed } = trend;
  const on = (x: number | null | undefined) =>
    x === null || x === undefined ? null : (dayOf(trend, x)?.toISOString() ?? null);
  return {
    gauge: trend.gaugeId,
    filter: trend.filter.id,
    element: trend.filter.element?.id ?? null,
    by: trend.by,
    limitPa: trend.limitPa,
    lastPa: trend.lastPa,
    target: trend.target,
    points: trend.points.map(({ at, x, loading, plusMinus, isOutlier }) => ({
      at,
      x,
      loading,
      plusMinus,
      isOutlier,
    })),
    changedAt: trend.changedAt,
    fits: (weighed?.fits ?? []).map(({ order, share, trend: own }) => ({ order, share, ...own })),
    due: weighed?.due ?? null,
    earliest: weighed?.earliest ?? null,
    latest: weighed?.latest ?? null,
    dueAt: on(weighed?.due),
    actBy: on(weighed?.earliest),
  };
}
