/** Practice 51: which way fuel goes through a part was guessed. Common practice. */
import { onPart } from "../onPart";
import { rule } from "../rule";

export const flowGuessed = rule({
  id: "flowGuessed",
  practice: [51],
  place: "layout",
  judge: ({ plan }) =>
    plan.parts
      .filter(({ flowBasis }) => flowBasis === "guess")
      .map((part) => onPart({ grade: "watch", part, values: {} })),
});
