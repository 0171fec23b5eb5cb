/** Practice 10: return mouth within 300 mm of a pickup, or in the same baffle box. Common practice. */

import type { Position } from "../../kinds/record";
import { distanceM } from "../../plan/ports";
import type { Tank } from "../../plan/types";
import { onTank } from "../onTank";
import { rule } from "../rule";

const LEAST_APART_M = 0.3;

/** No baffle stands between the two. */
const sameBox = ({ baffles = [] }: Tank, a: Position, b: Position): boolean =>
  baffles.every(({ across, atM }) => {
    const [first, second] = across === "x" ? [a.xM, b.xM] : [a.yM, b.yM];
    return first < atM === second < atM;
  });

export const returnNearPickup = rule({
  id: "returnNearPickup",
  practice: [10],
  place: "survey",
  judge: ({ job }) =>
    job.tanks.flatMap((tank) => {
      const returns = tank.ports.filter(({ role }) => role === "return");
      const outlets = tank.ports.filter(({ role }) => role === "outlet");
      const pairs = returns.flatMap((back) =>
        outlets.map((out) => ({
          apartM: distanceM(back.mouth, out.mouth),
          isBoxed: !!tank.baffles?.length && sameBox(tank, back.mouth, out.mouth),
        })),
      );
      const apartM = Math.min(...pairs.map((pair) => pair.apartM));
      const isBoxed = pairs.some((pair) => pair.isBoxed);
      if (!(apartM < LEAST_APART_M) && !isBoxed) return [];
      return [
        onTank({
          grade: "mend",
          tank,
          school: "awayFromPickup",
          values: { apartM, leastM: LEAST_APART_M, boxed: isBoxed ? 1 : 0 },
          figure: -apartM,
        }),
      ];
    }),
});
