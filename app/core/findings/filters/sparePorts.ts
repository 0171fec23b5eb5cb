/** Practice 18: spare ports of a filter head that are not plugged. Common practice. */
import { onPart } from "../onPart";
import { rule } from "../rule";

export const sparePorts = rule({
  id: "sparePorts",
  practice: [18],
  place: "layout",
  judge: ({ plan }) =>
    plan.parts.flatMap((part) =>
      part.kind === "filter" && part.sparePorts && part.sparePorts.count > 0 && !part.sparePorts.plugged
        ? [onPart({ grade: "watch", part, values: { count: part.sparePorts.count } })]
        : [],
    ),
});
