/*
 * Decides: how this filter is changed now, and whether the engine runs on meanwhile.
 * Seen in three seconds: the minutes, what comes into the cup, what runs on; then each step in its order.
 */
import { Printer } from "lucide-react";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import { stepKey } from "~/core/air/bled";
import { boardsJudged } from "~/core/boards/board";
import { planChanges } from "~/core/service/planChanges";
import { formatNumber } from "~/core/units/format";
import type { Trade } from "~/core/units/trade";
import { type CardVerdict, filterCard } from "~/core/work/filterCard";
import { leftText, stepDetail, stepTitle } from "~/messages/bleeding";
import { nameOf } from "~/messages/notes";
import { minutesText, serviceStepTexts } from "~/messages/service";
import { useJob, useTrade } from "~/state/job";
import { useBleedPlan } from "~/state/work";
import { Select } from "~/ui/fields";
import { Caution, Sheet } from "~/ui/place";

export function FilterCard() {
  const { job, plan, solver, lineUp } = useJob();
  const say = useTrade();
  const changes = useMemo(
    () => planChanges(solver, plan.conditions, boardsJudged(job, plan), job.kind),
    [solver, plan, job],
  );
  const [partId, setPart] = useState(changes[0]?.part.id);
  const one = changes.find(({ part }) => part.id === partId) ?? changes[0];
  const content = useMemo(
    () => ({ kind: "filterChanged" as const, partId: one?.part.id ?? "" }),
    [one?.part.id],
  );
  // One of a pair is filled and put back while the other feeds: nothing of the line is opened.
  const work = useBleedPlan(job, one && !one.isDuplex ? lineUp : null, content);
  if (!one) return null;
  const { part, change, isDuplex } = one;
  const name = (id: string) => nameOf(job, id);
  const procedure = !isDuplex && work.status === "done" ? (work.value?.procedure ?? null) : null;
  const { steps, seconds, verdict } = filterCard(one, procedure);
  return (
    <Sheet aria-label="Change a filter">
      <h3>Change a filter</h3>
      <div style={{ display: "flex", flexWrap: "wrap", gap: "8px 14px", alignItems: "flex-end" }}>
        <div style={{ minWidth: 200 }}>
          <Select
            label="Which"
            value={part.id}
            options={changes.map(({ part: own }) => ({ id: own.id, name: own.name }))}
            onChange={setPart}
          />
        </div>
        <p style={{ margin: 0, fontWeight: 650, flex: 1, minWidth: 220 }}>
          {minutesText(seconds)}
          {verdictText(verdict, say)}{" "}
          {isDuplex ? "The engine runs on over the other filter." : "The engine stands meanwhile."}
        </p>
        <Link to={`/job/${job.id}/print/bleed`}>
          <Printer size={16} aria-hidden /> Bleed card
        </Link>
      </div>
      <p>
        {say.pan(change.cupM3)} into the cup. In hand: an element of {formatNumber(part.micron)} µm, its seal,
        cup, rag, gloves.
      </p>
      <ol aria-label="Steps of the change">
        {steps.map((step) =>
          step.kind === "change" ? (
            <li key={step.id}>{serviceStepTexts[step.id]}</li>
          ) : (
            <li key={stepKey(step.step, step.index)}>
              {stepTitle(step.step, name)}. {stepDetail(step.step, name, say)}
            </li>
          ),
        )}
      </ol>
      <p>
        {isDuplex &&
          "Filled to the brim before its valve is opened, so that the other filter's suction draws no air out of it."}
        {!isDuplex && work.status === "working" && "Looking for the way to bleed it…"}
        {procedure &&
          (procedure.isBled
            ? `Bled so, ${leftText(procedure.left)} of air is left.`
            : `Bled so, ${leftText(procedure.left)} of air stays: Bleed says why.`)}
      </p>
      <Caution>
        Eyes covered, face and hands away from the opened joint; no flame or spark, ventilated. Fuel shut
        before a bowl is opened. The high-pressure side belongs to a licensed workshop; the engine maker's
        manual goes first.
      </Caution>
    </Sheet>
  );
}

/** Whether it goes quickly and clean, and if not for what. */
function verdictText(verdict: CardVerdict, say: Trade): string {
  switch (verdict.code) {
    case "good":
      return ", under a quarter of an hour and nothing beside the cup.";
    case "spills":
      return `: ${say.pan(verdict.spilledM3)} goes beside the cup, for want of room under it.`;
    case "slow":
      return `: longer than a quarter of an hour, most of it to ${serviceStepTexts[verdict.dearest]}.`;
  }
}
