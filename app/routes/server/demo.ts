import { readFile } from "node:fs/promises";
import { join } from "node:path";
import { readBoxFile } from "~/schemas/box";
import { readJobFile } from "~/schemas/file";
import { VERSION } from "~/schemas/version";
import { DEMO_BOX, type DemoBox, type DemoRows } from "~/store/list";
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

/** The demo's box, as its file has it. */
async function boxOf(): Promise<DemoBox | null> {
  const text = await readFile(join(process.cwd(), "demo", "box.keel-box.json"), "utf8").catch(() => null);
  const read = text === null ? null : readBoxFile(text);
  return read?.ok ? { box: read.items } : null;
}

export async function loader({ params }: Route.LoaderArgs) {
  if (params.name === DEMO_BOX) {
    const box = await boxOf();
    if (box) return Response.json(box);
  }
  const rows = /^[a-z0-9-]+$/.test(params.name) ? await rowsOf(params.name) : null;
  if (!rows) throw new Response("No such demo job.", { status: 404 });
  return Response.json(rows);
}
