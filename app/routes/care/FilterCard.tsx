/*
 * Decides: how this filter is changed now, and whether the engine runs on meanwhile.
 * Seen in three seconds: the minutes, what comes into the cup, what runs on; then each step in its order.
 */
import { Printer } from "lucide-react";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import { stepKey } from "~/core/air/bled";
import { ENOUGH } from "~/core/air/procedure";
import { boardsJudged } from "~/core/boards/board";
import { GOOD_CHANGE_S } from "~/core/service/elementChange";
import { planChanges } from "~/core/service/planChanges";
import { formatNumber } from "~/core/units/format";
import { leftText, stepDetail, stepTitle } from "~/messages/bleeding";
import { nameOf } from "~/messages/notes";
import { minutesText, serviceStepTexts } from "~/messages/service";
import { useJob, useTrade } from "~/state/job";
import { useBleedPlan } from "~/state/work";
import { Select } from "~/ui/fields";
import { Caution, Sheet } from "~/ui/place";

/** Steps of the change that filling and bleeding take the place of. */
const refills: ReadonlySet<string> = new Set(["handFill", "prime", "shutVent"]);

export function FilterCard() {
  const { job, plan, solver, lineUp } = useJob();
  const say = useTrade();
  const changes = useMemo(
    () => planChanges(solver, plan.conditions, boardsJudged(job, plan)),
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
  const own = change.steps.filter(({ id }) => !procedure || !refills.has(id));
  const seconds = procedure
    ? own.reduce((sum, step) => sum + step.seconds, 0) + procedure.seconds
    : change.seconds;
  const isGood = seconds <= GOOD_CHANGE_S && change.spilledM3 === 0;
  const at = own.findIndex(({ id }) => id === "wipeLook");
  const [before, after] = [own.slice(0, at), own.slice(at)];
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
          {isGood
            ? ", under a quarter of an hour and nothing beside the cup."
            : change.spilledM3 > 0
              ? `: ${say.pan(change.spilledM3)} goes beside the cup, for want of room under it.`
              : `: longer than a quarter of an hour, for ${dearest(own)}.`}{" "}
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
        {before.map(({ id }) => (
          <li key={id}>{serviceStepTexts[id]}</li>
        ))}
        {procedure?.steps.map((step, i) => (
          <li key={stepKey(step, i)}>
            {stepTitle(step, name)}. {stepDetail(step, name, say)}
          </li>
        ))}
        {after.map(({ id }) => (
          <li key={id}>{serviceStepTexts[id]}</li>
        ))}
      </ol>
      <p>
        {isDuplex &&
          "Filled to the brim before its valve is opened, so that the other filter's suction draws no air out of it."}
        {!isDuplex && work.status === "working" && "Looking for the way to bleed it…"}
        {procedure &&
          (procedure.left <= ENOUGH
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

/** The step that costs most. */
const dearest = (steps: readonly { id: keyof typeof serviceStepTexts; seconds: number }[]): string => {
  const [first] = [...steps].sort((a, b) => b.seconds - a.seconds);
  return first ? serviceStepTexts[first.id] : "its steps";
};
