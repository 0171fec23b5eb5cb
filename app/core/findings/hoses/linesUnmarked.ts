/** Practice 36: lines without a mark beside others that have one. Common practice. */
import { onPart } from "../onPart";
import { rule } from "../rule";

export const linesUnmarked = rule({
  id: "linesUnmarked",
  practice: [36],
  place: "layout",
  judge: ({ plan }) => {
    const unmarked = plan.runs.filter(({ mark }) => !mark);
    if (unmarked.length === 0 || unmarked.length === plan.runs.length) return [];
    return [
      onPart({
        grade: "watch",
        part: plan,
        also: unmarked.map(({ id }) => id),
        values: { count: unmarked.length, of: plan.runs.length },
        figure: unmarked.length,
      }),
    ];
  },
});
