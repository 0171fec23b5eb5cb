import { readFile } from "node:fs/promises";
import { join } from "node:path";
import { readJobFile } from "~/schemas/file";
import { VERSION } from "~/schemas/version";
import type { DemoRows } from "~/store/list";
import { newRecord } from "~/store/records";
import type { Route } from "./+types/demo";

/** A demo job as rows of the browser's store, checked here so that a first visit need not. */
async function rowsOf(name: string): Promise<DemoRows | null> {
  const text = await readFile(join(process.cwd(), "demo", `${name}.keel.json`), "utf8").catch(() => null);
  const read = text === null ? null : readJobFile(text);
  if (!read?.ok) return null;
  const { job, book, snapshots } = read;
  const jobId = job.id;
  return {
    record: { ...newRecord(job), entries: book.length },
    document: { id: jobId, doc: job },
    book: book.map((entry) => ({ jobId, id: entry.id, version: VERSION, entry })),
    snapshots: Object.entries(snapshots).map(([hash, snapshot]) => ({
      jobId,
      hash,
      version: VERSION,
      snapshot,
    })),
  };
}

export async function loader({ params }: Route.LoaderArgs) {
  const rows = /^[a-z0-9-]+$/.test(params.name) ? await rowsOf(params.name) : null;
  if (!rows) throw new Response("No such demo job.", { status: 404 });
  return Response.json(rows);
}
