/** Practice 14: two tanks open to one feed without a check valve between: levels or air cross over. Common practice. */

import type { SolvedLineUp } from "../../hydraulics/solve";
import { Way } from "../../solver/newton";
import { rule } from "../rule";

/** Outlets that meet through ways open both ways, tanks themselves apart. */
function joinedOutlets(solved: SolvedLineUp): { tank: string; name: string; flowM3S: number }[][] {
  const { topology, links } = solved.network;
  const group = new Int32Array(topology.unknowns).fill(-1);
  const groups: { tank: string; name: string; flowM3S: number }[][] = [];
  links.forEach((start, s) => {
    if (start.kind !== "tankPort" || start.port.role !== "outlet" || solved.settings.laws.way[s] !== Way.open)
      return;
    const outlet = { tank: start.tank.id, name: start.tank.name, flowM3S: -(solved.flow[s] as number) };
    const known = group[start.from] as number;
    if (known >= 0) {
      groups[known]?.push(outlet);
      return;
    }
    const index = groups.push([outlet]) - 1;
    group[start.from] = index;
    const queue = [start.from];
    for (let node = queue.pop(); node !== undefined; node = queue.pop()) {
      links.forEach((link, i) => {
        if (
          link.kind === "tankPort" ||
          solved.settings.laws.way[i] !== Way.open ||
          (link.from !== node && link.to !== node)
        )
          return;
        const next = link.from === node ? link.to : link.from;
        if (group[next] === -1) {
          group[next] = index;
          queue.push(next);
        }
      });
    }
  });
  return groups.filter((outlets) => new Set(outlets.map(({ tank }) => tank)).size > 1);
}

export const feedsJoined = rule({
  id: "feedsJoined",
  practice: [14],
  place: "layout",
  judge: ({ verdicts }) =>
    verdicts.flatMap(({ lineUp, result }) => {
      if (result.outcome !== "solved" || lineUp.intendedTransfer) return [];
      return joinedOutlets(result).map((outlets) => {
        const crossM3S = Math.max(0, ...outlets.map(({ flowM3S }) => -flowM3S));
        return {
          grade: "mend" as const,
          ids: outlets.map(({ tank }) => tank),
          lineUpIds: [lineUp.id],
          basis: "common" as const,
          values: { lineUp: lineUp.name, tanks: outlets.map(({ name }) => name).join(", "), crossM3S },
          figure: crossM3S,
        };
      });
    }),
});
