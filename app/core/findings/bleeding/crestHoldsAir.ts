/**
 * Practice, bleeding: a hose of the feed climbs over a crest of its own, with no joint there to open, and what flows does
 * not carry air down the other side (P. E. Wisner and others 1975, laws/bubbles.ts). Air that gathers there stays.
 */
import { clearingMS, FUEL_TENSION_N_M } from "../../laws/bubbles";
import { areaM2 } from "../../units/bore";
import { rule } from "../rule";

/** A crest lower than this holds no more than a bubble. Common practice, no source. */
const LEAST_CREST_M = 0.03;

export const crestHoldsAir = rule({
  id: "crestHoldsAir",
  practice: [9],
  place: "layout",
  judge: ({ network, verdicts }) =>
    network.sorted.humped.flatMap(({ index, link }) => {
      const { profile } = link.geometry;
      const stuck = verdicts.flatMap(({ lineUp, way, result }) => {
        if (lineUp.purpose !== "run" || result.outcome !== "solved") return [];
        const isFed = way?.legs.some(({ id, side }) => id === link.id && side === "feed");
        const flowM3S = result.flow[index] as number;
        if (!isFed || flowM3S === 0) return [];
        const points = flowM3S > 0 ? profile : [...profile].reverse();
        return points.flatMap(({ zM, atM }, i) => {
          const [before, after] = [points[i - 1], points[i + 1]];
          if (!before || !after || zM - before.zM < LEAST_CREST_M || zM - after.zM < LEAST_CREST_M) return [];
          const slope = Math.asin(Math.min(1, (zM - after.zM) / Math.max(1e-6, Math.abs(after.atM - atM))));
          const density = result.settings.fuel.densityKgM3;
          const needsMS = clearingMS(link.run.boreM, slope, density, FUEL_TENSION_N_M);
          const hadMS = Math.abs(flowM3S) / areaM2(link.run.boreM);
          return hadMS < needsMS
            ? [{ id: lineUp.id, byM: zM - Math.max(before.zM, after.zM), hadMS, needsMS }]
            : [];
        });
      });
      const worst = stuck.reduce<(typeof stuck)[number] | null>(
        (most, one) => (most && most.hadMS <= one.hadMS ? most : one),
        null,
      );
      if (!worst) return [];
      const { byM, hadMS, needsMS } = worst;
      return [
        {
          grade: "watch" as const,
          ids: [link.id],
          lineUpIds: [...new Set(stuck.map(({ id }) => id))],
          basis: "standard" as const,
          values: { byM, hadMS, needsMS },
          figure: needsMS / hadMS,
        },
      ];
    }),
});
