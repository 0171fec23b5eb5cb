/** Practice 21: how near the ground a sump hangs, and what is lost if it is struck off. Common practice. */
import { volumeAtLevelM3 } from "../../tanks/tank";
import { onTank } from "../onTank";
import { rule } from "../rule";

/** A sump this near the ground is struck on a kerb or a ramp. Common practice, no source. */
const LEAST_GROUND_M = 0.25;

export const sumpHangs = rule({
  id: "sumpHangs",
  practice: [21],
  place: "survey",
  judge: ({ job, plan }) =>
    job.tanks.flatMap((tank) => {
      const { sump } = tank;
      if (sump?.floorOverGroundM === undefined) return [];
      const clearM = sump.floorOverGroundM - sump.depthM;
      if (!(clearM < LEAST_GROUND_M)) return [];
      const aboard = plan.conditions.aboardM3[tank.id] ?? 0;
      const lostM3 = Math.max(0, aboard - volumeAtLevelM3(tank, -sump.depthM));
      return [
        onTank({
          grade: "watch",
          tank,
          values: { clearM, leastM: LEAST_GROUND_M, lostM3 },
          figure: LEAST_GROUND_M - clearM,
        }),
      ];
    }),
});
