/**
 * An element that takes more than a quarter of an hour to change, or spills, where its filter hangs: with what costs the
 * time. Predetermined seconds a step, common practice.
 */
import { GOOD_CHANGE_S } from "../../service/elementChange";
import { planChanges } from "../../service/planChanges";
import { judgedBoards } from "../hoses/boardClash";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const changeSlow = rule({
  id: "changeSlow",
  practice: [],
  place: "fit",
  judge: (context) =>
    judgedBoards(context).length === 0
      ? []
      : planChanges(context.solver, context.plan.conditions, judgedBoards(context), context.job.kind).flatMap(
          ({ part, change, board }) => {
            // Where it hangs on nothing nobody knows what is round it.
            if (board === null || (change.seconds <= GOOD_CHANGE_S && change.spilledM3 === 0)) return [];
            const dearest = [...change.steps].sort((a, b) => b.seconds - a.seconds)[0];
            if (!dearest) return [];
            return [
              onPart({
                grade: "watch",
                part,
                values: {
                  board,
                  seconds: change.seconds,
                  spilledM3: change.spilledM3,
                  dearest: dearest.id,
                  dearestS: dearest.seconds,
                  code: change.spilledM3 > 0 ? ("spills" as const) : ("slow" as const),
                },
                figure: change.seconds,
              }),
            ];
          },
        ),
});
