/** Practice 56: a part made in the shop that was not proof tested. Common practice. */
import { onPart } from "../onPart";
import { rule } from "../rule";

export const shopMade = rule({
  id: "shopMade",
  practice: [56],
  place: "layout",
  judge: ({ plan }) =>
    plan.parts
      .filter((part) => part.shopMade?.tested === false)
      .map((part) => onPart({ grade: "watch", part, values: {} })),
});
