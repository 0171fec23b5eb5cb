/**
 * Practice 47: pressure at a consumer's inlet outside the maker's window, at full feed or at idle, now or at the worst of
 * the site (cold, loaded, low, at slope, at full load). Without a window it is shown, not judged.
 */
import { judgeLineUp, worstFeed } from "../../hydraulics/worst";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const feedPressure = rule({
  id: "feedPressure",
  practice: [47],
  place: "prove",
  judge: ({ job, plan, solver }) =>
    job.consumers.flatMap((part) => {
      const { leastFeedPa, mostFeedPa } = part;
      if (leastFeedPa === undefined && mostFeedPa === undefined) return [];
      return plan.lineUps.flatMap((lineUp) => {
        if (lineUp.consumers[part.id] !== "running") return [];
        const at = (load: number) => {
          const { way } = judgeLineUp(
            solver,
            lineUp,
            {
              ...plan.conditions,
              load: Object.fromEntries(job.consumers.map(({ id }) => [id, load])),
            },
            part.id,
          );
          return way?.stations.find(({ id }) => id === part.id)?.beforePa ?? null;
        };
        const [full, idle] = [at(1), at(0)];
        // What holds today and not in the cold, with filters at their change, is a promise that breaks at sea.
        const worst =
          leastFeedPa !== undefined && full !== null && full >= leastFeedPa && lineUp.purpose === "run"
            ? worstFeed(solver, lineUp, part.id)
            : null;
        const found = (code: "low" | "high" | "lowAtWorst", feedPa: number, limitPa: number) =>
          onPart({
            grade: "mend",
            part,
            also: [code],
            basis: "maker",
            lineUpIds: [lineUp.id],
            values: {
              code,
              feedPa,
              limitPa,
              lineUp: lineUp.name,
              cause: code === "lowAtWorst" ? (worst?.causes[0] ?? "loaded") : null,
              second: code === "lowAtWorst" ? (worst?.causes[1] ?? "cold") : null,
            },
            figure: Math.abs(feedPa - limitPa),
          });
        return [
          ...(full !== null && leastFeedPa !== undefined && full < leastFeedPa
            ? [found("low", full, leastFeedPa)]
            : []),
          ...(worst && leastFeedPa !== undefined && worst.feedPa < leastFeedPa
            ? [found("lowAtWorst", worst.feedPa, leastFeedPa)]
            : []),
          ...(idle !== null && mostFeedPa !== undefined && idle > mostFeedPa
            ? [found("high", idle, mostFeedPa)]
            : []),
        ];
      });
    }),
});
