import Dexie, { type EntityTable } from "dexie";
import type { Patch } from "immer";
import type { Command } from "~/core/edit/commands";

/** A job as it lies in the browser. `doc` is parsed on every read; the row counts its changes. */
export interface JobRow {
  id: string;
  name: string;
  revision: number;
  /** Sequence number of the last change that stands; later rows of the history can be redone. */
  cursor: number;
  updatedAt: string;
  exportedAt: string | null;
  exportedRevision: number | null;
  deletedAt: string | null;
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
}

/** A record that did not parse: kept as it was, and offered as a file. */
export interface SetAsideRow {
  id: string;
  at: string;
  name: string;
  text: string;
  faults: string[];
}

export interface SettingRow {
  key: string;
  value: string;
}

export class KeelDatabase extends Dexie {
  jobs!: EntityTable<JobRow, "id">;
  history!: Dexie.Table<HistoryRow, [string, number]>;
  setAside!: EntityTable<SetAsideRow, "id">;
  settings!: EntityTable<SettingRow, "key">;

  constructor(name = "iron-keel") {
    super(name);
    this.version(1).stores({
      jobs: "id, deletedAt",
      history: "[jobId+seq], jobId",
      setAside: "id",
      settings: "key",
    });
  }
}

let open: KeelDatabase | null = null;

/** Opened at first use, in the browser only. */
export function database(): KeelDatabase {
  open ??= new KeelDatabase();
  return open;
}
