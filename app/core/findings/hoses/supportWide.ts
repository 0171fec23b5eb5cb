/** Practice 29: supports of a run further apart than the school allows: 18 in, or 36 in where straight and light. Common practice, and ABYC kind (from memory). */
import { supportMostM } from "../../parts/clips";
import { lyingRuns } from "../../plan/lying";
import { schoolOf } from "../../plan/types";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const supportWide = rule({
  id: "supportWide",
  practice: [29],
  place: "layout",
  judge: ({ job, plan }) =>
    lyingRuns(job, plan).flatMap(({ run, from }) => {
      const school = schoolOf(job.schools, "support");
      const limitM = supportMostM[school];
      if (run.supportEveryM === undefined || !(run.supportEveryM > limitM)) return [];
      return [
        onPart({
          grade: "mend",
          part: { id: run.id, name: from.ownerName },
          school: `support:${school}`,
          values: { everyM: run.supportEveryM, limitM },
          figure: run.supportEveryM,
        }),
      ];
    }),
});
