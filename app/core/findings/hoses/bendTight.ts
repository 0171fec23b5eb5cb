/**
 * Practice 28: a traced run bent tighter than its hose bears: by its own radius, or by legs that have no room for it.
 * Maker's radius of the hose, to the inside of the bend.
 */
import { lyingRuns } from "../../plan/lying";
import { fittingRadiusM } from "../../plan/route";
import { onPart } from "../onPart";
import { rule } from "../rule";

/** Radii that differ by less are the same. */
const SAME_RADIUS_M = 1e-6;

export const bendTight = rule({
  id: "bendTight",
  practice: [28],
  place: "layout",
  judge: ({ job, plan }) =>
    lyingRuns(job, plan).flatMap(({ run, from, to }) => {
      const { route, product } = run;
      if (route.kind !== "traced" || route.points.length === 0) return [];
      const fitsM = fittingRadiusM([from.position, ...route.points, to.position]);
      const centreM = Math.min(route.radiusM, fitsM);
      const insideM = Math.max(0, centreM - product.outerDiameterM / 2);
      if (!(insideM < product.leastRadiusM - SAME_RADIUS_M)) return [];
      return [
        onPart({
          grade: "mend",
          part: { id: run.id, name: from.ownerName },
          basis: "maker",
          values: {
            radiusM: insideM,
            leastM: product.leastRadiusM,
            code: fitsM < route.radiusM ? "legs" : "radius",
          },
          figure: product.leastRadiusM / Math.max(1e-6, insideM),
        }),
      ];
    }),
});
