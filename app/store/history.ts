/**
 * Changes to a job: each is written with its inverse in one transaction and checked before it is kept. A tab undoes its
 * own changes; one that another tab has since changed further is undone only together with what came after it.
 */

import type { Patch } from "immer";
import { carryOut } from "~/core/drawing/carryOut";
import { type Command, CommandRefused, type Note } from "~/core/edit/command";
import { playPatches } from "~/core/edit/commands";
import { joined, overlap } from "~/core/edit/patches";
import { newId } from "~/core/kinds/ids";
import type { Job } from "~/core/plan/types";
import type { FileFault } from "~/schemas/file";
import { jobFaults } from "~/schemas/file";
import { database, type HistoryRow, type JobRecord } from "./database";
import { keepParsed, now, readStored, type StoredJob, summaryOf } from "./records";

export const MOST_UNDO = 500;

export type CommitResult =
  | { ok: true; job: Job; revision: number; notes: Note[] }
  | { ok: false; faults: FileFault[] };

/** A page and the turn from which other pages' changes are not its own. */
export interface Tab {
  id: string;
  /** Turn of the record when the page opened the job: what was done before is its own to undo. */
  since: number;
}

const refused = (code: string, values: FileFault["values"] = {}): { ok: false; faults: FileFault[] } => ({
  ok: false,
  faults: [{ path: "", code, values }],
});

/** Why a job cannot be changed now. */
function closedFault(stored: Exclude<StoredJob, { status: "open" }>, id: string) {
  switch (stored.status) {
    case "gone":
      return refused("noSuch", { id });
    case "broken":
      return refused("brokenRow", { name: stored.record.name });
    case "newer":
      return refused("newerRow", { name: stored.record.name });
    case "older":
      return refused("olderRow", { name: stored.record.name });
  }
}

/** Writes the job and its record; returns the record as written. */
async function write(record: JobRecord, job: Job, turn: number): Promise<JobRecord> {
  const db = database();
  const written: JobRecord = {
    ...record,
    name: job.name,
    summary: summaryOf(job),
    revision: record.revision + 1,
    stamp: newId(),
    turn,
    updatedAt: now(),
  };
  await db.records.put(written);
  await db.documents.put({ id: job.id, doc: job });
  keepParsed(written, job);
  return written;
}

const stepsOf = (jobId: string) =>
  database().steps.where("[jobId+seq]").between([jobId, -Infinity], [jobId, Infinity]);

const isOwn = (step: HistoryRow, tab: Tab): boolean => step.tab === tab.id || step.madeAt <= tab.since;

/**
 * Applies a command to the job as it stands in the store: a change made meanwhile in another tab is under it, not lost.
 * Nothing is written when the result would not parse.
 */
export async function commit(
  jobId: string,
  command: Command,
  gesture: string | null = null,
  tab: Tab = { id: "", since: Number.MAX_SAFE_INTEGER },
): Promise<CommitResult> {
  const db = database();
  return db.transaction("rw", db.records, db.documents, db.steps, async (): Promise<CommitResult> => {
    const stored = await readStored(jobId);
    if (stored.status !== "open") return closedFault(stored, jobId);
    const { record } = stored;
    try {
      const { job, patches, inverse, notes } = carryOut(stored.job, command);
      if (patches.length === 0) return { ok: true, job, revision: record.revision, notes };
      const faults = jobFaults(job);
      if (faults.length > 0) return { ok: false, faults };
      const turn = record.turn + 1;
      await remember(jobId, { command, patches, inverse, gesture }, tab, turn);
      const written = await write(record, job, turn);
      return { ok: true, job, revision: written.revision, notes };
    } catch (error) {
      if (error instanceof CommandRefused) return refused(error.code, { id: error.id });
      throw error;
    }
  });
}

interface Step {
  command: Command;
  patches: Patch[];
  inverse: Patch[];
  gesture: string | null;
}

/** Writes a step after the last; what this tab could have redone is gone, and the oldest beyond the limit. */
async function remember(jobId: string, step: Step, tab: Tab, turn: number): Promise<void> {
  const { steps } = database();
  const last = await stepsOf(jobId).last();
  if (last && step.gesture !== null && last.gesture === step.gesture && !last.isUndone) {
    const change = joined(last, step);
    await steps.put({ ...last, ...change, command: step.command, madeAt: turn, playedAt: turn });
    return;
  }
  // What is undone stands at the end, but for what other tabs did in between.
  const redoable = await stepsOf(jobId)
    .reverse()
    .until((one) => !one.isUndone && isOwn(one, tab))
    .filter((one) => one.isUndone && isOwn(one, tab))
    .primaryKeys();
  await steps.bulkDelete(redoable);
  const seq = (last?.seq ?? 0) + 1;
  await steps.put({ jobId, seq, ...step, tab: tab.id, isUndone: false, madeAt: turn, playedAt: turn });
  await steps
    .where("[jobId+seq]")
    .between([jobId, -Infinity], [jobId, seq - MOST_UNDO], true, true)
    .delete();
}

export type TravelResult =
  | { outcome: "done"; command: Command; revision: number }
  /** Nothing of this tab's is left. */
  | { outcome: "nothing" }
  /** Another tab has since changed the same, `others` times: asked before these are undone with it. */
  | { outcome: "asks"; others: number }
  | { outcome: "refused"; faults: FileFault[] };

const standing = (steps: readonly HistoryRow[]) => steps.filter(({ isUndone }) => !isUndone);

/** The step that undo or redo would play for a tab: of its own the last made, or the last undone. */
export function nextStep(
  steps: readonly HistoryRow[],
  tab: Tab,
  direction: "undo" | "redo",
): HistoryRow | null {
  const own = steps.filter((step) => step.isUndone === (direction === "redo") && isOwn(step, tab));
  const rank = ({ seq, playedAt }: HistoryRow) => (direction === "undo" ? seq : playedAt);
  return own.reduce<HistoryRow | null>(
    (best, step) => (!best || rank(step) > rank(best) ? step : best),
    null,
  );
}

/** What other tabs have done since a step was last played, and that still has an effect. */
const sinceThen = (steps: readonly HistoryRow[], step: HistoryRow, tab: Tab): HistoryRow[] =>
  steps.filter(
    (other) =>
      !isOwn(other, tab) &&
      other.playedAt > step.playedAt &&
      !(other.madeAt > step.playedAt && other.isUndone),
  );

/** A step and those after it that changed the same, or what such a one changed; the first first. */
function builtOn(step: HistoryRow, steps: readonly HistoryRow[]): HistoryRow[] {
  const built = [step];
  for (const later of steps.filter(({ seq }) => seq > step.seq))
    if (built.some((one) => overlap(one, later))) built.push(later);
  return built;
}

async function travel(
  jobId: string,
  direction: "undo" | "redo",
  tab: Tab,
  evenOthers: boolean,
): Promise<TravelResult> {
  const db = database();
  return db.transaction("rw", db.records, db.documents, db.steps, async (): Promise<TravelResult> => {
    const stored = await readStored(jobId);
    if (stored.status !== "open") return { outcome: "refused", faults: closedFault(stored, jobId).faults };
    const all = await stepsOf(jobId).toArray();
    const step = nextStep(all, tab, direction);
    if (!step) return { outcome: "nothing" };
    const others = sinceThen(all, step, tab);
    const touching = others.filter((other) => overlap(step, other));
    if (touching.length > 0 && direction === "redo")
      return { outcome: "refused", faults: refused("changedSince").faults };
    if (touching.length > 0 && !evenOthers) return { outcome: "asks", others: touching.length };
    const played = touching.length > 0 ? builtOn(step, standing(all)).reverse() : [step];
    const job = played.reduce(
      (made, one) => playPatches(made, direction === "undo" ? one.inverse : one.patches),
      stored.job,
    );
    const faults = jobFaults(job);
    if (faults.length > 0) return { outcome: "refused", faults };
    let turn = stored.record.turn;
    for (const one of played) {
      turn += 1;
      await db.steps.put({ ...one, isUndone: direction === "undo", playedAt: turn });
    }
    const written = await write(stored.record, job, turn);
    return { outcome: "done", command: step.command, revision: written.revision };
  });
}

const anyTab: Tab = { id: "", since: Number.MAX_SAFE_INTEGER };

/** Takes back the last change of a tab; `evenOthers` with what other tabs have since made of the same. */
export const undo = (jobId: string, tab: Tab = anyTab, evenOthers = false) =>
  travel(jobId, "undo", tab, evenOthers);
export const redo = (jobId: string, tab: Tab = anyTab) => travel(jobId, "redo", tab, false);

/** What was done last and stands; null where nothing is kept of it. */
export const lastChange = async (jobId: string): Promise<Command | null> =>
  (
    await stepsOf(jobId)
      .reverse()
      .filter(({ isUndone }) => !isUndone)
      .first()
  )?.command ?? null;

/** Whether a tab has something to undo or redo. */
export async function undoable(jobId: string, tab: Tab): Promise<{ canUndo: boolean; canRedo: boolean }> {
  let canUndo = false;
  let canRedo = false;
  await stepsOf(jobId)
    .reverse()
    .until(() => canUndo)
    .each((step) => {
      if (!isOwn(step, tab)) return;
      if (step.isUndone) canRedo = true;
      else canUndo = true;
    });
  return { canUndo, canRedo };
}
