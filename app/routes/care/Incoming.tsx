/*
 * Decides: which readings from a file or the wire go into the book.
 * Seen in three seconds: how many came of which instrument, what each says now against the plan, and what is wrong with the source.
 */
import { FileUp, Radio } from "lucide-react";
import { useEffect, useMemo, useRef, useState } from "react";
import { FileTrigger } from "react-aria-components";
import type { EntryDraft } from "~/core/book/entries";
import {
  type ColumnMapping,
  columnsOf,
  guessedMapping,
  type Incomings,
  MOST_COLUMNS,
  MOST_KEPT,
  type Incoming as Reading,
  readDeltas,
  readTable,
  thinned,
} from "~/core/care/incoming";
import { computedAt, fitOf, instrumentsOf } from "~/core/care/instruments";
import { isFiltering } from "~/core/kinds/families";
import type { Conditions } from "~/core/plan/types";
import { fitText, incomingFaultText, readText } from "~/messages/care";
import { counted } from "~/messages/counted";
import { columnMappingSchema, noted } from "~/schemas/noted";
import { useJob, useTrade } from "~/state/job";
import { listen } from "~/state/wire";
import { readSetting, writeSetting } from "~/store/list";
import { Button } from "~/ui/button";
import { Select } from "~/ui/fields";
import { Sheet } from "~/ui/place";

/** A table of a boat's own recorder is laid out the same each time. */
const mappingKey = (jobId: string) => `csv:${jobId}`;
const SHOWN_FAULTS = 6;
const NONE = "-";
const TIME = "time";

interface Source {
  name: string;
  text: string;
  /** Null for deltas. */
  columns: string[] | null;
}

export function Incoming() {
  const { job, plan, network, solver, lineUp, enter } = useJob();
  const say = useTrade();
  const instruments = useMemo(() => instrumentsOf(job, plan), [job, plan]);
  const [source, setSource] = useState<Source | null>(null);
  const [mapping, setMapping] = useState<ColumnMapping>({ time: "", of: {} });
  const [ended, setEnded] = useState<string | null>(null);
  const [readAt, setReadAt] = useState(() => new Date());
  const stop = useRef<(() => void) | null>(null);
  const [wrong, setWrong] = useState(NONE);
  const [isLive, setLive] = useState(false);
  useEffect(() => () => stop.current?.(), []);
  const found = useMemo<Incomings | null>(() => {
    if (!source) return null;
    return source.columns
      ? readTable(source.text, mapping, job, plan, readAt)
      : readDeltas(source.text, job, plan, readAt);
  }, [source, mapping, job, plan, readAt]);
  const result = useMemo(
    () => (lineUp ? solver.solve(lineUp, plan.conditions) : null),
    [solver, lineUp, plan.conditions],
  );
  const open = async (file: File) => {
    stop.current?.();
    const text = await file.text();
    const isTable = !/^\s*[[{]/.test(text);
    setReadAt(new Date());
    setEnded(null);
    if (!isTable) {
      setSource({ name: file.name, text, columns: null });
      return;
    }
    const columns = columnsOf(text);
    // The mapping of last time, where it still names these columns.
    const kept = noted(columnMappingSchema, await readSetting(mappingKey(job.id)));
    setMapping(kept && columns.includes(kept.time) ? kept : guessedMapping(columns, instruments));
    setSource({ name: file.name, text, columns });
  };
  const hear = () => {
    if (!lineUp) return;
    setEnded(null);
    setLive(true);
    setSource({ name: "the stand-in", text: "", columns: null });
    const lines: string[] = [];
    stop.current = listen(
      job,
      lineUp,
      { seed: Date.now() % 1_000_000, minutes: 2, fault: wrong === NONE ? null : wrong },
      {
        onDelta: (text) => {
          lines.push(text);
          setReadAt(new Date());
          setSource({ name: "the stand-in", text: lines.join("\n"), columns: null });
        },
        onEnd: (reason) => {
          setLive(false);
          stop.current = null;
          if (reason !== null) setEnded(reason);
        },
      },
    );
  };
  const map = (column: string, to: string) => {
    const { [column]: _, ...others } = mapping.of;
    const next: ColumnMapping =
      to === TIME
        ? { time: column, of: others }
        : {
            time: mapping.time === column ? "" : mapping.time,
            of: to === NONE ? others : { ...others, [column]: to },
          };
    setMapping(next);
    void writeSetting(mappingKey(job.id), JSON.stringify(next));
  };
  const kept = found && found.faults.length === 0 ? thinned(found.readings) : [];
  const take = async () => {
    if (!lineUp) return;
    const result = await enter(kept.map((one) => draftOf(one, lineUp.id, plan.conditions)));
    if (result.ok) setSource(null);
  };
  const latest = instruments.flatMap((one) => {
    const own = found?.readings.filter(({ of }) => of.id === one.id) ?? [];
    const last = own.at(-1);
    return last ? [{ one, count: own.length, value: last.value }] : [];
  });
  return (
    <Sheet aria-label="Readings from elsewhere">
      <h3>From a file, or off the wire</h3>
      <div style={{ display: "flex", flexWrap: "wrap", gap: 8, alignItems: "flex-end" }}>
        <FileTrigger
          acceptedFileTypes={[".csv", ".json", ".jsonl", ".txt", "text/csv", "application/json"]}
          onSelect={(files) => files?.[0] && void open(files[0])}
        >
          <Button>
            <FileUp size={16} aria-hidden /> Open a table or deltas…
          </Button>
        </FileTrigger>
        <Button isDisabled={!lineUp} onPress={() => (isLive ? stop.current?.() : hear())}>
          <Radio size={16} aria-hidden /> {isLive ? "Stop listening" : "Listen to the stand-in"}
        </Button>
        <Select
          label="It has"
          value={wrong}
          options={[
            { id: NONE, name: "nothing wrong" },
            { id: "drawn", name: "whatever chance gives it" },
            ...plan.parts.flatMap((part) =>
              isFiltering(part) && part.element
                ? [{ id: `filterLoaded:${part.id}`, name: `${part.name} loaded` }]
                : [],
            ),
          ]}
          onChange={setWrong}
        />
      </div>
      <p style={{ fontSize: 13, color: "var(--soft)" }}>
        The stand-in answers for every gauge and sender from this plan's own solution, with noise, drift and
        lag; it speaks Signal K. Nothing of it is measured.
      </p>
      {ended && <p role="alert">The stream ended: {ended}.</p>}
      {source?.columns && (
        <div
          style={{ display: "grid", gridTemplateColumns: "repeat(auto-fill, minmax(170px, 1fr))", gap: 8 }}
        >
          {(source.columns.length > MOST_COLUMNS ? [] : source.columns).map((column) => (
            <Select
              key={column}
              label={column}
              value={column === mapping.time ? TIME : (mapping.of[column] ?? NONE)}
              options={[
                { id: NONE, name: "left out" },
                { id: TIME, name: "the time" },
                ...instruments.map(({ id, name }) => ({ id, name })),
              ]}
              onChange={(to) => map(column, to)}
            />
          ))}
        </div>
      )}
      {found && (
        <>
          {latest.length > 0 && (
            <ul aria-label="What came">
              {latest.map(({ one, count, value }) => {
                const computed = computedAt(network, result, one, plan.conditions);
                return (
                  <li key={one.id}>
                    <b>{one.name}</b>: {counted(count, "reading")}, the last{" "}
                    {readText(one.quantity, value, say)}
                    {computed !== null && `, ${fitText(one.quantity, fitOf(one, value, computed), say)}`}
                  </li>
                );
              })}
            </ul>
          )}
          {found.faults.length > 0 && (
            <div role="alert">
              <p style={{ margin: 0, fontWeight: 650 }}>
                Nothing is taken over: {counted(found.faults.length, "fault")}.
              </p>
              <ul>
                {found.faults.slice(0, SHOWN_FAULTS).map((fault) => (
                  <li key={`${fault.row} ${fault.code} ${fault.what}`}>{incomingFaultText(fault)}</li>
                ))}
              </ul>
            </div>
          )}
          {found.others.length > 0 && (
            <p>Left out, since this plan has no such instrument: {found.others.slice(0, 5).join(", ")}.</p>
          )}
          {found.readings.length > MOST_KEPT && found.faults.length === 0 && (
            <p>
              Of {found.readings.length} readings {kept.length} are kept, evenly: the log is no recorder.
            </p>
          )}
          <Button $main isDisabled={kept.length === 0} onPress={() => void take()}>
            Enter {counted(kept.length, "reading")} in the log
          </Button>{" "}
          <Button $quiet onPress={() => setSource(null)}>
            Leave it
          </Button>
        </>
      )}
    </Sheet>
  );
}

const draftOf = (
  { at, of: { id, quantity }, value }: Reading,
  lineUpId: string,
  conditions: Conditions,
): EntryDraft => {
  const rest = { at, lineUpId, conditions, note: "" };
  return quantity === "vacuum"
    ? { kind: "vacuum", gaugeId: id, vacuumPa: value, ...rest }
    : { kind: "reading", ofId: id, quantity, value, ...rest };
};
