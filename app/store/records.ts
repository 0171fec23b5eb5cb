/** Jobs as they lie in the store: read once a stamp, migrated when they are older, never dropped when they do not parse. */
import { checkBook } from "~/core/book/check";
import { cleaned } from "~/core/edit/merge";
import { newId } from "~/core/kinds/ids";
import type { Job } from "~/core/plan/types";
import { bookEntrySchema, snapshotSchema } from "~/schemas/book";
import { type FileFault, FORMAT, faultsOf } from "~/schemas/file";
import { jobSchema } from "~/schemas/job";
import { migrate, migratePatches, type Picture } from "~/schemas/migrations";
import { VERSION } from "~/schemas/version";
import {
  type BookRow,
  database,
  type HistoryRow,
  type JobRecord,
  type PictureRow,
  type SetAsideRow,
  type SnapshotRow,
  type Summary,
} from "./database";

export const now = () => new Date().toISOString();

export function summaryOf(job: Job): Summary {
  const plan = job.plans.find(({ id }) => id === job.currentPlanId);
  return {
    note: job.note,
    kind: job.kind,
    tanks: job.tanks.length,
    parts: (plan?.parts.length ?? 0) + job.consumers.length,
  };
}

export type StoredJob =
  | { status: "open"; record: JobRecord; job: Job }
  /** Not here, or deleted. */
  | { status: "gone" }
  /** It no longer parses; the caller sets it aside, outside of a live query. */
  | { status: "broken"; record: JobRecord; faults: FileFault[] }
  /** Written by a newer version of the application: nothing is changed. */
  | { status: "newer"; record: JobRecord }
  /** Written by an older version; `prepare` brings it up. */
  | { status: "older"; record: JobRecord };

/** What was parsed last of each job: one parse a stamp, whoever asks. */
const parsed = new Map<string, { stamp: string; job: Job }>();

export function keepParsed(record: JobRecord, job: Job): void {
  parsed.set(record.id, { stamp: record.stamp, job });
}

/** A job as it stands in the store; deleted ones too where they are asked for. */
export async function readStored(id: string, evenDeleted = false): Promise<StoredJob> {
  const db = database();
  const record = await db.records.get(id);
  if (!record || (record.deletedAt !== null && !evenDeleted)) return { status: "gone" };
  if (record.version > VERSION) return { status: "newer", record };
  if (record.version < VERSION) return { status: "older", record };
  const known = parsed.get(id);
  if (known?.stamp === record.stamp) return { status: "open", record, job: known.job };
  const row = await db.documents.get(id);
  // Older rows may hold a figure that is not known as a key without a value.
  const found = jobSchema.safeParse(cleaned(row?.doc));
  if (!found.success) return { status: "broken", record, faults: faultsOf(found.error, "job") };
  keepParsed(record, found.data);
  return { status: "open", record, job: found.data };
}

/** Sets a job aside that does not parse, with all that is known of it; it is offered as a file and never dropped. */
export async function quarantine(id: string, faults: readonly FileFault[]): Promise<void> {
  const db = database();
  await db.transaction(
    "rw",
    [db.records, db.documents, db.steps, db.book, db.snapshots, db.setAside],
    async () => {
      const record = await db.records.get(id);
      if (!record) return;
      const row = await db.documents.get(id);
      const book = await bookRows(id);
      const snapshots = await db.snapshots.where("jobId").equals(id).toArray();
      const value = {
        format: FORMAT,
        version: record.version,
        job: row?.doc,
        ...(record.version > 1 && {
          book: book.map(({ entry }) => entry),
          snapshots: Object.fromEntries(snapshots.map(({ hash, snapshot }) => [hash, snapshot])),
        }),
      };
      const aside: SetAsideRow = {
        id: `${id}-${newId()}`,
        at: now(),
        name: record.name,
        text: JSON.stringify(value),
        faults: faults.map(({ path, code }) => `${path}: ${code}`),
      };
      await db.setAside.put(aside);
      await db.records.delete(id);
      await db.documents.delete(id);
      await db.steps.where("jobId").equals(id).delete();
      await db.book.where("[jobId+seq]").between([id, -Infinity], [id, Infinity]).delete();
      await db.snapshots.where("jobId").equals(id).delete();
    },
  );
}

export const bookRows = (jobId: string, after = -Infinity): Promise<BookRow[]> =>
  database().book.where("[jobId+seq]").between([jobId, after], [jobId, Infinity], false, true).toArray();

/** The last rows of a book, in the order of entering. */
export async function lastBookRows(jobId: string, count: number): Promise<BookRow[]> {
  const rows = database().book.where("[jobId+seq]").between([jobId, -Infinity], [jobId, Infinity]);
  return (await rows.reverse().limit(count).toArray()).reverse();
}

/** Everything of one job that an import or a migration writes. */
export interface Contents {
  record: JobRecord;
  job: Job;
  book: BookRow["entry"][];
  snapshots: Record<string, SnapshotRow["snapshot"]>;
  pictures: Map<string, Picture>;
}

export const pictureRow = (jobId: string, id: string, { type, full, preview }: Picture): PictureRow => ({
  jobId,
  id,
  type,
  full,
  preview: preview ?? null,
});

/** A record for a job that is new here. */
export function newRecord(job: Job): JobRecord {
  return {
    id: job.id,
    version: VERSION,
    name: job.name,
    summary: summaryOf(job),
    revision: 0,
    stamp: newId(),
    turn: 0,
    entries: 0,
    updatedAt: now(),
    exportedAt: null,
    exportedRevision: null,
    exportedEntries: null,
    deletedAt: null,
  };
}

export const allTables = () => {
  const db = database();
  return [db.records, db.documents, db.steps, db.book, db.snapshots, db.pictures, db.setAside, db.settings];
};

/** Writes a job with its book; entries, plans and pictures that are there already stay. In a transaction. */
export async function putContents({ record, job, book, snapshots, pictures }: Contents): Promise<void> {
  const db = database();
  const jobId = record.id;
  const there = new Set((await bookRows(jobId)).map(({ id }) => id));
  const fresh = book.filter(({ id }) => !there.has(id));
  const written: JobRecord = { ...record, entries: there.size + fresh.length };
  await db.records.put(written);
  await db.documents.put({ id: jobId, doc: job });
  await db.book.bulkAdd(fresh.map((entry) => ({ jobId, id: entry.id, version: VERSION, entry })));
  await db.snapshots.bulkPut(
    Object.entries(snapshots).map(([hash, snapshot]) => ({ jobId, hash, version: VERSION, snapshot })),
  );
  await db.pictures.bulkPut([...pictures].map(([id, picture]) => pictureRow(jobId, id, picture)));
}

/** The steps of undo as they read in this version: from the newest back to the first that cannot be carried over. */
function carrySteps(steps: readonly HistoryRow[], from: number): HistoryRow[] {
  const kept: HistoryRow[] = [];
  for (const step of [...steps].reverse()) {
    const patches = migratePatches(step.patches, from);
    const inverse = migratePatches(step.inverse, from);
    if (!patches || !inverse) break;
    if (patches.length > 0) kept.unshift({ ...step, patches, inverse });
  }
  return kept;
}

async function bringUp(record: JobRecord): Promise<void> {
  const db = database();
  await db.transaction("rw", allTables(), async () => {
    const row = await db.documents.get(record.id);
    const file = {
      format: FORMAT,
      version: record.version,
      job: row?.doc,
      ...(record.version > 1 && {
        book: (await bookRows(record.id)).map(({ entry }) => entry),
        snapshots: Object.fromEntries(
          (await db.snapshots.where("jobId").equals(record.id).toArray()).map(({ hash, snapshot }) => [
            hash,
            snapshot,
          ]),
        ),
      }),
    };
    const bundle = migrate({ file, pictures: new Map() }, record.version);
    const { job, book, snapshots } = cleaned(bundle.file) as {
      job: unknown;
      book: unknown[];
      snapshots: object;
    };
    const sound = jobSchema.safeParse(job);
    if (!sound.success) throw new BrokenRow(faultsOf(sound.error, "job"));
    const entries = book.map((entry) => bookEntrySchema.safeParse(entry));
    const kept = Object.entries(snapshots).map(
      ([hash, one]) => [hash, snapshotSchema.safeParse(one)] as const,
    );
    const bad = [...entries, ...kept.map(([, one]) => one)].find(({ success }) => !success);
    if (bad?.error) throw new BrokenRow(faultsOf(bad.error, "book"));
    const contents = {
      job: sound.data,
      book: entries.flatMap(({ data }) => data ?? []),
      snapshots: Object.fromEntries(kept.flatMap(([hash, { data }]) => (data ? [[hash, data]] : []))),
    };
    const faults = checkBook(contents.book, contents.snapshots);
    if (faults.length > 0) throw new BrokenRow(faults);
    const steps = await db.steps.where("jobId").equals(record.id).sortBy("seq");
    const carried = carrySteps(steps, record.version);
    await db.steps.where("jobId").equals(record.id).delete();
    await db.steps.bulkPut(carried);
    await putContents({
      ...contents,
      record: {
        ...record,
        version: VERSION,
        summary: summaryOf(sound.data),
        stamp: newId(),
        exportedEntries: record.exportedRevision === record.revision ? contents.book.length : null,
      },
      pictures: bundle.pictures,
    });
  });
}

class BrokenRow extends Error {
  constructor(readonly faults: FileFault[]) {
    super("a stored job does not parse");
  }
}

/** Brings older rows up, each by itself: one that does not parse is set aside and keeps none of the others back. */
export async function prepare(): Promise<void> {
  const older = await database()
    .records.filter(({ version }) => version < VERSION)
    .toArray();
  for (const record of older) {
    try {
      await bringUp(record);
    } catch (error) {
      if (error instanceof BrokenRow) await quarantine(record.id, error.faults);
      else if (error instanceof Error && error.name === "Error")
        await quarantine(record.id, [{ path: "job", code: "notMigrated" }]);
      else throw error;
    }
  }
}
