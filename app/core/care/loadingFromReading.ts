/** The filter loading that a vacuum reading implies: the plan itself is solved until its gauge shows the reading. */
import { gaugeAtPort } from "../hydraulics/derive";
import { fuelWay } from "../hydraulics/route";
import { LineUpSolver } from "../hydraulics/solve";
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import type { Conditions, LineUp } from "../plan/types";
import { filterBefore } from "./filterBefore";

export type ImpliedLoading =
  | { outcome: "loading"; elementId: Id; filterId: Id; loading: number; computedPa: number }
  /** The gauge shows less than a clean filter would: no loading explains it. */
  | { outcome: "belowClean"; filterId: Id; cleanPa: number; computedPa: number }
  | { outcome: "beyond"; filterId: Id; computedPa: number }
  | { outcome: "noFilter" | "notSolved" };

const MOST_LOADING = 100;
const TOLERANCE = 1e-4;

/**
 * Vacuum at the gauge (Pa) under conditions `conditions`; the element varied is the first filter on the way to it.
 * `computedPa` is what the plan says at the loadings stored.
 */
export function loadingFromReading(
  network: Network,
  lineUp: LineUp,
  conditions: Conditions,
  gaugeId: Id,
  vacuumPa: number,
): ImpliedLoading {
  const solver = new LineUpSolver(network);
  const vacuumAt = (at: Conditions) => {
    const result = solver.solve(lineUp, at);
    return result.outcome === "solved" ? { result, pa: -gaugeAtPort(result, `${gaugeId}.a`) } : null;
  };
  const now = vacuumAt(conditions);
  const way = now ? fuelWay(now.result) : null;
  if (!now || !way || !Number.isFinite(now.pa)) return { outcome: "notSolved" };
  const filter = filterBefore(network.plan, way, gaugeId);
  if (!filter) return { outcome: "noFilter" };
  const elementId = filter.element.id;
  const at = (loading: number) =>
    vacuumAt({ ...conditions, loading: { ...conditions.loading, [elementId]: loading } })?.pa ?? Infinity;
  const computedPa = now.pa;
  const cleanPa = at(1);
  if (vacuumPa < cleanPa) return { outcome: "belowClean", filterId: filter.id, cleanPa, computedPa };
  let low = 1;
  let high = MOST_LOADING;
  if (at(high) < vacuumPa) return { outcome: "beyond", filterId: filter.id, computedPa };
  while (high - low > TOLERANCE * low) {
    const middle = (low + high) / 2;
    if (at(middle) < vacuumPa) low = middle;
    else high = middle;
  }
  return { outcome: "loading", elementId, filterId: filter.id, loading: (low + high) / 2, computedPa };
}
