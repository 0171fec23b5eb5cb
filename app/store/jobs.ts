/** Jobs in the browser: every change is written with its inverse in one transaction, and parsed before it is kept. */
import type { Patch } from "immer";
import { applyCommand, type Command, CommandRefused, type Note, playPatches } from "~/core/edit/commands";
import { type StarterId, startJob } from "~/core/edit/starters";
import { checkJob } from "~/core/plan/check";
import { newId } from "~/core/plan/ids";
import type { Job } from "~/core/plan/types";
import { type FileFault, faultsOf, readJobFile, writeJobFile } from "~/schemas/file";
import { jobSchema } from "~/schemas/job";
import { database, type JobRow, type SetAsideRow } from "./database";

export const MOST_UNDO = 500;

export interface JobSummary {
  id: string;
  name: string;
  note: string;
  kind: Job["kind"];
  tanks: number;
  parts: number;
  updatedAt: string;
  exportedAt: string | null;
  changedSinceExport: boolean;
}

export interface LoadedJob {
  job: Job;
  revision: number;
  cursor: number;
  lastSeq: number;
  exportedAt: string | null;
}

export type CommitResult =
  | { ok: true; job: Job; revision: number; notes: Note[] }
  | { ok: false; faults: FileFault[] };

const now = () => new Date().toISOString();

/** The job of a row, or its faults. */
function parseRow(row: JobRow): { ok: true; job: Job } | { ok: false; faults: FileFault[] } {
  const parsed = jobSchema.safeParse(row.doc);
  return parsed.success
    ? { ok: true, job: parsed.data }
    : { ok: false, faults: faultsOf(parsed.error, "job") };
}

function validate(job: Job): FileFault[] {
  const parsed = jobSchema.safeParse(job);
  return parsed.success ? checkJob(parsed.data) : faultsOf(parsed.error);
}

/** Sets a row aside that does not parse, with its text; it is offered as a file and never dropped. */
async function quarantine(row: JobRow, faults: FileFault[]): Promise<void> {
  const db = database();
  const aside: SetAsideRow = {
    id: `${row.id}-${newId()}`,
    at: now(),
    name: row.name,
    text: JSON.stringify(row.doc),
    faults: faults.map(({ path, code }) => `${path}: ${code}`),
  };
  await db.transaction("rw", db.jobs, db.setAside, async () => {
    await db.setAside.put(aside);
    await db.jobs.delete(row.id);
  });
}

export async function listJobs(): Promise<{
  jobs: JobSummary[];
  deleted: { id: string; name: string }[];
  aside: SetAsideRow[];
}> {
  const db = database();
  const jobs: JobSummary[] = [];
  const deleted: { id: string; name: string }[] = [];
  for (const row of await db.jobs.toArray()) {
    const parsed = parseRow(row);
    if (!parsed.ok) {
      await quarantine(row, parsed.faults);
      continue;
    }
    if (row.deletedAt !== null) {
      deleted.push({ id: row.id, name: row.name });
      continue;
    }
    const { job } = parsed;
    const plan = job.plans.find(({ id }) => id === job.currentPlanId);
    jobs.push({
      id: row.id,
      name: job.name,
      note: job.note,
      kind: job.kind,
      tanks: job.tanks.length,
      parts: (plan?.parts.length ?? 0) + job.consumers.length,
      updatedAt: row.updatedAt,
      exportedAt: row.exportedAt,
      changedSinceExport: row.exportedRevision !== row.revision,
    });
  }
  jobs.sort((a, b) => b.updatedAt.localeCompare(a.updatedAt));
  return { jobs, deleted, aside: await db.setAside.toArray() };
}

export async function loadJob(id: string): Promise<LoadedJob | null> {
  const db = database();
  const row = await db.jobs.get(id);
  if (!row || row.deletedAt !== null) return null;
  const parsed = parseRow(row);
  if (!parsed.ok) {
    await quarantine(row, parsed.faults);
    return null;
  }
  const last = await db.history.where("jobId").equals(id).last();
  return {
    job: parsed.job,
    revision: row.revision,
    cursor: row.cursor,
    lastSeq: last?.seq ?? row.cursor,
    exportedAt: row.exportedAt,
  };
}

function rowOf(job: Job): JobRow {
  return {
    id: job.id,
    name: job.name,
    revision: 0,
    cursor: 0,
    updatedAt: now(),
    exportedAt: null,
    exportedRevision: null,
    deletedAt: null,
    doc: job,
  };
}

async function put(row: JobRow): Promise<void> {
  const db = database();
  await db.transaction("rw", db.jobs, db.history, async () => {
    await db.history.where("jobId").equals(row.id).delete();
    await db.jobs.put(row);
  });
}

/**
 * Applies a command to the job as it stands in the store: a change made meanwhile in another tab is under it, not lost.
 * Nothing is written when the result would not parse.
 */
export async function commit(
  jobId: string,
  command: Command,
  gesture: string | null = null,
): Promise<CommitResult> {
  const db = database();
  return db.transaction("rw", db.jobs, db.history, async (): Promise<CommitResult> => {
    const row = await db.jobs.get(jobId);
    const parsed = row ? parseRow(row) : null;
    if (!row || !parsed?.ok)
      return { ok: false, faults: [{ path: "", code: "noSuch", values: { id: jobId } }] };
    try {
      const { job, patches, inverse, notes } = applyCommand(parsed.job, command);
      const faults = validate(job);
      if (faults.length > 0) return { ok: false, faults };
      if (patches.length === 0) return { ok: true, job, revision: row.revision, notes };
      await remember(row, { command, patches, inverse, gesture });
      await db.jobs.put({ ...row, name: job.name, doc: job, revision: row.revision + 1, updatedAt: now() });
      return { ok: true, job, revision: row.revision + 1, notes };
    } catch (error) {
      if (error instanceof CommandRefused)
        return { ok: false, faults: [{ path: "", code: error.code, values: { id: error.id } }] };
      throw error;
    }
  });
}

/** Writes the step after the cursor; what could have been redone is gone, and the oldest beyond the limit. */
async function remember(
  row: JobRow,
  step: { command: Command; patches: Patch[]; inverse: Patch[]; gesture: string | null },
): Promise<void> {
  const { history } = database();
  const jobId = row.id;
  await history
    .where("[jobId+seq]")
    .between([jobId, row.cursor + 1], [jobId, Infinity], true, true)
    .delete();
  const last = await history.get([jobId, row.cursor]);
  if (step.gesture !== null && last?.gesture === step.gesture) {
    await history.put({
      ...last,
      command: step.command,
      patches: [...last.patches, ...step.patches],
      inverse: [...step.inverse, ...last.inverse],
    });
    return;
  }
  row.cursor += 1;
  await history.put({ jobId, seq: row.cursor, ...step });
  await history
    .where("[jobId+seq]")
    .between([jobId, -Infinity], [jobId, row.cursor - MOST_UNDO], true, true)
    .delete();
}

async function travel(jobId: string, direction: "undo" | "redo"): Promise<Command | null> {
  const db = database();
  return db.transaction("rw", db.jobs, db.history, async () => {
    const row = await db.jobs.get(jobId);
    const parsed = row ? parseRow(row) : null;
    if (!row || !parsed?.ok) return null;
    const seq = direction === "undo" ? row.cursor : row.cursor + 1;
    const step = await db.history.get([jobId, seq]);
    if (!step) return null;
    const job = playPatches(parsed.job, direction === "undo" ? step.inverse : step.patches);
    const cursor = direction === "undo" ? row.cursor - 1 : seq;
    await db.jobs.put({
      ...row,
      name: job.name,
      doc: job,
      revision: row.revision + 1,
      cursor,
      updatedAt: now(),
    });
    return step.command;
  });
}

export const undo = (jobId: string) => travel(jobId, "undo");
export const redo = (jobId: string) => travel(jobId, "redo");

export async function createJob(name: string, starter: StarterId): Promise<string> {
  const job = startJob(newId(), name, starter);
  await put(rowOf(job));
  return job.id;
}

export async function duplicateJob(id: string): Promise<string | null> {
  const loaded = await loadJob(id);
  if (!loaded) return null;
  const copy: Job = { ...structuredClone(loaded.job), id: newId(), name: `${loaded.job.name} copy` };
  await put(rowOf(copy));
  return copy.id;
}

export const deleteJob = (id: string) => database().jobs.update(id, { deletedAt: now() });
export const restoreJob = (id: string) => database().jobs.update(id, { deletedAt: null });

export type ImportResult =
  | { outcome: "kept"; id: string; name: string }
  | { outcome: "exists"; id: string; name: string }
  | { outcome: "refused"; faults: FileFault[] };

/** Takes a job file in. One that exists is not touched until it is said whether to replace it or keep both. */
export async function importJob(text: string, mode: "ask" | "replace" | "keepBoth"): Promise<ImportResult> {
  const found = readJobFile(text);
  if (!found.ok) return { outcome: "refused", faults: found.faults };
  const { job } = found;
  const there = await database().jobs.get(job.id);
  if (there && there.deletedAt === null) {
    if (mode === "ask") return { outcome: "exists", id: job.id, name: there.name };
    if (mode === "keepBoth") {
      const beside: Job = { ...job, id: newId(), name: `${job.name} (imported)`.slice(0, 80) };
      await put(rowOf(beside));
      return { outcome: "kept", id: beside.id, name: beside.name };
    }
  }
  await put(rowOf(job));
  return { outcome: "kept", id: job.id, name: job.name };
}

/** The text of the job's file; the export is noted where the store still takes notes. */
export async function exportJob(id: string): Promise<{ name: string; text: string } | null> {
  const loaded = await loadJob(id);
  if (!loaded) return null;
  const text = writeJobFile(loaded.job);
  try {
    await database().jobs.update(id, { exportedAt: now(), exportedRevision: loaded.revision });
  } catch {
    // A full store must not keep the user from the file; 'last saved' then stays as it was.
  }
  return { name: loaded.job.name, text };
}

/** Brings demo jobs in that this browser has not had yet. One that cannot be fetched is tried again next time. */
export async function seedDemo(files: readonly string[]): Promise<void> {
  const db = database();
  for (const file of files) {
    const key = `seeded:${file}`;
    if (await db.settings.get(key)) continue;
    try {
      const answer = await fetch(`/demo/${file}`);
      if (!answer.ok) continue;
      const result = await importJob(await answer.text(), "ask");
      if (result.outcome !== "refused") await db.settings.put({ key, value: now() });
    } catch {
      // No network: the next visit with one brings it.
    }
  }
}

/** Asks the browser to keep what is stored. */
export async function askToPersist(): Promise<void> {
  if (navigator.storage?.persist && !(await navigator.storage.persisted())) await navigator.storage.persist();
}
