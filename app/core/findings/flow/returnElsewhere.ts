/** Practice 1: fuel of a running line-up ends in another tank than it came from. Common practice. */
import { tankFlows } from "../../hydraulics/derive";
import { NO_FLOW_M3S } from "../../hydraulics/starving";
import { lowestUsableM3 } from "../../hydraulics/worst";
import { capacityM3 } from "../../tanks/tank";
import { rule } from "../rule";

const HOUR_S = 3600;

export const returnElsewhere = rule({
  id: "returnElsewhere",
  practice: [1],
  place: "layout",
  judge: ({ job, verdicts }) =>
    verdicts.flatMap(({ lineUp, result }) => {
      if (result.outcome !== "solved" || lineUp.intendedTransfer) return [];
      const flows = tankFlows(result);
      const receiving = job.tanks.filter(({ id }) => (flows.get(id) ?? 0) < -NO_FLOW_M3S);
      const feeding = job.tanks.filter(({ id }) => (flows.get(id) ?? 0) > NO_FLOW_M3S);
      const lowest = lowestUsableM3(job);
      return receiving.flatMap((to) =>
        feeding.slice(0, 1).map((from) => {
          const { aboardM3 } = result.settings.conditions;
          const inM3S = -(flows.get(to.id) ?? 0);
          const outM3S = flows.get(from.id) ?? 0;
          const fullHours = (capacityM3(to) - (aboardM3[to.id] ?? 0)) / inM3S / HOUR_S;
          const emptyHours = Math.max(0, (aboardM3[from.id] ?? 0) - (lowest[from.id] ?? 0)) / outM3S / HOUR_S;
          return {
            grade: "stop" as const,
            ids: [to.id, from.id],
            lineUpIds: [lineUp.id],
            basis: "common" as const,
            values: {
              lineUp: lineUp.name,
              to: to.name,
              from: from.name,
              fullHours,
              emptyHours,
              flowM3S: inM3S,
            },
            figure: -Math.min(fullHours, emptyHours),
          };
        }),
      );
    }),
});
