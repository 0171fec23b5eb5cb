/** Practice 56: a part made in the shop that was not proof tested. Common practice. */
import { onPart } from "./onPart";
import type { Rule } from "./types";

export const shopMade: Rule = ({ plan }) =>
  plan.parts
    .filter((part) => part.shopMade?.tested === false)
    .map((part) => onPart({ rule: "shopMade", grade: "watch", part }));
