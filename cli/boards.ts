/** A board as it hangs or as it is proposed: places, what is wrong with them, and what would let it be. */
import { boardJudged, boardLayout } from "~/core/boards/board";
import { propose, SEARCH } from "~/core/fit/arrange";
import { currentPlan } from "~/core/plan/ports";
import type { Job } from "~/core/plan/types";

/** @returns null where there is no such board */
export function boardReport(job: Job, boardId: string, isProposed: boolean) {
  const layout = boardLayout(job, currentPlan(job), boardId);
  if (!layout) return null;
  const proposed = isProposed
    ? propose(layout.task, layout.at, { ...SEARCH, seed: 1 }, () => undefined)
    : null;
  const judged = boardJudged(layout, proposed?.best.at);
  return {
    kept: judged.isLegal,
    places: layout.parts.map(({ id }, i) => {
      const { x, z, t } = judged.at[i] as (typeof judged.at)[number];
      return { id, xM: x, zM: z, turn: t };
    }),
    wrong: [
      ...judged.clashes.map(({ code, a, b, by }) => ({ code, a, b, byM: by })),
      ...judged.apart.map(({ a, b, byM }) => ({ code: "apart", a, b, byM })),
      ...judged.hoses.flatMap(({ through }, i) =>
        through.map((part) => ({
          code: "hoseThrough",
          a: layout.task.hoses[i]?.id ?? "",
          b: layout.parts[part]?.id ?? null,
          byM: null,
        })),
      ),
      ...judged.tooDeep.map(({ id, byM }) => ({ code: "tooDeep", a: id, b: null, byM })),
    ],
    why: proposed?.instead ?? null,
  };
}
