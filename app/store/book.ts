/** The book of a job: rows are only ever added. What this page has read it keeps, and reads on from there. */
import { entryFaults } from "~/core/book/check";
import { type BookEntry, type EntryDraft, isKind } from "~/core/book/entries";
import { type Snapshot, snapshotOf } from "~/core/book/snapshot";
import { standingOf } from "~/core/book/standing";
import { cleaned } from "~/core/edit/merge";
import { newId } from "~/core/kinds/ids";
import { currentPlan } from "~/core/plan/ports";
import type { Job } from "~/core/plan/types";
import { bookEntrySchema } from "~/schemas/book";
import { type FileFault, faultsOf } from "~/schemas/file";
import type { Picture } from "~/schemas/migrations";
import { VERSION } from "~/schemas/version";
import { type BookRow, database } from "./database";
import { bookRows, lastBookRows, now, pictureRow, readStored } from "./records";

export interface ReadBook {
  /** Every entry, strikes too, in the order of entering. */
  all: readonly BookEntry[];
  /** Those that count. */
  standing: readonly BookEntry[];
  /** Rows that did not parse. */
  broken: number;
  /** False while only its last page has been read. */
  isWhole: boolean;
}

const NOTHING: ReadBook = { all: [], standing: [], broken: 0, isWhole: true };
/** So many of the last entries open a job; a longer book is read on behind them. */
const LAST_PAGE = 400;
const read = new Map<string, { lastSeq: number; book: ReadBook }>();

/** The book as it stands: only rows that are new to this page are read and parsed. */
export async function readBook(jobId: string): Promise<ReadBook> {
  const known = read.get(jobId) ?? { lastSeq: -Infinity, book: NOTHING };
  const rows = await bookRows(jobId, known.lastSeq);
  // Another reader may have read the same rows meanwhile.
  const since = read.get(jobId) ?? known;
  const fresh = rows.filter(({ seq = 0 }) => seq > since.lastSeq);
  if (fresh.length === 0) return since.book;
  const book = withRows(since.book, fresh);
  read.set(jobId, { lastSeq: fresh.at(-1)?.seq ?? since.lastSeq, book });
  return book;
}

/** A book with rows that follow it; what does not parse is left out and counted. */
function withRows(before: ReadBook, rows: readonly BookRow[]): ReadBook {
  const parsed = rows.map(({ entry }, i) =>
    bookEntrySchema.safeParse(cleaned(dated(entry, rows[i - 1]?.entry.at ?? before.all.at(-1)?.at))),
  );
  const all = [...before.all, ...parsed.flatMap(({ data }) => data ?? [])];
  const broken = before.broken + parsed.filter(({ success }) => !success).length;
  return { all, standing: standingOf(all), broken, isWhole: true };
}

/**
 * The book to open a job with: as far as this page has read it, else its last page where it is long.
 * {@link readBook} reads on from there.
 */
export async function openBook(jobId: string): Promise<ReadBook> {
  if (read.has(jobId)) return readBook(jobId);
  const rows = await lastBookRows(jobId, LAST_PAGE + 1);
  if (rows.length <= LAST_PAGE) return readBook(jobId);
  return { ...withRows(NOTHING, rows.slice(1)), isWhole: false };
}

/** A fault found was once kept with its place where its day belongs: it takes the day of the entry before it. */
const dated = (entry: BookEntry, before: string | undefined): unknown =>
  entry.kind === "faultFound" && !("ofId" in entry)
    ? { ...(entry as object), ofId: (entry as { at: string }).at, at: before ?? FIRST_DAY }
    : entry;
const FIRST_DAY = "2026-01-01T00:00:00Z";

/** Forgets what was read, as when a restored file has put another book in its place. */
export const forgetBook = (jobId: string): void => void read.delete(jobId);

const snapshots = new WeakMap<Job, { hash: string; snapshot: Snapshot }>();

function citedBy(job: Job): { hash: string; snapshot: Snapshot } {
  const known = snapshots.get(job);
  if (known) return known;
  const made = snapshotOf(job, currentPlan(job));
  snapshots.set(job, made);
  return made;
}

export type EnterResult = { ok: true; ids: string[] } | { ok: false; faults: FileFault[] };

/** Enters in the book, all or nothing: entries cite the plan as it stands now, which is kept once a content. */
export async function enter(
  jobId: string,
  drafts: readonly EntryDraft[],
  pictures: ReadonlyMap<string, Picture> = new Map(),
): Promise<EnterResult> {
  const db = database();
  const tables = [db.records, db.documents, db.book, db.snapshots, db.pictures];
  return db.transaction("rw", tables, async (): Promise<EnterResult> => {
    const stored = await readStored(jobId);
    if (stored.status !== "open")
      return { ok: false, faults: [{ path: "", code: "noSuch", values: { id: jobId } }] };
    const { hash, snapshot } = citedBy(stored.job);
    const base = { planId: stored.job.currentPlanId, planHash: hash };
    const rows: BookRow[] = [];
    const faults: FileFault[] = [];
    for (const [i, { at = now(), ...draft }] of drafts.entries()) {
      const found = bookEntrySchema.safeParse(cleaned({ ...draft, ...base, id: newId(), at }));
      if (!found.success) faults.push(...faultsOf(found.error, `book[${i}]`));
      else {
        const entry = found.data;
        faults.push(...entryFaults(entry, snapshot, `book[${i}]`));
        if (entry.kind === "strike" && !(await db.book.where({ jobId, id: entry.entryId }).count()))
          faults.push({ path: `book[${i}].entryId`, code: "missingEntry", values: { id: entry.entryId } });
        rows.push({ jobId, id: entry.id, version: VERSION, entry });
      }
    }
    if (faults.length > 0) return { ok: false, faults };
    if (!(await db.snapshots.get([jobId, hash])))
      await db.snapshots.put({ jobId, hash, version: VERSION, snapshot });
    await db.book.bulkAdd(rows);
    await db.pictures.bulkPut([...pictures].map(([id, picture]) => pictureRow(jobId, id, picture)));
    const entries = stored.record.entries + rows.length;
    await db.records.update(jobId, { entries, updatedAt: now() });
    return { ok: true, ids: rows.map(({ id }) => id) };
  });
}

/** A picture of the book as a blob: small for lists, or full; null where its file was left out. */
export async function readPicture(jobId: string, id: string, size: "preview" | "full"): Promise<Blob | null> {
  const row = await database().pictures.get([jobId, id]);
  if (!row) return null;
  return size === "preview" ? (row.preview ?? row.full) : row.full;
}

/** Entries of a kind that stand, over all jobs of this browser that are not deleted, by job. */
export async function entriesOfAll<K extends BookEntry["kind"]>(
  kind: K,
): Promise<Map<string, Extract<BookEntry, { kind: K }>[]>> {
  const records = await database().records.toArray();
  const found = new Map<string, Extract<BookEntry, { kind: K }>[]>();
  for (const { id, deletedAt, version } of records) {
    if (deletedAt !== null || version > VERSION) continue;
    const own = (await readBook(id)).standing.filter(isKind(kind));
    if (own.length > 0) found.set(id, own);
  }
  return found;
}
