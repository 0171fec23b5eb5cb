/** Practice 53: a heater's switch can cut its supply before its run-down ends. Common practice. */
import { onPart } from "../onPart";
import { rule } from "../rule";

export const runDownCut = rule({
  id: "runDownCut",
  practice: [53],
  place: "layout",
  judge: ({ job }) =>
    job.consumers.flatMap((part) =>
      part.kind === "heater" && part.heater?.switchCutsRunDown
        ? [onPart({ grade: "mend", part, values: {} })]
        : [],
    ),
});
