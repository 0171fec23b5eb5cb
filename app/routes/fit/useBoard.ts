/** The chosen board as it is stored or as a hand has it, and what can be done with it. */
import { useCallback, useEffect, useMemo } from "react";
import { boardJudged, boardLayout, positionAt } from "~/core/boards/board";
import type { Hung } from "~/core/fit/panel";
import type { Part } from "~/core/kinds/index";
import type { Id } from "~/core/kinds/record";
import type { Job, Plan, QuarterTurn } from "~/core/plan/types";
import { useExplored, useJob } from "~/state/job";
import { gestureOf } from "~/ui/gesture";
import { useAhead } from "~/ui/useAhead";

export function useBoard(boardId: Id) {
  const { job, plan, dispatch } = useJob();
  const { hold } = useExplored();
  // What was in the hand is let go with the place.
  useEffect(() => () => hold(null), [hold]);
  const layout = useMemo(() => boardLayout(job, plan, boardId), [job, plan, boardId]);
  const [ahead, setAhead] = useAhead<readonly Hung[]>();
  const judged = useMemo(
    () => layout && boardJudged(layout, ahead?.length === layout.at.length ? ahead : layout.at),
    [layout, ahead],
  );
  const hangAll = useCallback(
    (at: readonly Hung[], which: readonly number[], gesture?: string) => {
      if (!layout) return Promise.resolve();
      return dispatch(
        {
          name: "hang",
          boardId,
          at: which.map((i) => {
            const part = layout.parts[i] as Part;
            const one = at[i] as Hung;
            return { id: part.id, position: positionAt(layout.board, part, one), turn: one.t as QuarterTurn };
          }),
        },
        gesture,
      );
    },
    [layout, boardId, dispatch],
  );
  const move = useCallback(
    (i: number, to: Hung, isOver: boolean) => {
      if (!layout || !judged) return;
      const next = judged.at.map((one, k) => (k === i ? to : one));
      const part = layout.parts[i] as Part;
      if (!isOver) {
        setAhead(next);
        hold(movedIn(job, plan, part.id, positionAt(layout.board, part, to)));
        return;
      }
      setAhead(next, () => hangAll(next, [i], gestureOf(`hang-${part.id}`)).finally(() => hold(null)));
    },
    [layout, judged, job, plan, hold, setAhead, hangAll],
  );
  return { judged, move, hangAll };
}

/** The job with one part elsewhere, for the Keel to follow: nothing is checked and nothing kept. */
const movedIn = (job: Job, plan: Plan, id: Id, position: Part["position"]): Job => ({
  ...job,
  plans: job.plans.map((one) =>
    one === plan
      ? { ...plan, parts: plan.parts.map((part) => (part.id === id ? { ...part, position } : part)) }
      : one,
  ),
});
