/** Practice 29: supports of a run further apart than the school allows: 18 in, or 36 in where straight and light. Common practice, and ABYC kind (from memory). */
import { supportMostM } from "../../parts/clips";
import { portKey } from "../../plan/ports";
import { schoolOf } from "../../plan/types";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const supportWide = rule({
  id: "supportWide",
  practice: [29],
  place: "layout",
  judge: ({ job, plan, network }) =>
    plan.runs.flatMap((run) => {
      const school = schoolOf(job.schools, "support");
      const limitM = supportMostM[school];
      if (run.supportEveryM === undefined || !(run.supportEveryM > limitM)) return [];
      const name = network.ports.get(portKey(run.from))?.ownerName ?? run.id;
      return [
        onPart({
          grade: "mend",
          part: { id: run.id, name },
          school: `support:${school}`,
          values: { everyM: run.supportEveryM, limitM },
          figure: run.supportEveryM,
        }),
      ];
    }),
});
