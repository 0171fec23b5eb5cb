/**
 * A jar from a tank that shows growth or an emulsion stops every line-up that feeds from it; free water is to be taken
 * out before it is drawn; haze is watched until it has been looked at again. Each has its own cure. Common practice.
 */
import { entriesOf } from "../../book/entries";
import { type JarSign, jarSigns } from "../../care/jar";
import { schoolOf } from "../../plan/types";
import { type Grade, rule } from "../rule";

const grades: Readonly<Record<JarSign, Grade>> = {
  growth: "stop",
  emulsion: "stop",
  water: "mend",
  haze: "watch",
};

export const fuelFouled = rule({
  id: "fuelFouled",
  practice: [],
  place: "care",
  judge: ({ job, book, verdicts }) =>
    job.tanks.flatMap((tank) => {
      const sample = entriesOf(book, "sample").findLast(({ tankId }) => tankId === tank.id);
      const feeding = verdicts.filter(
        ({ lineUp, way }) => lineUp.purpose === "run" && way?.consumer && way.stations[0]?.id === tank.id,
      );
      const lineUpIds = [...new Set(feeding.map(({ lineUp }) => lineUp.id))];
      return (sample ? jarSigns(sample) : []).map((sign) => ({
        grade: grades[sign],
        ids: [tank.id],
        lineUpIds,
        about: sign,
        basis: "common" as const,
        school: `dirtyTank:${schoolOf(job.schools, "dirtyTank")}`,
        values: { tank: tank.name, sign, count: lineUpIds.length },
        figure: null,
      }));
    }),
});
