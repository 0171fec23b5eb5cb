/** Practice 18: spare ports of a filter head that are not plugged. Common practice. */
import { onPart } from "./onPart";
import type { Rule } from "./types";

export const sparePorts: Rule = ({ plan }) =>
  plan.parts.flatMap((part) =>
    part.kind === "filter" && part.sparePorts && part.sparePorts.count > 0 && !part.sparePorts.plugged
      ? [onPart({ rule: "sparePorts", grade: "watch", part, values: { count: part.sparePorts.count } })]
      : [],
  );
