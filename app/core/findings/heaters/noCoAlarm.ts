/** Practice 40: a heater in a space without a carbon-monoxide alarm. Common practice. */
import { onPart } from "../onPart";
import { rule } from "../rule";

export const noCoAlarm = rule({
  id: "noCoAlarm",
  practice: [40],
  place: "layout",
  judge: ({ job }) =>
    job.consumers.flatMap((part) =>
      part.kind === "heater" && part.heater && part.heater.hasCoAlarm === false
        ? [onPart({ grade: "stop", part, values: {} })]
        : [],
    ),
});
