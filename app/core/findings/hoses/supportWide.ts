/** Practice 29: supports of a run further apart than the school allows: 450 mm, or 900 mm where straight and light. Common practice, and ABYC kind (from memory). */
import { portKey } from "../../plan/ports";
import { schoolOf } from "../../plan/types";
import { onPart } from "../onPart";
import { rule } from "../rule";

const mostM = { close: 0.45, wide: 0.9 } as const;

export const supportWide = rule({
  id: "supportWide",
  practice: [29],
  place: "layout",
  judge: ({ job, plan, network }) =>
    plan.runs.flatMap((run) => {
      const school = schoolOf(job.schools, "support");
      const limitM = mostM[school];
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
