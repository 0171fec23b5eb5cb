/** Practice 8: within its limit now, and past it at the worst of the site: cold, loaded, low, at slope, at full load. Common practice. */
import { worstOfLineUp } from "../../hydraulics/worst";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const worstLimit = rule({
  id: "worstLimit",
  practice: [8],
  place: "prove",
  judge: ({ plan, solver, verdicts }) =>
    plan.lineUps.flatMap((lineUp) => {
      const now = verdicts.filter((verdict) => verdict.lineUp.id === lineUp.id);
      const isWithin = now.some(({ suction }) => suction && suction.marginPa >= 0);
      if (lineUp.purpose !== "run" || !isWithin) return [];
      const { verdict, causes } = worstOfLineUp(solver, lineUp);
      const { suction, way } = verdict;
      if (!suction || !(suction.marginPa < 0)) return [];
      const name = way?.stations.find(({ id }) => id === suction.id)?.name ?? suction.id;
      return [
        onPart({
          grade: "watch",
          part: { id: suction.id, name },
          lineUpIds: [lineUp.id],
          basis: suction.basis,
          values: {
            lineUp: lineUp.name,
            vacuumPa: suction.vacuumPa,
            limitPa: suction.limitPa,
            cause: causes[0]?.cause ?? "loaded",
          },
          figure: suction.vacuumPa,
        }),
      ];
    }),
});
