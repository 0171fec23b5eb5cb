/** Practice 29: supports of a run further apart than the school allows: 18 in, or 36 in where straight and light. Common practice, and ABYC kind (from memory). */
import { portKey } from "../../plan/ports";
import { schoolOf } from "../../plan/types";
import { INCH_M } from "../../units/factors";
import { onPart } from "../onPart";
import { rule } from "../rule";

/** 18 in and 36 in as published; metric tapes round them to 450 and 900 mm, which are within. */
const mostM = { close: 18 * INCH_M, wide: 36 * INCH_M } as const;

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
