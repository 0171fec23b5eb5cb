/**
 * Practice, bleeding: whatever is opened and run, a line-up cannot be bled from dry to under a thousandth of air. Found by
 * trying (air/procedure.ts), which says why.
 */
import { rule } from "../rule";

export const bleedLeavesAir = rule({
  id: "bleedLeavesAir",
  practice: [],
  place: "bleed",
  judge: ({ plan, bleeds, network }) =>
    bleeds.flatMap(({ lineUpId, left, isBled, whyNot }) => {
      const lineUp = plan.lineUps.find(({ id }) => id === lineUpId);
      const [why] = whyNot;
      if (!lineUp || !why || isBled) return [];
      const at = "at" in why ? why.at : null;
      const isThere = at !== null && (network.linkOf.has(at) || plan.parts.some(({ id }) => id === at));
      return [
        {
          grade: "mend" as const,
          ids: isThere ? [at] : [],
          lineUpIds: [lineUp.id],
          about: lineUp.id,
          basis: "common" as const,
          values: { ...why, lineUp: lineUp.name, left, at },
          figure: left,
        },
      ];
    }),
});
