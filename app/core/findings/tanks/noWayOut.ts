/** Practice 55: a tank that does not come out through its hatch. Common practice. */
import { wayOutLacks } from "../../tanks/wayOut";
import { onTank } from "../onTank";
import { rule } from "../rule";

export const noWayOut = rule({
  id: "noWayOut",
  practice: [55],
  place: "fit",
  judge: ({ job }) =>
    job.tanks.flatMap((tank) => {
      const lacks = wayOutLacks(tank);
      if (!lacks || lacks.shortM + lacks.longM === 0) return [];
      const figure = Math.max(lacks.shortM, lacks.longM);
      return [onTank({ grade: "watch", tank, values: { ...lacks }, figure })];
    }),
});
