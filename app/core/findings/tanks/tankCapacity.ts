/** The measured shape holds much more or less than the tank's plate says: a size was mistaken. Common practice. */
import { capacityM3 } from "../../tanks/tank";
import { onTank } from "../onTank";
import { rule } from "../rule";

/** Plates are rounded and some leave room to grow. Common practice, no source. */
const FAR_OFF = 0.08;

export const tankCapacity = rule({
  id: "tankCapacity",
  practice: [],
  place: "survey",
  judge: ({ job }) =>
    job.tanks.flatMap((tank) => {
      if (tank.plateM3 === undefined) return [];
      const measuredM3 = capacityM3(tank);
      const off = Math.abs(measuredM3 / tank.plateM3 - 1);
      if (off <= FAR_OFF) return [];
      return [
        onTank({
          grade: "mend",
          tank,
          values: { measuredM3, plateM3: tank.plateM3 },
          figure: off,
        }),
      ];
    }),
});
