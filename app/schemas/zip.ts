/**
 * Files with pictures. `.keel.zip` is a job's file and its pictures; `.keel-all.zip` is every job of a browser with its
 * settings. Pictures are stored as they are; times are fixed, so that equal contents give equal bytes.
 */
import { strFromU8, strToU8, unzipSync, type Zippable, zipSync } from "fflate";
import { type FileFault, FORMAT, type JobFile, type ReadFile, readJobFile, writeJobFile } from "./file";
import type { Picture } from "./migrations";
import { VERSION } from "./version";
import { z } from "./zod";

const JOB = "job.keel.json";
const SETTINGS = "settings.json";
const WRITTEN = new Date("2000-01-01T12:00:00");
const extensions: Record<Picture["type"], string> = {
  "image/jpeg": "jpg",
  "image/png": "png",
  "image/webp": "webp",
};
const typeOf = (name: string): Picture["type"] | undefined =>
  (Object.keys(extensions) as Picture["type"][]).find((type) => name.endsWith(`.${extensions[type]}`));

export type Pictures = ReadonlyMap<string, Picture>;

function members({ pictures, ...file }: JobFile & { pictures: Pictures }, folder = ""): Zippable {
  const zip: Zippable = { [`${folder}${JOB}`]: [strToU8(writeJobFile(file)), { level: 6 }] };
  for (const [id, { type, bytes, preview }] of pictures) {
    zip[`${folder}pictures/${id}.${extensions[type]}`] = [bytes, { level: 0 }];
    if (preview) zip[`${folder}previews/${id}.jpg`] = [preview, { level: 0 }];
  }
  return zip;
}

export const writeJobZip = (file: JobFile & { pictures: Pictures }): Uint8Array =>
  zipSync(members(file), { mtime: WRITTEN });

function picturesIn(files: Record<string, Uint8Array>, folder: string): Map<string, Picture> {
  const pictures = new Map<string, Picture>();
  for (const [path, bytes] of Object.entries(files)) {
    const [, id = ""] = new RegExp(`^${folder}pictures/([A-Za-z0-9_-]+)\\.[a-z]+$`).exec(path) ?? [];
    const type = typeOf(path);
    if (!id || !type) continue;
    const preview = files[`${folder}previews/${id}.jpg`];
    pictures.set(id, { type, bytes, ...(preview && { preview }) });
  }
  return pictures;
}

const unreadable = (code: string): { ok: false; faults: FileFault[] } => ({
  ok: false,
  faults: [{ path: "", code }],
});

function unzipped(bytes: Uint8Array): Record<string, Uint8Array> | null {
  try {
    return unzipSync(bytes);
  } catch {
    return null;
  }
}

/** Whether bytes begin as a ZIP file does. */
export const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

const readIn = (files: Record<string, Uint8Array>, folder: string): ReadFile => {
  const job = files[`${folder}${JOB}`];
  return job ? readJobFile(strFromU8(job), picturesIn(files, folder)) : unreadable("notAJobFile");
};

/** Reads a job's file, with pictures or without. */
export function readJobBytes(bytes: Uint8Array): ReadFile {
  if (!isZip(bytes)) return readJobFile(strFromU8(bytes));
  const files = unzipped(bytes);
  return files ? readIn(files, "") : unreadable("notAZip");
}

const settingsSchema = z.strictObject({
  format: z.literal(`${FORMAT}-all`),
  version: z.int().min(1),
  settings: z.record(z.string(), z.string()),
});

/** Everything that a browser holds. */
export interface Everything {
  jobs: (JobFile & { pictures: Pictures })[];
  settings: Record<string, string>;
}

export function writeAllZip({ jobs, settings }: Everything): Uint8Array {
  const head = { format: `${FORMAT}-all`, version: VERSION, settings };
  const zip: Zippable = { [SETTINGS]: strToU8(`${JSON.stringify(head, null, 2)}\n`) };
  for (const job of jobs) Object.assign(zip, members(job, `jobs/${job.job.id}/`));
  return zipSync(zip, { mtime: WRITTEN });
}

export type ReadAll = ({ ok: true } & Everything) | { ok: false; faults: FileFault[] };

/** Reads everything back; one job with a fault refuses the whole, each fault with the job's folder in its place. */
export function readAllZip(bytes: Uint8Array): ReadAll {
  const files = isZip(bytes) ? unzipped(bytes) : null;
  if (!files) return unreadable("notAZip");
  const head = files[SETTINGS];
  if (!head) return unreadable("notAllFile");
  let value: unknown;
  try {
    value = JSON.parse(strFromU8(head));
  } catch {
    return unreadable("notAllFile");
  }
  const parsed = settingsSchema.safeParse(value);
  if (!parsed.success) return unreadable("notAllFile");
  if (parsed.data.version > VERSION)
    return {
      ok: false,
      faults: [
        { path: "version", code: "newerVersion", values: { version: parsed.data.version, known: VERSION } },
      ],
    };
  const folders = Object.keys(files).filter((path) => /^jobs\/[^/]+\/job\.keel\.json$/.test(path));
  const jobs = folders.map((path) => [path, readIn(files, path.slice(0, -JOB.length))] as const);
  const faults = jobs.flatMap(([path, read]) =>
    read.ok ? [] : read.faults.map((fault) => ({ ...fault, path: `${path.split("/")[1]}: ${fault.path}` })),
  );
  if (faults.length > 0) return { ok: false, faults };
  return {
    ok: true,
    jobs: jobs.flatMap(([, read]) => (read.ok ? [read] : [])),
    settings: parsed.data.settings,
  };
}
