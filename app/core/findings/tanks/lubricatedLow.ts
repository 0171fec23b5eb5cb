/**
 * Practice 12: an injection pump that fuel alone lubricates must not draw air: a quarter tank, or where the plan's own
 * uncovering level at its attitude is known, that. Common practice.
 */
import { envelopeOf } from "../../plan/envelope";
import { worstDeadFuel } from "../../tanks/pickup";
import { capacityM3 } from "../../tanks/tank";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const lubricatedLow = rule({
  id: "lubricatedLow",
  practice: [12],
  place: "survey",
  judge: ({ job, plan, verdicts }) =>
    verdicts.flatMap(({ lineUp, way }) => {
      const tank = job.tanks.find(({ id }) => id === way?.stations[0]?.id);
      const engine = way?.consumer;
      if (!tank || !engine?.fuelLubricated) return [];
      const mouths = tank.ports.filter(({ role }) => role === "outlet").map(({ mouth }) => mouth);
      const dead = worstDeadFuel(tank, mouths, envelopeOf(job));
      const aboardM3 = plan.conditions.aboardM3[tank.id] ?? 0;
      if (aboardM3 >= dead.deadM3) return [];
      return [
        onPart({
          grade: "watch",
          part: engine,
          also: [tank.id],
          lineUpIds: [lineUp.id],
          values: {
            tank: tank.name,
            aboardM3,
            leastM3: dead.deadM3,
            quarterM3: capacityM3(tank) / 4,
          },
          figure: dead.deadM3 - aboardM3,
        }),
      ];
    }),
});
