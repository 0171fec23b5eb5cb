/** Practice 36: lines without a mark beside others that have one. Common practice. */
import { onPart } from "./onPart";
import type { Rule } from "./types";

export const linesUnmarked: Rule = ({ plan }) => {
  const unmarked = plan.runs.filter(({ mark }) => !mark);
  if (unmarked.length === 0 || unmarked.length === plan.runs.length) return [];
  return [
    onPart({
      rule: "linesUnmarked",
      grade: "watch",
      part: plan,
      also: unmarked.map(({ id }) => id),
      values: { count: unmarked.length, of: plan.runs.length },
      figure: unmarked.length,
    }),
  ];
};
