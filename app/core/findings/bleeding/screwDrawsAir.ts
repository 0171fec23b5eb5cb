/**
 * Practice, bleeding: a bleed screw that stands over the fuel with nothing that pushes before it. Opened, it lets air in
 * and no fuel out; it is no place to bleed from.
 */
import { isPushing } from "../../kinds/families";
import { onPart } from "../onPart";
import { rule } from "../rule";

/** A screw this far under the fuel runs by itself. */
const UNDER_M = 0.03;

export const screwDrawsAir = rule({
  id: "screwDrawsAir",
  practice: [9],
  place: "bleed",
  judge: ({ plan, verdicts }) =>
    plan.parts.flatMap((part) => {
      if (part.kind !== "bleedScrew") return [];
      const over = verdicts.flatMap(({ lineUp, way, result }) => {
        const feed = way?.stations.filter(({ side }) => side === "feed") ?? [];
        const at = feed.findIndex(({ id }) => id === part.id);
        const [tank] = feed;
        if (lineUp.purpose !== "run" || at < 0 || !tank || result.outcome !== "solved") return [];
        const before = new Set(feed.slice(0, at).map(({ id }) => id));
        const isPushed = plan.parts.some(
          (one) => before.has(one.id) && (isPushing(one) || one.kind === "bulb" || one.kind === "dosingPump"),
        );
        const surfaceM = result.settings.surfaceM.get(tank.id);
        if (isPushed || surfaceM === undefined) return [];
        const overM = (feed[at]?.zM ?? 0) - surfaceM;
        return overM > -UNDER_M ? [{ id: lineUp.id, overM }] : [];
      });
      if (over.length === 0) return [];
      const overM = Math.max(...over.map((one) => one.overM));
      return [
        onPart({
          grade: "watch",
          part,
          lineUpIds: over.map(({ id }) => id),
          values: { overFuelM: overM },
          figure: overM,
        }),
      ];
    }),
});
