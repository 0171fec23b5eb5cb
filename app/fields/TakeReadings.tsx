/*
 * Decides: what was read, and whether it is what the plan computes.
 * Seen in three seconds: each instrument with what it should read, and what does not fit as it is typed.
 */
import { useMemo, useState } from "react";
import styled from "styled-components";
import type { EntryDraft } from "~/core/book/entries";
import {
  computedAt,
  dimensionOf,
  fitOf,
  type Instrument,
  instrumentsOf,
  unitOf,
} from "~/core/care/instruments";
import type { Id } from "~/core/kinds/record";
import { fitText, instrumentText, readText } from "~/messages/care";
import { useJob, useTrade } from "~/state/job";
import { Button } from "~/ui/button";
import { TextField } from "~/ui/fields";
import { useNarrow } from "~/ui/useNarrow";
import { QuantityField } from "./QuantityField";

const Fields = styled.div`
  display: grid; grid-template-columns: repeat(auto-fill, minmax(150px, 1fr)); gap: 8px 14px; align-items: start; margin: 6px 0;
`;
const Dials = styled.ul`
  list-style: none; margin: 6px 0; padding: 0;
  li { display: grid; grid-template-columns: minmax(140px, 1fr) minmax(120px, 170px) minmax(140px, 1.4fr); gap: 4px 14px; align-items: center; border-bottom: 1px solid var(--hairline); padding: 4px 0; }
  li > span:last-child { font-weight: 600; }
  @media (max-width: 600px) { li { grid-template-columns: minmax(0, 1fr) minmax(110px, 150px); } li > span:last-child { grid-column: 1 / -1; } }
`;

const Enter = styled(Button)`
  @media (max-width: 600px) { width: 100%; }
`;

const mostPa = 101_000;
const within = ({ quantity }: Instrument, si: number): string | null => {
  if (quantity === "vacuum") return si < mostPa ? null : "More than a full vacuum.";
  if (quantity === "temperature") return si > -60 && si < 150 ? null : "No fuel is so warm or so cold.";
  return si >= 0 ? null : "From nought on.";
};

export function TakeReadings({ isBaseline = false }: { isBaseline?: boolean }) {
  const { job, plan, network, solver, lineUp, enter, say: tell } = useJob();
  const isNarrow = useNarrow();
  const { units } = job;
  const say = useTrade();
  const engine = job.consumers[0];
  const [fuelC, setFuel] = useState(plan.conditions.fuelC);
  const [load, setLoad] = useState(engine ? (plan.conditions.load[engine.id] ?? 1) : 1);
  const [engineH, setEngineH] = useState<number | undefined>();
  const [note, setNote] = useState("");
  const [read, setRead] = useState<Readonly<Record<Id, number>>>({});
  const conditions = useMemo(
    () =>
      structuredClone({
        ...plan.conditions,
        fuelC,
        load: engine ? { ...plan.conditions.load, [engine.id]: load } : plan.conditions.load,
      }),
    [plan.conditions, fuelC, load, engine],
  );
  const result = useMemo(
    () => (lineUp ? solver.solve(lineUp, conditions) : null),
    [solver, lineUp, conditions],
  );
  const instruments = instrumentsOf(job, plan);
  if (!lineUp) return null;
  const draftOf = ({ id, quantity }: Instrument, value: number): EntryDraft => {
    const rest = {
      lineUpId: lineUp.id,
      conditions,
      note,
      ...(engineH === undefined ? {} : { engineH }),
      ...(isBaseline ? { isBaseline } : {}),
    };
    return quantity === "vacuum"
      ? { kind: "vacuum", gaugeId: id, vacuumPa: value, ...rest }
      : { kind: "reading", ofId: id, quantity, value, ...rest };
  };
  const given = instruments.flatMap((one) => {
    const value = read[one.id];
    return value === undefined ? [] : [{ one, value }];
  });
  const store = async () => {
    if (given.length === 0) return tell("Type what a dial reads first.");
    // All of a look at the gauges, or none of it.
    const result = await enter(given.map(({ one, value }) => draftOf(one, value)));
    if (result.ok) setRead({});
  };
  const readAt = (
    <Fields>
      <QuantityField
        label="Fuel temperature"
        dimension="temperature"
        unit={units.temperature}
        value={fuelC}
        onCommit={setFuel}
      />
      <QuantityField
        label="Engine load"
        dimension="ratio"
        unit="%"
        value={load}
        check={(si) => (si >= 0 && si <= 1 ? null : "From 0 to 100 %.")}
        onCommit={setLoad}
      />
      <QuantityField
        label="Engine hours"
        dimension="ratio"
        unit=""
        value={engineH}
        check={(si) => (si >= 0 && si < 1e6 ? null : "From nought on.")}
        onCommit={setEngineH}
      />
      <TextField label="Note" value={note} onCommit={setNote} />
    </Fields>
  );
  const dials = (
    <Dials aria-label={`What is read in ${lineUp.name}`}>
      {instruments.map((one) => {
        const computed = computedAt(network, result, one, conditions);
        const value = read[one.id];
        return (
          <li key={one.id}>
            <span>
              {one.name}
              <small style={{ display: "block", color: "var(--soft)" }}>
                {computed === null
                  ? "stands still: not known"
                  : `should read ${readText(one.quantity, computed, say)}`}
              </small>
            </span>
            <QuantityField
              label={`${one.name}, ${instrumentText(one.quantity)}`}
              dimension={dimensionOf(one)}
              unit={unitOf(one, units)}
              value={value}
              isPlain
              check={(si) => within(one, si)}
              onCommit={(si) => setRead((now) => ({ ...now, [one.id]: si }))}
            />
            <span role="status">
              {value !== undefined && computed !== null
                ? fitText(one.quantity, fitOf(one, value, computed), say)
                : ""}
            </span>
          </li>
        );
      })}
    </Dials>
  );
  return (
    <>
      <p style={{ fontSize: 13, color: "var(--soft)", margin: 0 }}>
        Read with the engine at the stated load; keep hands and clothes clear of what turns and is hot.
      </p>
      {/* In a hand the dials come first, and what they were read at after them. */}
      {isNarrow ? dials : readAt}
      {isNarrow ? readAt : dials}
      <Enter $main onPress={() => void store()}>
        Enter in the log
      </Enter>
    </>
  );
}
