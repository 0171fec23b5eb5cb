/** Practice 4: a filter without its element while a line-up powers a pump through it. Common practice. */
import { isFiltering } from "../../kinds/families";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const elementMissing = rule({
  id: "elementMissing",
  practice: [4],
  place: "layout",
  judge: ({ plan }) =>
    plan.parts.filter(isFiltering).flatMap((part) => {
      const lineUpIds = plan.lineUps
        .filter(({ pumps }) => Object.values(pumps).includes("on"))
        .map(({ id }) => id);
      if (part.element || lineUpIds.length === 0) return [];
      return [onPart({ grade: "stop", part, lineUpIds, values: {} })];
    }),
});
