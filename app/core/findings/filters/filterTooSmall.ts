/** Practice 7: rated flow of a filter below the feed (not the burn) that passes it. Maker's figure where given, else common practice. */
import { ratedForM3S } from "../../kinds/filtering";
import { rule } from "../rule";

export const filterTooSmall = rule({
  id: "filterTooSmall",
  practice: [7],
  place: "layout",
  judge: ({ verdicts }) =>
    verdicts.flatMap(({ lineUp, result }) => {
      if (result.outcome !== "solved") return [];
      return result.network.links.flatMap((link, i) => {
        if (link.kind !== "filter") return [];
        const flowM3S = Math.abs(result.flow[i] as number);
        const { id, name, given } = link.part;
        const ratedFlowM3S = ratedForM3S(link.part);
        if (!(flowM3S > ratedFlowM3S)) return [];
        return [
          {
            grade: "mend" as const,
            ids: [id],
            lineUpIds: [lineUp.id],
            basis: given?.ratedFlowM3S?.basis === "maker" ? ("maker" as const) : ("common" as const),
            values: { filter: name, flowM3S, ratedFlowM3S },
            figure: flowM3S / ratedFlowM3S,
          },
        ];
      });
    }),
});
