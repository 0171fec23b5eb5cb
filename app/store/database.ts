/** The tables of the browser's store. Rows say which version of the format they are in; nothing here reads them. */
import Dexie, { type EntityTable, type Transaction } from "dexie";
import type { Patch } from "immer";
import type { BookEntry } from "~/core/book/entries";
import type { Snapshot } from "~/core/book/snapshot";
import type { Command } from "~/core/edit/command";
import type { Picture } from "~/schemas/migrations";

/** What the job list shows without reading a job. */
export interface Summary {
  note: string;
  kind: string;
  tanks: number;
  parts: number;
}

/** A job in the list: everything but the job itself. */
export interface JobRecord {
  id: string;
  /** Version of the format that the job and its history are written in. */
  version: number;
  name: string;
  summary: Summary;
  revision: number;
  /** New at each write, so that what was parsed once is known again. */
  stamp: string;
  /** Counts commits, undos and redos; see history.ts. */
  turn: number;
  /** Entries of its book. */
  entries: number;
  updatedAt: string;
  exportedAt: string | null;
  exportedRevision: number | null;
  exportedEntries: number | null;
  deletedAt: string | null;
}

/** The job itself, parsed when its stamp is new. */
export interface JobDocument {
  id: string;
  doc: unknown;
}

export interface HistoryRow {
  jobId: string;
  seq: number;
  command: Command;
  patches: Patch[];
  inverse: Patch[];
  /** Changes of one drag or one held key share a gesture and are one step of undo. */
  gesture: string | null;
  /** The tab it was made in. */
  tab: string;
  isUndone: boolean;
  /** The record's turn when it was made, and when it was last made, undone or redone. */
  madeAt: number;
  playedAt: number;
}

export interface BookRow {
  seq?: number;
  jobId: string;
  id: string;
  version: number;
  entry: BookEntry;
}

export interface SnapshotRow {
  jobId: string;
  hash: string;
  version: number;
  snapshot: Snapshot;
}

export interface PictureRow {
  jobId: string;
  id: string;
  type: Picture["type"];
  full: Blob;
  /** A small one for lists; null where the picture is small itself. */
  preview: Blob | null;
}

/** A record that did not parse: kept as it was, and offered as a file. */
export interface SetAsideRow {
  id: string;
  at: string;
  name: string;
  text: string;
  faults: string[];
}

/** One thing in the shop's box; of no job. */
export interface BoxRow {
  id: string;
  version: number;
  item: unknown;
}

/** The box as it was before a change, newest last. */
export interface BoxStepRow {
  seq?: number;
  rows: BoxRow[];
}

export interface SettingRow {
  key: string;
  value: string;
}

/** Rows of 0.3.0: the job with its book, and its history, under names of their own. */
interface FirstJobRow {
  id: string;
  name: string;
  revision: number;
  cursor: number;
  updatedAt: string;
  exportedAt: string | null;
  exportedRevision: number | null;
  deletedAt: string | null;
  doc: unknown;
}
interface FirstHistoryRow {
  jobId: string;
  seq: number;
  command: Command;
  patches: Patch[];
  inverse: Patch[];
  gesture: string | null;
}

export class KeelDatabase extends Dexie {
  records!: EntityTable<JobRecord, "id">;
  documents!: EntityTable<JobDocument, "id">;
  steps!: Dexie.Table<HistoryRow, [string, number]>;
  book!: Dexie.Table<BookRow, number>;
  snapshots!: Dexie.Table<SnapshotRow, [string, string]>;
  pictures!: Dexie.Table<PictureRow, [string, string]>;
  setAside!: EntityTable<SetAsideRow, "id">;
  settings!: EntityTable<SettingRow, "key">;
  box!: EntityTable<BoxRow, "id">;
  boxSteps!: Dexie.Table<BoxStepRow, number>;

  constructor(name = "iron-keel") {
    super(name);
    this.version(1).stores({
      jobs: "id, deletedAt",
      history: "[jobId+seq], jobId",
      setAside: "id",
      settings: "key",
    });
    this.version(2)
      .stores({
        records: "id, deletedAt",
        documents: "id",
        steps: "[jobId+seq], jobId",
        book: "++seq, &[jobId+id], [jobId+seq]",
        snapshots: "[jobId+hash], jobId",
        pictures: "[jobId+id], jobId",
      })
      .upgrade(carryOver);
    // The tables of 0.3.0 go once their rows are carried over: an old page that is still open then meets a store that
    // it cannot read, and sets no job aside that it does not understand.
    this.version(3).stores({ jobs: null, history: null });
    this.version(4).stores({ box: "id", boxSteps: "++seq" });
  }
}

/** Moves rows of 0.3.0 over as they are; they are migrated when they are first read, each by itself. */
async function carryOver(upgrade: Transaction): Promise<void> {
  const jobs: FirstJobRow[] = await upgrade.table("jobs").toArray();
  for (const { doc, cursor, name, id, ...row } of jobs) {
    const record: JobRecord = {
      ...row,
      id,
      name,
      version: 1,
      summary: { note: "", kind: "", tanks: 0, parts: 0 },
      stamp: `first-${row.revision}`,
      turn: 0,
      entries: 0,
      exportedEntries: null,
    };
    const document: JobDocument = { id, doc };
    const history: FirstHistoryRow[] = await upgrade.table("history").where("jobId").equals(id).toArray();
    const last = Math.max(0, ...history.map(({ seq }) => seq));
    const steps = history.map((step): HistoryRow => {
      const isUndone = step.seq > cursor;
      // Of what is undone the lowest was undone last.
      const playedAt = isUndone ? last + (last - step.seq) + 1 : step.seq;
      return { ...step, tab: "", isUndone, madeAt: step.seq, playedAt };
    });
    record.turn = Math.max(0, ...steps.map(({ playedAt }) => playedAt));
    await upgrade.table("records").put(record);
    await upgrade.table("documents").put(document);
    await upgrade.table("steps").bulkPut(steps);
  }
}

let open: KeelDatabase | null = null;

/** Opened at first use, in the browser only. */
export function database(): KeelDatabase {
  open ??= new KeelDatabase();
  return open;
}
