/** One job opened, in this page. */
import type { Job } from "~/core/plan/types";
import type { FileFault } from "~/schemas/file";
import { database } from "./database";
import { type Tab, undoable } from "./history";
import { prepare, quarantine, readStored } from "./records";

export interface LoadedJob {
  status: "open";
  job: Job;
  revision: number;
  turn: number;
  canUndo: boolean;
  canRedo: boolean;
  exportedAt: string | null;
}

export type JobState =
  | LoadedJob
  | { status: "gone" | "newer" | "older" }
  | { status: "broken"; id: string; faults: FileFault[] };

/** A job as it stands; writes nothing, so that a live query may ask. */
export async function readJob(id: string, tab: Tab): Promise<JobState> {
  const stored = await readStored(id);
  if (stored.status === "broken") return { status: "broken", id, faults: stored.faults };
  if (stored.status !== "open") return { status: stored.status };
  const { record, job } = stored;
  return {
    status: "open",
    job,
    revision: record.revision,
    turn: record.turn,
    ...(await undoable(id, tab)),
    exportedAt: record.exportedAt,
  };
}

/** Opens a job: brings it up from an older version, and sets it aside where it does not parse. */
export async function openJob(id: string, tab: Omit<Tab, "since">): Promise<JobState> {
  await prepare();
  const record = await database().records.get(id);
  const state = await readJob(id, { ...tab, since: record?.turn ?? 0 });
  if (state.status === "broken") await quarantine(id, state.faults);
  return state;
}
