/**
 * Practice 16: an electric priming pump that is off in a running line-up, lets nothing past, and has nothing open beside
 * it: it needs a bypass. Maker's or common practice.
 */

import { hasCrossover } from "../../plan/crossover";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const primingBlocks = rule({
  id: "primingBlocks",
  practice: [16],
  place: "layout",
  judge: ({ plan, network }) =>
    plan.parts.flatMap((part) => {
      if (part.kind !== "primingPump" || part.off.kind !== "blocked") return [];
      const lineUpIds = plan.lineUps
        .filter(
          (lineUp) =>
            lineUp.pumps[part.id] !== "on" &&
            network.engines.some(({ part: one }) => lineUp.consumers[one.id] === "running") &&
            !hasCrossover(plan, part.id, lineUp),
        )
        .map(({ id }) => id);
      if (lineUpIds.length === 0) return [];
      return [onPart({ grade: "mend", part, lineUpIds, values: {} })];
    }),
});
