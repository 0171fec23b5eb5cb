/**
 * Readings that come from elsewhere: Signal K deltas, from a file or line by line off a wire, and tables. All of a source is
 * looked at before any of it is taken: each fault with its row, and nothing half taken over.
 */
import Papa from "papaparse";
import type { Id } from "../kinds/record";
import type { Job, Plan } from "../plan/types";
import { capacityM3 } from "../tanks/tank";
import { ZERO_CELSIUS_K } from "../units/factors";
import { parseQuantity } from "../units/parse";
import { dimensionOf, type Instrument, instrumentsOf, unitOf } from "./instruments";

export interface Incoming {
  /** ISO 8601. */
  at: string;
  of: Instrument;
  /** As its instrument shows it: a vacuum is more than nothing below the open air. */
  value: number;
}

export interface IncomingFault {
  /** Row of the table or number of the delta, from 1; nought is the source as a whole. */
  row: number;
  code:
    | "noRows"
    | "tooManyRows"
    | "tooManyColumns"
    | "badTime"
    | "future"
    | "twice"
    | "gone"
    | "notNumber"
    | "halfWritten"
    | "noTimeColumn"
    | "noColumn"
    | "jump";
  what: string;
}

export interface Incomings {
  readings: Incoming[];
  faults: IncomingFault[];
  /** Paths or columns that are of no instrument of this plan, and were left out. */
  others: string[];
}

/** A book is no recorder: of more than this the steady ones are kept. */
export const MOST_KEPT = 400;
const MOST_ROWS = 50_000;
/** No logger writes more; each is a choice on the screen. */
export const MOST_COLUMNS = 200;
/** A clock that runs ahead of this one by less is no future. */
const CLOCK_MS = 5 * 60_000;
/** From one reading to the next of an instrument no fuel system goes so many times up or down: it is another unit. */
const JUMPS = 40;
/** Of next to nothing many times as much is still little: Pa, m3/s, m3, degC. */
const LEAST_JUMP: Record<Instrument["quantity"], number> = {
  vacuum: 640,
  pressure: 640,
  flow: 1e-7,
  level: 1e-3,
  temperature: 1,
};

/** What all sources are looked at for: times, doubles, jumps of units. */
function judged(
  rows: readonly { row: number; at: string; of: Instrument; value: number }[],
  now: Date,
): Pick<Incomings, "readings" | "faults"> {
  const faults: IncomingFault[] = [];
  const seen = new Set<string>();
  const last = new Map<Id, number>();
  let badTimeIn = 0;
  const readings = rows.map(({ row, at, of, value }): Incoming => {
    const time = Date.parse(at);
    const isLater = time > now.getTime() + CLOCK_MS;
    // A row's time is one, however many columns it has.
    if ((Number.isNaN(time) || isLater) && badTimeIn !== row) {
      faults.push({ row, code: isLater ? "future" : "badTime", what: at });
      badTimeIn = row;
    }
    const key = `${of.id} ${at}`;
    if (seen.has(key)) faults.push({ row, code: "twice", what: of.name });
    seen.add(key);
    const before = last.get(of.id);
    const [low, high] = [
      Math.min(Math.abs(before ?? value), Math.abs(value)),
      Math.max(Math.abs(before ?? value), Math.abs(value)),
    ];
    if (before !== undefined && low > LEAST_JUMP[of.quantity] && high / low > JUMPS)
      faults.push({ row, code: "jump", what: of.name });
    last.set(of.id, value);
    return { at: Number.isNaN(time) ? at : new Date(time).toISOString(), of, value };
  });
  return { readings, faults };
}

/** The last of each instrument's readings in a row of equal stretches, so that no more are kept than a book bears. */
export function thinned(readings: readonly Incoming[], most = MOST_KEPT): Incoming[] {
  if (readings.length <= most) return [...readings];
  const every = Math.ceil(readings.length / most);
  const by = new Map<Id, Incoming[]>();
  for (const one of readings) {
    const own = by.get(one.of.id);
    if (own) own.push(one);
    else by.set(one.of.id, [one]);
  }
  return [...by.values()]
    .flatMap((own) => own.filter((_, i) => i % every === every - 1 || i === own.length - 1))
    .sort((a, b) => a.at.localeCompare(b.at));
}

interface DeltaValue {
  path?: unknown;
  value?: unknown;
}

/** A Signal K path as the instrument it is of, and what its SI value is there; null where this plan has none. */
function ofPath(path: string, value: number, job: Job, instruments: readonly Instrument[]) {
  const [, id] = /^(?:fuelSystem|tanks\.fuel)\.([^.]+)\./.exec(path) ?? [];
  const of = instruments.find((one) => one.id === id);
  if (!of) return null;
  if (of.quantity === "level") {
    const tank = job.tanks.find((one) => one.id === id);
    return tank ? { of, value: value * capacityM3(tank) } : null;
  }
  if (of.quantity === "temperature") return { of, value: value - ZERO_CELSIUS_K };
  return { of, value: of.quantity === "vacuum" ? -value : value };
}

/** Deltas as one JSON array, or one JSON object a line. */
export function readDeltas(text: string, job: Job, plan: Plan, now: Date): Incomings {
  const instruments = instrumentsOf(job, plan);
  const faults: IncomingFault[] = [];
  const deltas: unknown[] = [];
  const trimmed = text.trim();
  if (trimmed.startsWith("["))
    try {
      deltas.push(...(JSON.parse(trimmed) as unknown[]));
    } catch {
      faults.push({ row: 0, code: "halfWritten", what: trimmed.slice(-40) });
    }
  else
    trimmed.split(/\r?\n/).forEach((line, i) => {
      if (line.trim() === "") return;
      try {
        deltas.push(JSON.parse(line) as unknown);
      } catch {
        faults.push({ row: i + 1, code: "halfWritten", what: line.slice(0, 40) });
      }
    });
  if (deltas.length > MOST_ROWS) faults.push({ row: MOST_ROWS + 1, code: "tooManyRows", what: "" });
  const others = new Set<string>();
  const rows = deltas.slice(0, MOST_ROWS).flatMap((delta, i) => {
    const updates = (delta as { updates?: unknown } | null)?.updates;
    if (!Array.isArray(updates)) {
      // What a server greets with is no delta.
      if (typeof delta !== "object" || delta === null || !("version" in delta))
        faults.push({ row: i + 1, code: "halfWritten", what: JSON.stringify(delta).slice(0, 40) });
      return [];
    }
    return (updates as { timestamp?: unknown; values?: unknown }[]).flatMap(({ timestamp, values }) =>
      (Array.isArray(values) ? (values as DeltaValue[]) : []).flatMap(({ path, value }) => {
        if (typeof path !== "string" || typeof value !== "number" || !Number.isFinite(value)) return [];
        const found = ofPath(path, value, job, instruments);
        if (!found) others.add(path);
        return found ? [{ row: i + 1, at: String(timestamp ?? ""), ...found }] : [];
      }),
    );
  });
  if (rows.length === 0 && faults.length === 0) faults.push({ row: 0, code: "noRows", what: "" });
  const all = judged(rows, now);
  return { readings: all.readings, faults: [...faults, ...all.faults], others: [...others] };
}

/** Which column is of which instrument, by its name; and which holds the time. */
export interface ColumnMapping {
  time: string;
  of: Record<string, Id>;
}

export const columnsOf = (text: string): string[] =>
  Papa.parse<string[]>(text.trim(), { preview: 1, skipEmptyLines: true }).data[0]?.map((name) =>
    name.trim(),
  ) ?? [];

/** A mapping that suggests itself: a column of an instrument's name, and one that speaks of time. */
export function guessedMapping(
  columns: readonly string[],
  instruments: readonly Instrument[],
): ColumnMapping {
  const plain = (text: string) =>
    text
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, " ")
      .trim();
  const time = columns.find((name) => /^(time|date|at|when|timestamp)\b/i.test(name)) ?? columns[0] ?? "";
  const of = Object.fromEntries(
    columns.flatMap((name) => {
      const found = instruments.find(
        (one) => plain(name).includes(plain(one.name)) || plain(name) === plain(one.id),
      );
      return found && name !== time ? [[name, found.id]] : [];
    }),
  );
  return { time, of };
}

/** A table with a header; figures with or without their unit, in the job's units where they have none. */
export function readTable(
  text: string,
  { time, of }: ColumnMapping,
  job: Job,
  plan: Plan,
  now: Date,
): Incomings {
  const width = columnsOf(text).length;
  if (width > MOST_COLUMNS)
    return { readings: [], faults: [{ row: 0, code: "tooManyColumns", what: String(width) }], others: [] };
  const instruments = new Map(instrumentsOf(job, plan).map((one) => [one.id, one]));
  const { data, meta } = Papa.parse<Record<string, string>>(text.trim(), {
    header: true,
    skipEmptyLines: true,
    transformHeader: (name) => name.trim(),
  });
  const columns = meta.fields ?? [];
  const fail = (code: IncomingFault["code"], what: string): Incomings => ({
    readings: [],
    faults: [{ row: 0, code, what }],
    others: [],
  });
  if (!columns.includes(time)) return fail("noTimeColumn", time);
  const used = Object.entries(of).filter(([name]) => columns.includes(name));
  if (used.length === 0) return fail("noColumn", "");
  if (data.length === 0) return fail("noRows", "");
  if (data.length > MOST_ROWS) return fail("tooManyRows", String(data.length));
  const faults: IncomingFault[] = [];
  const rows = data.flatMap((line, i) =>
    used.flatMap(([name, id]) => {
      const [row, said] = [i + 2, (line[name] ?? "").trim()];
      const instrument = instruments.get(id);
      if (!instrument) {
        faults.push({ row, code: "gone", what: name });
        return [];
      }
      // A cell left empty is no reading.
      if (said === "") return [];
      const parsed = parseQuantity(said, dimensionOf(instrument), unitOf(instrument, job.units));
      if (!parsed.ok) {
        faults.push({ row, code: "notNumber", what: `${name}: ${said}`.slice(0, 60) });
        return [];
      }
      return [{ row, at: (line[time] ?? "").trim(), of: instrument, value: parsed.si }];
    }),
  );
  const all = judged(rows, now);
  return {
    readings: all.readings,
    faults: [...faults, ...all.faults].sort((a, b) => a.row - b.row),
    others: columns.filter((name) => name !== time && !(name in of)),
  };
}
