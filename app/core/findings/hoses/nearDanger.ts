/** Practice 30: a run nearer to what is hot, moving, sharp or rubs than it may be, unguarded. Common practice. */
import { lyingRuns } from "../../plan/lying";
import type { Neighbour } from "../../plan/types";
import { onPart } from "../onPart";
import { rule } from "../rule";

/** Least distance, m. */
export const leastApartM: Readonly<Record<Neighbour["kind"], number>> = {
  hot: 0.1,
  moving: 0.05,
  sharp: 0.006,
  line: 0.006,
  battery: 0.1,
};

export const nearDanger = rule({
  id: "nearDanger",
  practice: [30],
  place: "layout",
  judge: ({ job, plan }) =>
    lyingRuns(job, plan).flatMap(({ run, from }) =>
      (run.neighbours ?? []).flatMap((neighbour) => {
        const leastM = leastApartM[neighbour.kind];
        if (neighbour.guarded || !(neighbour.apartM < leastM)) return [];
        return [
          onPart({
            grade: "mend",
            part: { id: run.id, name: from.ownerName },
            also: [neighbour.id],
            values: {
              kind: neighbour.kind,
              near: neighbour.name,
              apartM: neighbour.apartM,
              leastM,
              atM: neighbour.atM,
            },
            figure: leastM - neighbour.apartM,
          }),
        ];
      }),
    ),
});
