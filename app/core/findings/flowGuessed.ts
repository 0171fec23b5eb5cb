/** Practice 51: which way fuel goes through a part was guessed. Common practice. */
import { onPart } from "./onPart";
import type { Rule } from "./types";

export const flowGuessed: Rule = ({ plan }) =>
  plan.parts
    .filter(({ flowBasis }) => flowBasis === "guess")
    .map((part) => onPart({ rule: "flowGuessed", grade: "watch", part }));
