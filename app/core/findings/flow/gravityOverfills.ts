/**
 * Practice 13: a lower tank that fuel runs into from a higher one by gravity alone, and can overfill: the higher
 * surface stands over the lower tank's vent, or its top where no vent is known. Common practice.
 */
import { tankFlows } from "../../hydraulics/derive";
import { fromTank } from "../../plan/ports";
import type { Plan, Tank } from "../../plan/types";
import { heightsOf } from "../../tanks/tank";
import { fillingOf } from "../../tanks/tankLine";
import { onTank } from "../onTank";
import { rule } from "../rule";

function spillsAtM(tank: Tank, plan: Plan): number {
  const filling = fillingOf(tank, plan);
  return filling ? fromTank(tank, filling.ventTop).zM : tank.origin.zM + heightsOf(tank).highM;
}

export const gravityOverfills = rule({
  id: "gravityOverfills",
  practice: [13],
  place: "layout",
  judge: ({ job, plan, verdicts }) =>
    verdicts.flatMap(({ lineUp, result }) => {
      if (result.outcome !== "solved") return [];
      const { settings } = result;
      const out = tankFlows(result);
      const runs =
        Object.values(lineUp.pumps).includes("on") || Object.values(lineUp.consumers).includes("running");
      if (runs) return [];
      return job.tanks.flatMap((tank) => {
        const intoM3S = -(out.get(tank.id) ?? 0);
        const highest = Math.max(...job.tanks.map(({ id }) => settings.surfaceM.get(id) ?? -Infinity));
        const overM = highest - spillsAtM(tank, plan);
        if (!(intoM3S > 0) || !(overM > 0)) return [];
        return [
          {
            ...onTank({
              grade: "mend",
              tank,
              values: { overM, intoM3S, lineUp: lineUp.name },
              figure: overM,
            }),
            lineUpIds: [lineUp.id],
          },
        ];
      });
    }),
});
