/** Practice 9: a lift pump mounted above the filters it draws through loses its prime; below them it keeps it. Common practice. */
import { isFiltering, isPump } from "../../kinds/families";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const pumpAboveFilters = rule({
  id: "pumpAboveFilters",
  practice: [9],
  place: "layout",
  judge: ({ plan, verdicts }) =>
    verdicts.flatMap(({ lineUp, way }) => {
      const pump = plan.parts.filter(isPump).find(({ id }) => id === way?.firstPumpId);
      const at = way?.stations.findIndex(({ id }) => id === pump?.id) ?? -1;
      if (!way || !pump || at < 0) return [];
      const drawn = new Set(way.stations.slice(0, at).map(({ id }) => id));
      const filters = plan.parts.filter(isFiltering).filter(({ id }) => drawn.has(id));
      const highest = Math.max(...filters.map(({ position }) => position.zM));
      const overM = pump.position.zM - highest;
      if (filters.length === 0 || !(overM > 0)) return [];
      return [
        onPart({
          grade: "watch",
          part: pump,
          lineUpIds: [lineUp.id],
          values: { overM },
          figure: overM,
        }),
      ];
    }),
});
