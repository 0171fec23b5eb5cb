/**
 * Practice 6: a vacuum gauge belongs between the primary filter and the suction of the lift pump; a pressure gauge
 * after the last filter before the injection pump. Common practice.
 */

import type { FuelWay } from "../../hydraulics/route";
import { isFiltering } from "../../kinds/families";
import type { Gauge } from "../../kinds/gauge";
import type { Plan } from "../../plan/types";
import { onPart } from "../onPart";
import { rule } from "../rule";

type Misplaced = "afterPump" | "beforeFilter" | "beforePump" | "beforeLastFilter";

/** What is wrong with where it stands on a way; null where nothing is. */
function misplaced(gauge: Gauge, way: FuelWay, plan: Plan): Misplaced | null {
  const feed = way.stations.filter(({ side }) => side === "feed");
  const at = feed.findIndex(({ id }) => id === gauge.id);
  if (at < 0) return null;
  const filters = new Set(plan.parts.filter(isFiltering).map(({ id }) => id));
  const pump = feed.findIndex(({ id }) => id === way.firstPumpId);
  const firstFilter = feed.findIndex(({ id }) => filters.has(id));
  const lastFilter = feed.findLastIndex(({ id }) => filters.has(id));
  if (gauge.measures === "vacuum") {
    if (pump >= 0 && at > pump) return "afterPump";
    return firstFilter >= 0 && firstFilter < pump && at < firstFilter ? "beforeFilter" : null;
  }
  if (pump >= 0 && at < pump) return "beforePump";
  return lastFilter >= 0 && at < lastFilter ? "beforeLastFilter" : null;
}

export const gaugePlace = rule({
  id: "gaugePlace",
  practice: [6],
  place: "layout",
  judge: ({ plan, verdicts }) =>
    plan.parts.flatMap((part) => {
      if (part.kind !== "gauge") return [];
      // A manifold may lead one gauge through line-ups of other kinds: only those that run count.
      const runs = verdicts.filter(({ lineUp, way }) => lineUp.purpose === "run" && way?.consumer);
      const wrong = runs.flatMap(({ lineUp, way }) => {
        const code = way && misplaced(part, way, plan);
        return code ? [{ id: lineUp.id, code }] : [];
      });
      const [first] = wrong;
      if (!first) return [];
      const lineUpIds = wrong.map(({ id }) => id);
      return [onPart({ grade: "mend", part, lineUpIds, values: { code: first.code } })];
    }),
});
