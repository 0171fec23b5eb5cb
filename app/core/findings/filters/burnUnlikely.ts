/**
 * What an engine is said to burn at full load against its power: outside of what its kind takes, one of the two is wrong,
 * and range, run and return are wrong with it.
 */
import { fuelAt } from "../../fuel/fuel";
import { isPetrol } from "../../fuel/grades";
import { burnM3S, COMMON_G_KWH } from "../../laws/burn";
import { engineFlows } from "../../network/settings";
import { HOUR_S, LITRE_M3 } from "../../units/factors";
import { onPart } from "../onPart";
import { rule } from "../rule";

/** Beyond the band by this much it is told: sheets differ. */
const PLAY = 0.1;

export const burnUnlikely = rule({
  id: "burnUnlikely",
  practice: [],
  place: "survey",
  judge: ({ job, plan }) =>
    job.consumers.flatMap((part) => {
      if (part.kind !== "engine" || !(part.powerW > 0)) return [];
      const state = fuelAt(job.fuel, plan.conditions.fuelC);
      if (!state) return [];
      const burn = engineFlows(part, 1).burnM3S;
      const [least, most] = COMMON_G_KWH[isPetrol(job.fuel) ? "petrol" : "diesel"].map((gKwh) =>
        burnM3S(part.powerW, state.densityKgM3, gKwh),
      ) as [number, number];
      if (burn >= least * (1 - PLAY) && burn <= most * (1 + PLAY)) return [];
      const perHour = (m3S: number) => (m3S * HOUR_S) / LITRE_M3;
      return [
        onPart({
          grade: "watch",
          part,
          values: {
            burnLH: perHour(burn),
            leastLH: perHour(least),
            mostLH: perHour(most),
            powerW: part.powerW,
          },
          figure: Math.abs(Math.log(burn / Math.sqrt(least * most))),
        }),
      ];
    }),
});
