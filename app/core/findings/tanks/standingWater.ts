/** Practice 26: water stands under the tank, or foam holds it against metal. Common practice. */
import { onTank } from "../onTank";
import { rule } from "../rule";

export const standingWater = rule({
  id: "standingWater",
  practice: [26],
  place: "survey",
  judge: ({ job }) =>
    job.tanks.flatMap((tank) => {
      const drains = tank.condition?.drains;
      const isFoamOnMetal = drains === "foam" && tank.material !== "plastic" && tank.material !== "rubber";
      if (drains === undefined || drains === "unseen" || (drains !== "holdsWater" && !isFoamOnMetal))
        return [];
      return [onTank({ grade: "watch", tank, values: { drains } })];
    }),
});
