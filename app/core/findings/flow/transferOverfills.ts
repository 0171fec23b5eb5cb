/** A transfer that fills its tank and would go on: how long until it must be stopped. Practice 13, common practice. */
import { tankFlows } from "../../hydraulics/derive";
import { capacityM3 } from "../../tanks/tank";
import { HOUR_S } from "../../units/factors";
import { onTank } from "../onTank";
import { rule } from "../rule";

export const transferOverfills = rule({
  id: "transferOverfills",
  practice: [13],
  place: "layout",
  judge: ({ job, plan, verdicts }) =>
    verdicts.flatMap(({ lineUp, result }) => {
      if (result.outcome !== "solved" || !lineUp.intendedTransfer) return [];
      const out = tankFlows(result);
      if (Object.values(lineUp.consumers).includes("running")) return [];
      const gains = job.tanks.map((tank) => ({
        tank,
        aboardM3: plan.conditions.aboardM3[tank.id] ?? 0,
        gainM3S: -(out.get(tank.id) ?? 0),
      }));
      const thereM3 = gains.reduce((sum, { gainM3S, aboardM3 }) => sum + (gainM3S < 0 ? aboardM3 : 0), 0);
      return gains.flatMap(({ tank, aboardM3, gainM3S }) => {
        const roomM3 = capacityM3(tank) - aboardM3;
        if (!(gainM3S > 0) || !(thereM3 > roomM3)) return [];
        const fullHours = roomM3 / gainM3S / HOUR_S;
        return [
          {
            ...onTank({
              grade: "watch",
              tank,
              values: { fullHours, roomM3, gainM3S, lineUp: lineUp.name },
              figure: fullHours,
            }),
            lineUpIds: [lineUp.id],
          },
        ];
      });
    }),
});
