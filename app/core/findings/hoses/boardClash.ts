/** A board as it hangs: what clashes, what cannot be reached, what keeps its lid from closing. Sizes as measured, else generic by kind. */
import { boardsJudged } from "../../boards/board";
import { type FindingContext, oncePerContext, rule } from "../rule";

/** Boards are judged once for all their rules. */
export const judgedBoards = oncePerContext(({ job, plan }: FindingContext) => boardsJudged(job, plan));

export const boardClash = rule({
  id: "boardClash",
  practice: [],
  place: "fit",
  judge: (context) => {
    const name = new Map(context.plan.parts.map((part) => [part.id, part.name]));
    return judgedBoards(context).flatMap(({ clashes, apart, tooDeep, layout: { board } }) => {
      const other = (id: string | null) =>
        id === null ? "" : (name.get(id) ?? board.obstacles.find((one) => one.id === id)?.name ?? id);
      const found = (
        code: "bodies" | "serviceBlocked" | "outOfReach" | "offBoard" | "apart" | "lid",
        a: string,
        b: string,
        byM: number,
      ) => ({
        grade: "mend" as const,
        ids: [a],
        about: `${code} ${b}`,
        lineUpIds: [],
        basis: "common" as const,
        values: { board: board.name, code, part: name.get(a) ?? a, other: b, byM },
        figure: byM,
      });
      return [
        ...clashes.map(({ code, a, b, by }) =>
          found(code, a, code === "outOfReach" ? (b ?? "") : other(b), by),
        ),
        ...apart.map(({ a, b, byM }) => found("apart", a, other(b), byM)),
        ...tooDeep.map(({ id, byM }) => found("lid", id, "", byM)),
      ];
    });
  },
});
