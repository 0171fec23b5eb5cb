/** The filter that a gauge tells of: the first before it on the way of the fuel. */
import type { FuelWay } from "../hydraulics/route";
import type { Filter } from "../kinds/filter";
import type { Id } from "../kinds/record";
import type { Plan } from "../plan/types";

/** With its element in; null where none stands before the gauge, or the gauge is not on the way. */
export function filterBefore(
  plan: Plan,
  way: FuelWay,
  gaugeId: Id,
): (Filter & { element: NonNullable<Filter["element"]> }) | null {
  const at = way.stations.findIndex(({ id }) => id === gaugeId);
  const station = way.stations.slice(0, at < 0 ? undefined : at).find(({ kind }) => kind === "filter");
  const filter = plan.parts.find(({ id }) => id === station?.id);
  return filter?.kind === "filter" && filter.element ? { ...filter, element: filter.element } : null;
}
