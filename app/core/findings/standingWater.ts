/** Practice 26: water stands under the tank, or foam holds it against metal. Common practice. */
import { onTank } from "./onTank";
import type { Rule } from "./types";

export const standingWater: Rule = ({ job }) =>
  job.tanks.flatMap((tank) => {
    const drains = tank.condition?.drains;
    const isFoamOnMetal = drains === "foam" && tank.material !== "plastic" && tank.material !== "rubber";
    if (drains !== "holdsWater" && !isFoamOnMetal) return [];
    return [onTank({ rule: "standingWater", grade: "watch", tank, values: { drains } })];
  });
