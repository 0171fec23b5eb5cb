/**
 * Practice 31, 33, 52: two ends that are known and do not seal. What screws together and still leaks is told as the trap
 * it is; a Stop where nothing that is made goes between. Published standards of the ends; common practice for hoses.
 */
import { planJoints } from "../../joints/joints";
import { rule } from "../rule";

export const jointUnsealed = rule({
  id: "jointUnsealed",
  practice: [31],
  place: "parts",
  judge: ({ job, plan }) =>
    planJoints(job, plan).flatMap(({ a, b, state, joined, chain }) => {
      // What does not even meet is simply bought with its adapter.
      if (!joined || !a.end || !b.end || (state !== "screws" && state !== "none")) return [];
      return [
        {
          grade: state === "none" ? ("stop" as const) : ("mend" as const),
          ids: [a.id],
          lineUpIds: [],
          basis: "standard" as const,
          values: {
            joint: a.name,
            code: state === "none" ? ("nothing" as const) : ("screws" as const),
            ends: `${a.end.family} ${a.end.size} ${a.end.form}|${b.end.family} ${b.end.size} ${b.end.form}`,
            why: joined.why ?? "otherKind",
            parts: chain?.parts.join(" ") ?? "",
            count: chain?.count ?? 0,
          },
          figure: null,
        },
      ];
    }),
});
