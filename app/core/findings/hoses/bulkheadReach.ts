/** Practice 54: a sleeve or bulkhead fitting shorter than the floor or wall it passes, or much longer. Common practice. */
import { onPart } from "../onPart";
import { rule } from "../rule";

/** Threads to spare past the nut; more than this stands in the way. Common practice, no source. */
const MOST_OVER_M = 0.03;

export const bulkheadReach = rule({
  id: "bulkheadReach",
  practice: [54],
  place: "layout",
  judge: ({ plan }) =>
    plan.parts.flatMap((part) => {
      if (part.kind !== "bulkhead") return [];
      const overM = part.reachM - part.wallM;
      if (overM >= 0 && overM <= MOST_OVER_M) return [];
      return [
        onPart({
          grade: "watch",
          part,
          values: { wallM: part.wallM, reachM: part.reachM },
          figure: Math.abs(overM),
        }),
      ];
    }),
});
