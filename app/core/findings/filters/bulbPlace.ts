/**
 * Practice 15: a primer bulb stands between tank and filter, its arrow to the engine. A diesel supply has an electric
 * pump with a bypass or a lever instead, or a bulb that is rated for diesel. Common practice.
 */
import { isPetrol } from "../../fuel/grades";
import { isFiltering } from "../../kinds/families";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const bulbPlace = rule({
  id: "bulbPlace",
  practice: [15],
  place: "layout",
  judge: ({ job, plan, verdicts }) =>
    plan.parts.flatMap((part) => {
      if (part.kind !== "bulb") return [];
      const onPetrol = isPetrol(job.fuel);
      if (!onPetrol && !part.forDiesel)
        return [onPart({ grade: "watch", part, values: { code: "notForDiesel" } })];
      const filters = new Set(plan.parts.filter(isFiltering).map(({ id }) => id));
      const late = verdicts.filter(({ way }) => {
        const feed = way?.stations.filter(({ side }) => side === "feed") ?? [];
        const filter = feed.findIndex(({ id }) => filters.has(id));
        const at = feed.findIndex(({ id }) => id === part.id);
        return at >= 0 && filter >= 0 && filter < at;
      });
      if (late.length === 0) return [];
      const lineUpIds = late.map(({ lineUp }) => lineUp.id);
      return [onPart({ grade: "watch", part, lineUpIds, values: { code: "afterFilter" } })];
    }),
});
