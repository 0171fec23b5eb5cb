/** Practice 10: return mouth within 300 mm of a pickup. Common practice. */
import { distanceM } from "../plan/ports";
import type { Rule } from "./types";

const LEAST_APART_M = 0.3;

export const returnNearPickup: Rule = ({ job }) =>
  job.tanks.flatMap((tank) => {
    const returns = tank.ports.filter(({ role }) => role === "return");
    const outlets = tank.ports.filter(({ role }) => role === "outlet");
    const pairs = returns.flatMap((back) => outlets.map((out) => distanceM(back.mouth, out.mouth)));
    const apartM = Math.min(...pairs);
    if (!(apartM < LEAST_APART_M)) return [];
    return [
      {
        rule: "returnNearPickup" as const,
        grade: "mend" as const,
        ids: [tank.id],
        lineUpIds: [],
        basis: "common" as const,
        school: "awayFromPickup",
        values: { tank: tank.name, apartM, leastM: LEAST_APART_M },
        figure: -apartM,
      },
    ];
  });
