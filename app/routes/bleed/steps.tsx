import { useMemo } from "react";
import { type Bleed, type BleedStep, bleedOf } from "~/core/air/bleed";
import type { Id } from "~/core/kinds/record";
import { useJob, useTrade } from "~/state/job";

/** The bleed of the chosen line-up, to the open end that is asked for. */
export function useBleed(endId?: Id): Bleed | null {
  const { solver, stored, plan } = useJob();
  return useMemo(
    () => stored && bleedOf(solver, stored, plan.conditions, endId),
    [solver, stored, plan.conditions, endId],
  );
}

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
