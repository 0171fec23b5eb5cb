/** Practice 22: nothing reaches the lowest point at trim: what lies there can only be found by opening the tank. Common practice. */
import { envelopeOf } from "../../plan/envelope";
import { heightsOf, underMouthsM3 } from "../../tanks/tank";
import { onTank } from "../onTank";
import { rule } from "../rule";

/** A mouth this near the floor takes up what lies there. Common practice, no source. */
const REACHES_M = 0.01;

export const noStripping = rule({
  id: "noStripping",
  practice: [22],
  place: "survey",
  judge: ({ job }) =>
    job.tanks.flatMap((tank) => {
      // Judged only where the tank's opening was surveyed: what is not known is not missing.
      if (!tank.opening || tank.sump || tank.opening.holes.some(({ use }) => use === "sampling")) return [];
      const { lowM } = heightsOf(tank);
      const lowest = Math.min(
        ...tank.ports.filter(({ role }) => role === "outlet").map(({ mouth }) => mouth.zM),
      );
      if (!(lowest - lowM > REACHES_M)) return [];
      const hiddenM3 = underMouthsM3(tank);
      const { pitchDeg, rollDeg } = envelopeOf(job);
      return [
        onTank({
          grade: "watch",
          tank,
          values: { hiddenM3, pitchDeg, rollDeg },
          figure: hiddenM3,
        }),
      ];
    }),
});
