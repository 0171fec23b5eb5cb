/** Jobs in and out as files, one by one or all at once. */
import type { Table } from "dexie";
import { reconciled } from "~/core/edit/reconcile";
import { newId } from "~/core/kinds/ids";
import type { Job } from "~/core/plan/types";
import { readBoxFile, writeBoxFile } from "~/schemas/box";
import { type FileFault, type JobFile, type ReadFile, writeJobFile } from "~/schemas/file";
import type { Picture } from "~/schemas/migrations";
import { LONGEST_NAME } from "~/schemas/primitives";
import { type Pictures, type ReadAll, writeAllZip, writeJobZip } from "~/schemas/zip";
import { forgetBook, readBook } from "./book";
import { changeBox, readBox } from "./box";
import { database } from "./database";
import { commit } from "./history";
import { oneRestore, RESTORING, SAVED_ALL } from "./list";
import { allTables, newRecord, now, putContents, readStored } from "./records";

export type ImportResult =
  | { outcome: "kept"; id: string; name: string }
  | { outcome: "exists"; id: string; name: string }
  | { outcome: "refused"; faults: FileFault[] };

/**
 * `logAlone`: the job stays as it is here, and the log of the file is joined to its own. With `taken` the differences of
 * these keys come from the file, all others stay as they are here.
 */
export type ImportMode = "ask" | "replace" | "keepBoth" | "logAlone" | { taken: ReadonlySet<string> };

/** A name with words behind it, cut so that both fit. */
export const namedBeside = (name: string, words: string): string =>
  `${name.slice(0, LONGEST_NAME - words.length - 1).trimEnd()} ${words}`;

/** What a transaction is left with when what was asked is refused in it: nothing of it is kept. */
class Refused extends Error {
  constructor(readonly faults: FileFault[]) {
    super("refused");
  }
}

/** All or nothing: what is refused on the way leaves the store as it was. */
async function allOrNothing<T>(
  tables: Table[],
  work: () => Promise<T>,
): Promise<T | { outcome: "refused"; faults: FileFault[] }> {
  try {
    return await database().transaction("rw", tables, work);
  } catch (error) {
    if (error instanceof Refused) return { outcome: "refused", faults: error.faults };
    throw error;
  }
}

/**
 * Takes in a job that is sound. One that exists is not touched until it is said whether to replace it or keep both;
 * replacing it is a change like any other, which can be undone, and the two books are joined. In a transaction.
 */
async function take(file: JobFile & { pictures: Pictures }, mode: ImportMode): Promise<ImportResult> {
  const db = database();
  const { job, book, snapshots } = file;
  const pictures = new Map(file.pictures);
  const there = await db.records.get(job.id);
  if (there === undefined || there.deletedAt !== null) {
    // A job that was deleted here comes back with its book; its own changes cannot be undone into it.
    await db.steps.where("jobId").equals(job.id).delete();
    await putContents({ record: newRecord(job), job, book, snapshots, pictures });
    return { outcome: "kept", id: job.id, name: job.name };
  }
  if (mode === "ask") return { outcome: "exists", id: job.id, name: there.name };
  if (mode === "keepBoth") {
    const beside: Job = { ...job, id: newId(), name: namedBeside(job.name, "(imported)") };
    await putContents({ record: newRecord(beside), job: beside, book, snapshots, pictures });
    return { outcome: "kept", id: beside.id, name: beside.name };
  }
  const stored = await readStored(job.id);
  if (mode === "logAlone") {
    if (stored.status !== "open") throw new Refused([{ path: "", code: "noSuch", values: { id: job.id } }]);
    await putContents({ record: stored.record, job: stored.job, book, snapshots, pictures });
    return { outcome: "kept", id: job.id, name: there.name };
  }
  const wanted =
    typeof mode === "object" && stored.status === "open" ? reconciled(stored.job, job, mode.taken) : job;
  const result = await commit(job.id, { name: "replaceJob", job: wanted });
  if (!result.ok) throw new Refused(result.faults);
  const record = await db.records.get(job.id);
  if (record) await putContents({ record, job: result.job, book, snapshots, pictures });
  return { outcome: "kept", id: job.id, name: job.name };
}

/** The job here and the one of a file, where both are there: to be held against one another. Null else. */
export async function bothOf(found: ReadFile): Promise<{ here: Job; there: Job } | null> {
  if (!found.ok) return null;
  const stored = await readStored(found.job.id);
  return stored.status === "open" ? { here: stored.job, there: found.job } : null;
}

/** Takes in what was read of a file, whole or not at all. */
export async function importJob(found: ReadFile, mode: ImportMode): Promise<ImportResult> {
  if (!found.ok) return { outcome: "refused", faults: found.faults };
  return allOrNothing(allTables(), () => take(found, mode));
}

/** Puts a job that is new here. */
export async function putJob(file: JobFile & { pictures: Map<string, Picture> }): Promise<string> {
  const { job, book, snapshots, pictures } = file;
  await database().transaction("rw", allTables(), () =>
    putContents({ record: newRecord(job), job, book, snapshots, pictures }),
  );
  return job.id;
}

/** A copy under an id of its own, with its book and pictures. */
export async function copyJob(id: string): Promise<string | null> {
  const file = await fileOf(id);
  if (!file) return null;
  const job: Job = { ...structuredClone(file.job), id: newId(), name: namedBeside(file.job.name, "copy") };
  return putJob({ ...file, job, pictures: await picturesOf(id) });
}

/** The pictures that the standing or struck entries of a book show. */
async function picturesOf(jobId: string): Promise<Map<string, Picture>> {
  const rows = await database().pictures.where("jobId").equals(jobId).toArray();
  return new Map(
    rows.map(({ id, type, full, preview }) => [id, { type, full, ...(preview && { preview }) }]),
  );
}

/** A job as a file holds it, or null where it is not here. */
async function fileOf(id: string): Promise<(JobFile & { revision: number }) | null> {
  const stored = await readStored(id);
  if (stored.status !== "open") return null;
  const rows = await database().snapshots.where("jobId").equals(id).toArray();
  const { all } = await readBook(id);
  const cited = new Set(all.map(({ planHash }) => planHash));
  return {
    job: stored.job,
    book: [...all],
    snapshots: Object.fromEntries(
      rows.filter(({ hash }) => cited.has(hash)).map(({ hash, snapshot }) => [hash, snapshot]),
    ),
    revision: stored.record.revision,
  };
}

/** What a job's file would weigh, and how many pictures it has: said before it is written. */
export interface FileSizes {
  plainBytes: number;
  pictures: number;
  pictureBytes: number;
}

export interface WrittenFile {
  name: string;
  extension: "keel.json" | "keel.zip";
  blob: Blob;
}

export async function fileSizes(id: string): Promise<FileSizes | null> {
  const file = await fileOf(id);
  if (!file) return null;
  let [pictures, pictureBytes] = [0, 0];
  await database()
    .pictures.where("jobId")
    .equals(id)
    .each(({ full, preview }) => {
      pictures += 1;
      pictureBytes += full.size + (preview?.size ?? 0);
    });
  return { plainBytes: new Blob([writeJobFile(file)]).size, pictures, pictureBytes };
}

async function noteExport(id: string, revision: number, entries: number): Promise<void> {
  try {
    await database().records.update(id, {
      exportedAt: now(),
      exportedRevision: revision,
      exportedEntries: entries,
    });
  } catch {
    // A full store must not keep the user from the file; 'last saved' then stays as it was.
  }
}

/** A job's file, with its pictures or without; the export is noted where the store still takes notes. */
export async function exportJob(id: string, withPictures = false): Promise<WrittenFile | null> {
  const file = await fileOf(id);
  if (!file) return null;
  const { name } = file.job;
  const written: WrittenFile = withPictures
    ? { name, extension: "keel.zip", blob: await writeJobZip({ ...file, pictures: await picturesOf(id) }) }
    : { name, extension: "keel.json", blob: new Blob([writeJobFile(file)], { type: "application/json" }) };
  await noteExport(id, file.revision, file.book.length);
  return written;
}

/** Settings that belong to this browser and not to its data. */
const ownSettings = [SAVED_ALL, RESTORING];
/** Where the shop's box stands among them in a file of everything. */
const BOX = "box";

/** Everything in one file; each job is read as its turn comes. */
export async function exportAll(): Promise<Blob> {
  const db = database();
  const records = await db.records.filter(({ deletedAt }) => deletedAt === null).toArray();
  async function* jobs() {
    for (const { id } of records) {
      const file = await fileOf(id);
      if (file) yield { ...file, pictures: await picturesOf(id) };
    }
  }
  const settings = (await db.settings.toArray()).filter(({ key }) => !ownSettings.includes(key));
  return writeAllZip({
    jobs: jobs(),
    settings: {
      ...Object.fromEntries(settings.map(({ key, value }) => [key, value])),
      [BOX]: writeBoxFile((await readBox()).items),
    },
  });
}

/** Notes that everything was saved, once the file is written. */
export const noteSavedAll = () => database().settings.put({ key: SAVED_ALL, value: now() });

export type RestoreResult =
  | { outcome: "restored"; jobs: number }
  /** What is here and would be replaced: asked before anything is done. */
  | { outcome: "asks"; jobs: number; replaced: string[] }
  | { outcome: "refused"; faults: FileFault[] };

/**
 * Takes everything back in: all of it or nothing, in one transaction of the store, so that a page that is ended in the
 * middle leaves what was here. Jobs that are not in the file stay.
 */
export async function restoreAll(found: ReadAll, isAsked: boolean): Promise<RestoreResult> {
  if (!found.ok) return { outcome: "refused", faults: found.faults };
  const { [BOX]: text, ...settings } = found.settings;
  // Judged before a single job is taken: a file is taken whole or not at all.
  const box = text === undefined ? null : readBoxFile(text);
  if (box && !box.ok) return { outcome: "refused", faults: box.faults };
  const db = database();
  if (!isAsked) {
    const here = await db.records.filter(({ deletedAt }) => deletedAt === null).toArray();
    const names = new Map(here.map(({ id, name }) => [id, name]));
    const replaced = found.jobs.flatMap(({ job }) => names.get(job.id) ?? []);
    return { outcome: "asks", jobs: found.jobs.length, replaced };
  }
  return oneRestore(async () => {
    await db.settings.put({ key: RESTORING, value: now() });
    const result = await allOrNothing([...allTables(), db.box, db.boxSteps], async () => {
      for (const file of found.jobs) await take(file, "replace");
      const own = box?.ok ? await changeBox(() => box.items) : null;
      if (own?.ok === false) throw new Refused(own.faults);
      const kept = Object.entries(settings).filter(([key]) => !ownSettings.includes(key));
      await db.settings.bulkPut(kept.map(([key, value]) => ({ key, value })));
      await db.settings.delete(RESTORING);
      return { outcome: "restored" as const, jobs: found.jobs.length };
    });
    if (result.outcome === "refused") await db.settings.delete(RESTORING);
    for (const { job } of found.jobs) forgetBook(job.id);
    return result;
  });
}
