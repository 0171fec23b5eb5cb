/**
 * The jobs of this browser as the list shows them. What reads, checks or makes a job is loaded when it is first needed,
 * so that the list is quick to open.
 */
import type { BoxItem } from "~/core/box/box";
import type { StarterId } from "~/core/edit/starters";
import { BOX_VERSION, VERSION } from "~/schemas/version";
import { type BookRow, database, type JobRecord, type SetAsideRow, type SnapshotRow } from "./database";

export interface JobSummary {
  id: string;
  name: string;
  note: string;
  kind: string;
  tanks: number;
  parts: number;
  updatedAt: string;
  exportedAt: string | null;
  changedSinceExport: boolean;
  /** Another whenever the job or its book changes. */
  mark: string;
  /** Written by a newer version of the application: shown, not opened. */
  isNewer: boolean;
}

export interface JobList {
  jobs: JobSummary[];
  deleted: { id: string; name: string }[];
  aside: SetAsideRow[];
}

const summary = (record: JobRecord): JobSummary => ({
  id: record.id,
  name: record.name,
  ...record.summary,
  updatedAt: record.updatedAt,
  exportedAt: record.exportedAt,
  changedSinceExport:
    record.exportedRevision !== record.revision || record.exportedEntries !== record.entries,
  mark: `${record.stamp}:${record.entries}`,
  isNewer: record.version > VERSION,
});

/** Records in the present version: what an older application wrote is brought up first. */
async function currentRecords(): Promise<JobRecord[]> {
  const records = await database().records.toArray();
  if (!records.some(({ version }) => version < VERSION)) return records;
  const { prepare } = await import("./records");
  await prepare();
  return database().records.toArray();
}

/** The list, from the records alone: no job is read for it. */
export async function listJobs(): Promise<JobList> {
  const records = await currentRecords();
  const jobs = records.filter(({ deletedAt }) => deletedAt === null).map(summary);
  jobs.sort((a, b) => b.updatedAt.localeCompare(a.updatedAt));
  const deleted = records.filter(({ deletedAt }) => deletedAt !== null).map(({ id, name }) => ({ id, name }));
  return { jobs, deleted, aside: await database().setAside.toArray() };
}

export async function createJob(name: string, starter: StarterId): Promise<string> {
  const { putJob } = await import("./files");
  const { startJob } = await import("~/core/edit/starters");
  const { newId } = await import("~/core/kinds/ids");
  return putJob({ job: startJob(newId(), name, starter), book: [], snapshots: {}, pictures: new Map() });
}

export async function duplicateJob(id: string): Promise<string | null> {
  const { copyJob } = await import("./files");
  return copyJob(id);
}

export const deleteJob = (id: string) =>
  database().records.update(id, { deletedAt: new Date().toISOString() });
export const restoreJob = (id: string) => database().records.update(id, { deletedAt: null });

/** The setting that says when everything was last saved in one file. */
export const SAVED_ALL = "savedAll";

/** Says that a restore began; it goes with the restore's own transaction, so that it stays only where that was cut short. */
export const RESTORING = "restoring";

/** One restore at a time over all pages of this browser. */
export const oneRestore = async <T>(work: () => Promise<T>): Promise<T> =>
  globalThis.navigator?.locks ? await navigator.locks.request(RESTORING, work) : work();

/** When a restore began that was cut short, nothing of which was kept; told once. Null where none was. */
export async function restoreCutShort(): Promise<string | null> {
  const { settings } = database();
  if (!(await settings.get(RESTORING))) return null;
  return oneRestore(async () => {
    const left = await settings.get(RESTORING);
    await settings.delete(RESTORING);
    return left?.value ?? null;
  });
}

/** A value that this browser keeps beside the jobs. */
export const readSetting = async (key: string): Promise<string | null> =>
  (await database().settings.get(key))?.value ?? null;

/** Values whose keys begin so. */
export const readSettings = async (prefix: string): Promise<Map<string, string>> =>
  new Map(
    (await database().settings.where("key").startsWith(prefix).toArray()).map(({ key, value }) => [
      key,
      value,
    ]),
  );

export const writeSetting = async (key: string, value: string): Promise<void> => {
  await database().settings.put({ key, value });
};

/** A demo job as the server hands it over: checked there, and with its line in the list ready. */
export interface DemoRows {
  record: JobRecord;
  document: { id: string; doc: unknown };
  book: BookRow[];
  snapshots: SnapshotRow[];
}

/** The demo's box, under a name of its own beside the jobs. */
export const DEMO_BOX = "box";
export interface DemoBox {
  box: BoxItem[];
}

/** What the server hands over; null where it has none or is not reached: the next visit asks again. */
async function handedOver<T>(name: string): Promise<T | null> {
  const answer = await fetch(`/demo/${name}`).catch((error: unknown) => {
    // So a browser tells that there is no network.
    if (error instanceof TypeError) return null;
    throw error;
  });
  const isJson = answer?.ok && answer.headers.get("Content-Type")?.includes("json");
  return isJson ? ((await answer.json()) as T) : null;
}

/** Puts the demo's things in a box that is still empty, once. */
async function seedBox(): Promise<void> {
  const db = database();
  const key = `seeded:${DEMO_BOX}`;
  if (await db.settings.get(key)) return;
  const handed = await handedOver<DemoBox>(DEMO_BOX);
  if (!handed) return;
  await db.transaction("rw", [db.box, db.settings], async () => {
    await db.settings.put({ key, value: new Date().toISOString() });
    if ((await db.box.count()) === 0)
      await db.box.bulkPut(handed.box.map((item) => ({ id: item.id, version: BOX_VERSION, item })));
  });
}

/** Brings demo jobs in that this browser has not had yet. One that cannot be fetched is tried again next time. */
export async function seedDemo(names: readonly string[]): Promise<void> {
  const db = database();
  for (const name of names) {
    const key = `seeded:${name}.keel.json`;
    if (await db.settings.get(key)) continue;
    const handed = await handedOver<DemoRows>(name);
    if (!handed || handed.record.version !== VERSION) continue;
    const { record, document, book, snapshots } = handed;
    await db.transaction("rw", [db.records, db.documents, db.book, db.snapshots, db.settings], async () => {
      await db.settings.put({ key, value: new Date().toISOString() });
      if (await db.records.get(record.id)) return;
      await db.records.put(record);
      await db.documents.put(document);
      await db.book.bulkAdd(book);
      await db.snapshots.bulkPut(snapshots);
    });
  }
  if (names.length > 0) await seedBox();
}

/** Asks the browser to keep what is stored. */
export async function askToPersist(): Promise<void> {
  if (navigator.storage?.persist && !(await navigator.storage.persisted())) await navigator.storage.persist();
}
