/** Practice 45: running current over the rating of the circuit that switches it, without a relay and a fused supply of its own. Common practice. */
import { circuitOf } from "../../circuits/circuit";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const triggerOverloaded = rule({
  id: "triggerOverloaded",
  practice: [45],
  place: "prove",
  judge: ({ job, plan }) =>
    [...plan.parts, ...job.consumers].flatMap((part) => {
      const circuit = circuitOf(part);
      if (!circuit || circuit.hasRelay || circuit.triggerA === undefined || circuit.runA <= circuit.triggerA)
        return [];
      const { runA, triggerA } = circuit;
      return [
        onPart({
          grade: "mend",
          part,
          values: { runA, triggerA },
          figure: runA - triggerA,
        }),
      ];
    }),
});
