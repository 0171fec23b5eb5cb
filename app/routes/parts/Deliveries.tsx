/** What is ordered and has not come: by whom, when, and its check as it comes; what is wrong is set apart. */
import { useState } from "react";
import styled from "styled-components";
import { entriesOf } from "~/core/book/entries";
import type { BuyLine } from "~/core/parts/buying";
import type { Delivery } from "~/core/plan/types";
import { checkInTexts, lineTitle } from "~/messages/buying";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { DateField, Switch, TextField } from "~/ui/fields";
import { Sheet } from "~/ui/place";

const List = styled.ul`
  list-style: none; margin: 0; padding: 0;
  > li { display: flex; flex-wrap: wrap; gap: 6px 16px; align-items: end; border-bottom: 1px solid var(--hairline); padding: 8px 0; }
  > li > b { flex: 1 1 220px; align-self: center; }
  .wrong { color: var(--danger); font-weight: 600; flex-basis: 100%; margin: 0; }
  .checks { flex-basis: 100%; display: flex; flex-wrap: wrap; gap: 6px 16px; align-items: center; }
`;

/** What the plan awaits and is not checked in, and the ways to change it. */
export function useAwaited() {
  const { plan, book, dispatch, enter } = useJob();
  const isIn = (id: string) =>
    entriesOf(book, "stepDone").findLast(({ stepId }) => stepId === `checkIn:${id}`)?.isDone === true;
  const awaited = new Set((plan.awaited ?? []).filter((id) => !isIn(id)));
  const write = (ids: readonly string[], change: Delivery) =>
    void dispatch({
      name: "editPlan",
      change: {
        deliveries: {
          ...plan.deliveries,
          ...Object.fromEntries(ids.map((id) => [id, { ...plan.deliveries?.[id], ...change }])),
        },
      },
      shown: { deliveries: plan.deliveries },
    });
  return {
    awaited,
    of: (id: string): Delivery => plan.deliveries?.[id] ?? {},
    write,
    set: (ids: readonly string[], isAwaited: boolean) => {
      const rest = (plan.awaited ?? []).filter((id) => !ids.includes(id));
      const kept = Object.fromEntries(
        Object.entries(plan.deliveries ?? {}).filter(([id]) => !ids.includes(id)),
      );
      void dispatch({
        name: "editPlan",
        change: isAwaited ? { awaited: [...rest, ...ids] } : { awaited: rest, deliveries: kept },
      });
    },
    /** Each is its own step of the work order: the ones that wait for it go on. */
    checkIn: (ids: readonly string[]) => {
      for (const id of ids) void enter({ kind: "stepDone", stepId: `checkIn:${id}`, isDone: true });
    },
  };
}

export function Deliveries({
  waits,
  lines,
}: {
  waits: ReturnType<typeof useAwaited>;
  lines: readonly BuyLine[];
}) {
  const open = lines.filter(
    ({ what, for: ids }) =>
      (what.kind === "part" || what.kind === "hose") && ids.some((id) => waits.awaited.has(id)),
  );
  if (open.length === 0) return null;
  return (
    <Sheet>
      <h3>Awaited</h3>
      <List aria-label="Awaited">
        {open.map((line) => (
          <Awaited key={line.key} line={line} waits={waits} />
        ))}
      </List>
    </Sheet>
  );
}

function Awaited({ line, waits }: { line: BuyLine; waits: ReturnType<typeof useAwaited> }) {
  const { job } = useJob();
  const ids = line.for.filter((id) => waits.awaited.has(id));
  const { from = "", due = "", wrong } = waits.of(ids[0] ?? "");
  const [checks, setChecks] = useState<ReadonlySet<string> | null>(null);
  const kinds = Object.keys(checkInTexts) as (keyof typeof checkInTexts)[];
  return (
    <li>
      <b>
        {ids.length} × {lineTitle(line, job.units)}
      </b>
      <TextField label="From" value={from} onCommit={(name) => waits.write(ids, { from: name })} />
      <DateField label="Due" value={due} onCommit={(day) => waits.write(ids, { due: day })} />
      <Button onPress={() => setChecks(checks ? null : new Set())}>
        {checks ? "Not now" : "It has come"}
      </Button>
      {wrong && <p className="wrong">Set apart: {wrong}</p>}
      {checks && (
        <div className="checks">
          {kinds.map((kind) => (
            <Switch
              key={kind}
              isOn={checks.has(kind)}
              onChange={(isOn) => {
                const next = new Set(checks);
                if (isOn) next.add(kind);
                else next.delete(kind);
                setChecks(next);
              }}
            >
              {checkInTexts[kind](ids.length)}
            </Switch>
          ))}
          <Button $main isDisabled={checks.size < kinds.length} onPress={() => waits.checkIn(ids)}>
            Check in
          </Button>
          <TextField
            label="Wrong: set apart, because"
            value={wrong ?? ""}
            onCommit={(why) => waits.write(ids, { wrong: why })}
          />
        </div>
      )}
    </li>
  );
}
