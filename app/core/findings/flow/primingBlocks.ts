/** Practice 16: an electric priming pump that is off in a running line-up and lets nothing past: it needs a bypass. Maker's or common practice. */
import { onPart } from "../onPart";
import { rule } from "../rule";

export const primingBlocks = rule({
  id: "primingBlocks",
  practice: [16],
  place: "layout",
  judge: ({ plan, network }) =>
    plan.parts.flatMap((part) => {
      if (part.kind !== "primingPump" || part.off.kind !== "blocked") return [];
      const lineUpIds = plan.lineUps
        .filter(
          ({ pumps, consumers }) =>
            pumps[part.id] !== "on" &&
            network.engines.some(({ part: one }) => consumers[one.id] === "running"),
        )
        .map(({ id }) => id);
      if (lineUpIds.length === 0) return [];
      return [onPart({ grade: "mend", part, lineUpIds, values: {} })];
    }),
});
