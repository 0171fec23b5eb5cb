/**
 * Practice 17: an electric pump that draws from a sump or a hole low in the tank with no filter or strainer before it.
 * What screens the factory's pickup had went with it: chips of the cut and dirt go through the pump first. Common practice.
 */
import { isFiltering } from "../../kinds/families";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const pumpUnscreened = rule({
  id: "pumpUnscreened",
  practice: [17],
  place: "layout",
  judge: ({ job, plan, verdicts }) =>
    verdicts.flatMap(({ lineUp, way }) => {
      const feed = way?.consumer ? way.stations.filter(({ side }) => side === "feed") : [];
      const parts = feed.flatMap(({ id }) => plan.parts.find((part) => part.id === id) ?? []);
      const at = parts.findIndex(({ kind }) => kind === "liftPump");
      const pump = parts[at];
      const tank = job.tanks.find(({ id }) => id === feed[0]?.id);
      const outlet = tank?.ports.find(({ id }) => `${tank.id}.${id}` === feed[0]?.linkId);
      const isLow = outlet?.fitting === "sump" || outlet?.fitting === "side";
      if (!pump || !isLow) return [];
      if (parts.slice(0, at).some((part) => isFiltering(part) || part.kind === "strainer")) return [];
      return [
        onPart({ grade: "mend", part: pump, lineUpIds: [lineUp.id], values: { tank: tank?.name ?? "" } }),
      ];
    }),
});
