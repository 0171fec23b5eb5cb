/**
 * A jar from a tank that shows growth or an emulsion stops every line-up that feeds from it; haze is watched until it
 * has been looked at again. Common practice.
 */
import { entriesOf } from "../../book/entries";
import { judgeJar } from "../../care/jar";
import { schoolOf } from "../../plan/types";
import { rule } from "../rule";

export const fuelFouled = rule({
  id: "fuelFouled",
  practice: [],
  place: "care",
  judge: ({ job, book, verdicts }) =>
    job.tanks.flatMap((tank) => {
      const sample = entriesOf(book, "sample").findLast(({ tankId }) => tankId === tank.id);
      const verdict = sample && judgeJar(sample);
      if (verdict !== "growth" && verdict !== "emulsion" && verdict !== "waitAndLook") return [];
      const feeding = verdicts.filter(
        ({ lineUp, way }) => lineUp.purpose === "run" && way?.consumer && way.stations[0]?.id === tank.id,
      );
      const lineUpIds = [...new Set(feeding.map(({ lineUp }) => lineUp.id))];
      return [
        {
          grade: verdict === "waitAndLook" ? ("watch" as const) : ("stop" as const),
          ids: [tank.id],
          lineUpIds,
          basis: "common" as const,
          school: `dirtyTank:${schoolOf(job.schools, "dirtyTank")}`,
          values: { tank: tank.name, verdict, count: lineUpIds.length },
          figure: null,
        },
      ];
    }),
});
