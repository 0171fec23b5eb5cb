/**
 * Practice 17: coarse before fine along the flow, the finest where the school has it: after the pump by default,
 * before it, or all media after it. Common practice, divided.
 */
import { type Filtering, isFiltering } from "../../kinds/families";
import { finestMicron } from "../../kinds/filtering";
import { schoolOf } from "../../plan/types";
import { onPart } from "../onPart";
import { rule } from "../rule";

/** Media this fine count as final. Common practice, no source. */
const FINE_MICRON = 5;

type Staging = "coarseAfterFine" | "fineBeforePump" | "fineAfterPump" | "anyBeforePump";

export const filterStaging = rule({
  id: "filterStaging",
  practice: [17],
  place: "layout",
  judge: ({ job, plan, verdicts }) =>
    verdicts.flatMap(({ lineUp, way }) => {
      const stood = new Set(job.plans.find(({ id }) => id === plan.basedOn)?.parts.map(({ id }) => id));
      const keepsFactory = schoolOf(job.schools, "factoryFilter") === "kept";
      if (!way?.consumer || lineUp.purpose !== "run") return [];
      const school = schoolOf(job.schools, "finest");
      const feed = way.stations.filter(({ side }) => side === "feed");
      const pumpAt = feed.findIndex(({ id }) => id === way.firstPumpId);
      const parts = new Map<string, Filtering>(plan.parts.filter(isFiltering).map((part) => [part.id, part]));
      const filters = feed.flatMap(({ id }, at) => {
        const part = parts.get(id);
        return part ? [{ part, at }] : [];
      });
      const found = (part: Filtering, code: Staging, other = "") =>
        onPart({
          grade: "watch",
          part,
          lineUpIds: [lineUp.id],
          school: `finest:${school}`,
          values: { code, micron: part.micron, other },
        });
      return filters.flatMap(({ part, at }, i) => {
        const before = filters[i - 1];
        // The factory's own filter, kept as the last: coarser than what was put before it, and no fault.
        const isKept = keepsFactory && i === filters.length - 1 && stood.has(part.id);
        if (before && !isKept && finestMicron(before.part) < part.micron)
          return [found(part, "coarseAfterFine", before.part.name)];
        if (pumpAt < 0) return [];
        const isFine = finestMicron(part) <= FINE_MICRON;
        if (school === "afterPump" && isFine && at < pumpAt) return [found(part, "fineBeforePump")];
        if (
          school === "beforePump" &&
          isFine &&
          at > pumpAt &&
          !filters.some((f) => f.at < pumpAt && finestMicron(f.part) <= FINE_MICRON)
        )
          return [found(part, "fineAfterPump")];
        if (school === "allAfterPump" && at < pumpAt) return [found(part, "anyBeforePump")];
        return [];
      });
    }),
});
