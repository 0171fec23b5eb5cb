/** The card by which a filter is changed: the steps of the change, with the bleed that this plan needs in place of its filling. */
import type { Procedure, ProcedureStep } from "../air/procedure";
import { type ChangeStep, GOOD_CHANGE_S, type ServiceStepId, stepSeconds } from "../service/elementChange";
import type { PlanChange } from "../service/planChanges";

export type CardStep =
  | { kind: "change"; id: ServiceStepId; seconds: number }
  /** With its number in the procedure. */
  | { kind: "bleed"; step: ProcedureStep; index: number; seconds: number };

export type CardVerdict =
  | { code: "good" }
  | { code: "spills"; spilledM3: number }
  /** Longer than a quarter of an hour, most of it for this step. */
  | { code: "slow"; dearest: ServiceStepId };

export interface FilterCard {
  steps: CardStep[];
  seconds: number;
  verdict: CardVerdict;
}

const refills: ReadonlySet<ServiceStepId> = new Set(["handFill", "prime"]);

/** What a step of a bleed takes a hand: what is poured, what runs, and a joint opened and shut, at the seconds of a service step. */
function bleedSeconds(step: ProcedureStep): number {
  switch (step.kind) {
    case "fill":
      return step.vessels.reduce((sum, { pouredM3 }) => sum + stepSeconds("handFill", pouredM3), 0);
    case "bleed":
      return step.seconds + stepSeconds("openVent") + stepSeconds("shutVent");
    case "runOn":
      return step.seconds;
    case "valves":
      return step.ids.length * stepSeconds("switchOver");
  }
}

const ownStep = ({ id, seconds }: ChangeStep): CardStep => ({ kind: "change", id, seconds });

/** @param procedure of the line with this filter just changed; null where nothing of the line is opened */
export function filterCard(
  { change: { steps: own, spilledM3 } }: Pick<PlanChange, "change">,
  procedure: Pick<Procedure, "steps"> | null,
): FilterCard {
  const at = own.findIndex(({ id }) => refills.has(id));
  const bleed = procedure?.steps.map(
    (step, index): CardStep => ({ kind: "bleed", step, index, seconds: bleedSeconds(step) }),
  );
  const steps = bleed
    ? [...own.slice(0, at).map(ownStep), ...bleed, ...own.slice(at + 1).map(ownStep)]
    : own.map(ownStep);
  const seconds = steps.reduce((sum, step) => sum + step.seconds, 0);
  const dearest = own.reduce((most, step) => (step.seconds > most.seconds ? step : most));
  if (spilledM3 > 0) return { steps, seconds, verdict: { code: "spills", spilledM3 } };
  return {
    steps,
    seconds,
    verdict: seconds <= GOOD_CHANGE_S ? { code: "good" } : { code: "slow", dearest: dearest.id },
  };
}
