/** Practice 23: heavier than the means chosen to drop it, at the fuel it holds now. Common practice. */
import { fuelAt } from "../../fuel/fuel";
import { drainFirstM3, liftingKg, tankWeight } from "../../tanks/weight";
import { onTank } from "../onTank";
import { rule } from "../rule";

export const tankHeavy = rule({
  id: "tankHeavy",
  practice: [23],
  place: "survey",
  judge: ({ job, plan }) =>
    job.tanks.flatMap((tank) => {
      const state = fuelAt(job.fuel, plan.conditions.fuelC);
      if (tank.droppedBy === undefined || !state) return [];
      const weight = tankWeight(tank, plan.conditions.aboardM3[tank.id] ?? 0, state.densityKgM3);
      const { allKg } = weight;
      const mostKg = liftingKg[tank.droppedBy];
      if (allKg <= mostKg) return [];
      const drainM3 = drainFirstM3(weight, mostKg, state.densityKgM3);
      return [
        onTank({
          grade: "watch",
          tank,
          values: { allKg, mostKg, drainM3, means: tank.droppedBy },
          figure: allKg,
        }),
      ];
    }),
});
