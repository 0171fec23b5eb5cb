/** Practice 40: a heater in a space without a carbon-monoxide alarm. Common practice. */
import { onPart } from "./onPart";
import type { Rule } from "./types";

export const noCoAlarm: Rule = ({ job }) =>
  job.consumers.flatMap((part) =>
    part.kind === "heater" && part.heater && !part.heater.hasCoAlarm
      ? [onPart({ rule: "noCoAlarm", grade: "stop", part })]
      : [],
  );
