/**
 * Practice 3 and 47: a regulator in a line whose flow is given, a return say: all fuel must pass it, whatever it holds
 * back, and the pressure after it does not answer. Common practice.
 */
import { onPart } from "../onPart";
import { rule } from "../rule";

export const cannotHold = rule({
  id: "cannotHold",
  practice: [3, 47],
  place: "prove",
  judge: ({ plan, verdicts }) =>
    plan.parts.flatMap((part) => {
      const held = verdicts.filter(
        ({ result }) => result.outcome === "solved" && result.forcedIds.includes(part.id),
      );
      return part.kind === "regulator" && held.length > 0
        ? [
            onPart({
              grade: "mend",
              part,
              lineUpIds: held.map(({ lineUp }) => lineUp.id),
              values: { setPa: part.setPa },
            }),
          ]
        : [];
    }),
});
