/** Practice 28: a traced run bent tighter than its hose bears. Maker's radius of the hose. */
import { portKey } from "../../plan/ports";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const bendTight = rule({
  id: "bendTight",
  practice: [28],
  place: "layout",
  judge: ({ plan, network }) =>
    plan.runs.flatMap((run) => {
      const { route, product } = run;
      if (route.kind !== "traced" || route.points.length === 0 || !(route.radiusM < product.leastRadiusM))
        return [];
      const name = network.ports.get(portKey(run.from))?.ownerName ?? run.id;
      return [
        onPart({
          grade: "mend",
          part: { id: run.id, name },
          basis: "maker",
          values: { radiusM: route.radiusM, leastM: product.leastRadiusM },
          figure: product.leastRadiusM / Math.max(1e-6, route.radiusM),
        }),
      ];
    }),
});
