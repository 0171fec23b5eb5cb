/** Practice 27: a hose found with no marking, of the wrong class for its place, too old, or bad to the hand. Marking P, age C. */
import { judgeHose } from "../../hose/survey";
import { hosesOf } from "../../plan/lying";
import { rule } from "../rule";

export const hoseFound = rule({
  id: "hoseFound",
  practice: [27],
  place: "survey",
  judge: ({ job, plan, now }) =>
    hosesOf(plan).flatMap((run) => {
      if (!run.survey) return [];
      const { verdict, reasons, years } = judgeHose(run.survey, run.boreM, job.fuel, now);
      if (verdict === "keep") return [];
      const isPublished = reasons.some(({ code }) =>
        ["noMarking", "noStandard", "notFireTested", "notLowPermeation"].includes(code),
      );
      return [
        {
          grade: verdict === "replace" ? "mend" : "watch",
          ids: [run.id],
          lineUpIds: [],
          basis: isPublished ? "standard" : "common",
          values: {
            codes: reasons.map(({ code }) => code).join(" "),
            years,
            feel: run.survey.feel,
            printed: run.survey.printed,
          },
          figure: years,
        },
      ];
    }),
});
