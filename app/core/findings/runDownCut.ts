/** Practice 53: a heater's switch can cut its supply before its run-down ends. Common practice. */
import { onPart } from "./onPart";
import type { Rule } from "./types";

export const runDownCut: Rule = ({ job }) =>
  job.consumers.flatMap((part) =>
    part.kind === "heater" && part.heater?.switchCutsRunDown
      ? [onPart({ rule: "runDownCut", grade: "mend", part })]
      : [],
  );
