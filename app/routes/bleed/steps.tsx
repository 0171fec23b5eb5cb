import { type BleedStep, bleedLineUp } from "~/core/air/bleed";
import type { LineUpVerdict } from "~/core/hydraulics/worst";
import type { Plan } from "~/core/plan/types";
import { useTrade } from "~/state/job";

export const stepsOf = (plan: Plan, verdict: LineUpVerdict | null): BleedStep[] =>
  verdict?.way && verdict.result.outcome === "solved" ? bleedLineUp(plan, verdict.result, verdict.way) : [];

/** What must be known at this joint before it is opened. */
export function BleedNote({ step }: { step: BleedStep }) {
  const { length } = useTrade();
  const { isHigh, overFuelM } = step;
  return (
    <>
      {isHigh && "High point: air gathers here. "}
      {overFuelM !== null && overFuelM > 0 && (
        <>
          {length(overFuelM)} over the fuel: nothing runs here by itself, and with the pump on it draws air
          in. Fill by hand or prime to here.
        </>
      )}
    </>
  );
}
