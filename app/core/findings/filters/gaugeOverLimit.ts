/**
 * The last reading of a vacuum gauge at or over the limit that its filter is changed at: the user's own, else a common one.
 * A reading from before the element that is in now tells nothing of it. Common practice.
 */
import { entriesOf } from "../../book/entries";
import { fittedAt } from "../../care/elementLives";
import { filterBefore } from "../../care/filterBefore";
import { limitOf } from "../../care/gaugeTrend";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const gaugeOverLimit = rule({
  id: "gaugeOverLimit",
  practice: [],
  place: "care",
  judge: ({ book, plan, verdicts }) =>
    plan.parts.flatMap((gauge) => {
      if (gauge.kind !== "gauge" || gauge.measures !== "vacuum") return [];
      const last = entriesOf(book, "vacuum")
        .filter(({ gaugeId }) => gaugeId === gauge.id)
        .reduce<{ at: string; vacuumPa: number; lineUpId: string } | null>(
          (latest, one) => (latest && latest.at > one.at ? latest : one),
          null,
        );
      const limitPa = limitOf(gauge);
      if (!last || last.vacuumPa < limitPa) return [];
      const way = verdicts.find(({ lineUp }) => lineUp.id === last.lineUpId)?.way;
      const filter = way && filterBefore(plan, way, gauge.id);
      if (!filter || last.at < fittedAt(filter, book)) return [];
      return [
        onPart({
          grade: "mend",
          part: filter,
          also: [gauge.id],
          lineUpIds: [last.lineUpId],
          values: { gauge: gauge.name, readPa: last.vacuumPa, limitPa },
          figure: last.vacuumPa,
        }),
      ];
    }),
});
