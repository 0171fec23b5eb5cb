/** Practice 28: a traced run bent tighter than its hose bears. Maker's radius of the hose. */
import { portKey } from "../plan/ports";
import { onPart } from "./onPart";
import type { Rule } from "./types";

export const bendTight: Rule = ({ plan, network }) =>
  plan.runs.flatMap((run) => {
    const { route, product } = run;
    if (route.kind !== "traced" || route.points.length === 0 || !(route.radiusM < product.leastRadiusM))
      return [];
    const name = network.ports.get(portKey(run.from))?.ownerName ?? run.id;
    return [
      onPart({
        rule: "bendTight",
        grade: "mend",
        part: { id: run.id, name },
        basis: "maker",
        values: { radiusM: route.radiusM, leastM: product.leastRadiusM },
        figure: product.leastRadiusM / Math.max(1e-6, route.radiusM),
      }),
    ];
  });
