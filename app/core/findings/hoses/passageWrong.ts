/**
 * Practice 19, 30, 54: a hole that cannot be cut as it is drawn, that nobody has looked behind, or whose edge or sleeve is
 * wrong. Common practice.
 */
import { passageHoles, sawsOf } from "../../boards/passages";
import { rule } from "../rule";

export const passageWrong = rule({
  id: "passageWrong",
  practice: [19, 30, 54],
  place: "fit",
  judge: ({ job, plan }) =>
    passageHoles(plan, sawsOf(job.units)).flatMap(({ passage, faults, saw }) =>
      faults.map((code) => ({
        grade: code === "sleeveLong" || code === "sleeveShort" ? ("watch" as const) : ("mend" as const),
        ids: [passage.id],
        about: code,
        lineUpIds: [],
        basis: "common" as const,
        values: {
          passage: passage.name,
          code,
          behind: passage.behind ?? "free",
          needM: saw.needM,
          wallM: passage.wallM,
          sleeveM: passage.sleeveM ?? 0,
        },
        figure: null,
      })),
    ),
});
