/**
 * Files with pictures. `.keel.zip` is a job's file and its pictures; `.keel-all.zip` is every job of a browser with its
 * settings. Pictures are stored as they are and stay where they lie: reading checks them in passing and cuts them out of
 * the file, writing streams them, so that neither holds them in memory. Times are fixed, so that equal contents give
 * equal bytes. What a file says of itself is held against limits before anything is unpacked.
 */
import {
  BlobReader,
  BlobWriter,
  configure,
  type FileEntry,
  ZipReader,
  ZipWriter,
} from "@zip.js/zip.js/lib/zip-core-native.js";
import { type FileFault, FORMAT, type JobFile, type ReadFile, readJobFile, writeJobFile } from "./file";
import type { Picture } from "./migrations";
import { VERSION } from "./version";
import { z } from "./zod";

/** A picture is read in a few pieces: each is a call to the browser. */
const PIECE_BYTES = 2 * 1024 * 1024;
configure({ useWebWorkers: false, chunkSize: PIECE_BYTES });

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

const MIB = 1024 * 1024;
/**
 * What a file may hold, far above what a shop's does: two hundred jobs with five hundred pictures each have 100,000
 * entries; a book of 20,000 entries is a text of 10 MiB, and repeats itself some thirty times over.
 */
export const zipLimits = {
  entries: 250_000,
  /** Of one text and of one picture, unpacked. */
  textBytes: 128 * MIB,
  pictureBytes: 64 * MIB,
  /** Of all texts, which are held in memory, and of the whole, unpacked. */
  textsBytes: 512 * MIB,
  wholeBytes: 32 * 1024 * MIB,
  /** Unpacked over packed, where it is more than a little text. */
  ratio: 200,
  ratioFromBytes: 1 * MIB,
};

export type Pictures = ReadonlyMap<string, Picture>;

/** One file in a ZIP. Texts are pressed, pictures are pressed already. */
interface Member {
  path: string;
  body: Blob;
  level: 0 | 6;
}

const text = (path: string, body: string): Member => ({ path, body: new Blob([body]), level: 6 });

function* members({ pictures, ...file }: JobFile & { pictures: Pictures }, folder = ""): Generator<Member> {
  yield text(`${folder}${JOB}`, writeJobFile(file));
  for (const [id, { type, full, preview }] of pictures) {
    yield { path: `${folder}pictures/${id}.${extensions[type]}`, body: full, level: 0 };
    if (preview) yield { path: `${folder}previews/${id}.jpg`, body: preview, level: 0 };
  }
}

async function packed(all: AsyncIterable<Member> | Iterable<Member>): Promise<Blob> {
  const writer = new ZipWriter(new BlobWriter("application/zip"), {
    lastModDate: WRITTEN,
    extendedTimestamp: false,
    keepOrder: true,
  });
  for await (const { path, body, level } of all) await writer.add(path, new BlobReader(body), { level });
  return writer.close();
}

export const writeJobZip = (file: JobFile & { pictures: Pictures }): Promise<Blob> => packed(members(file));

const unreadable = (
  code: string,
  values?: FileFault["values"],
  path = "",
): { ok: false; faults: FileFault[] } => ({
  ok: false,
  faults: [{ path, code, ...(values && { values }) }],
});

class Unpackable extends Error {
  constructor(readonly fault: FileFault) {
    super(fault.code);
  }
}
const refuse = (code: string, path: string, values: Record<string, number>): never => {
  throw new Unpackable({ path, code, values });
};

/** Entries of a ZIP by name, held against the limits by what its directory says. Nothing is unpacked yet. */
async function directory(reader: ZipReader<Blob>, fileBytes: number): Promise<Map<string, FileEntry>> {
  const entries = new Map<string, FileEntry>();
  const limits = zipLimits;
  let [count, whole, texts, stored] = [0, 0, 0, 0];
  for await (const entry of reader.getEntriesGenerator()) {
    if (++count > limits.entries) refuse("zipEntries", "", { most: limits.entries });
    if (entry.directory) continue;
    const { filename, compressedSize, uncompressedSize, compressionMethod } = entry;
    const most = typeOf(filename) ? limits.pictureBytes : limits.textBytes;
    if (uncompressedSize > most) refuse("zipEntryLarge", filename, { mostMiB: most / MIB });
    if (
      uncompressedSize > limits.ratioFromBytes &&
      uncompressedSize > limits.ratio * Math.max(1, compressedSize)
    )
      refuse("zipRatio", filename, { ratio: limits.ratio });
    whole += uncompressedSize;
    stored += compressedSize;
    if (!typeOf(filename)) texts += uncompressedSize;
    if (whole > limits.wholeBytes) refuse("zipLarge", "", { mostMiB: limits.wholeBytes / MIB });
    if (texts > limits.textsBytes) refuse("zipLarge", "", { mostMiB: limits.textsBytes / MIB });
    // Entries that share their bytes, and ways to pack that this application never writes.
    if (stored > fileBytes || entry.encrypted || ![0, 8].includes(compressionMethod) || entries.has(filename))
      throw new Unpackable({ path: filename, code: "notAZip" });
    entries.set(filename, entry);
  }
  return entries;
}

/** What an entry unpacks to, counted as it comes: one that gives more than it says is stopped there. */
function bounded(entry: FileEntry, onChunk: (chunk: Uint8Array) => void): WritableStream<Uint8Array> {
  let left = entry.uncompressedSize;
  return new WritableStream({
    write(chunk) {
      left -= chunk.length;
      if (left < 0) throw new Unpackable({ path: entry.filename, code: "notAZip" });
      onChunk(chunk);
    },
  });
}

const checked = { checkCrc32: true, checkOverlappingEntry: true };

async function textOf(entry: FileEntry): Promise<string> {
  const decoder = new TextDecoder();
  const pieces: string[] = [];
  await entry.getData(
    bounded(entry, (chunk) => void pieces.push(decoder.decode(chunk, { stream: true }))),
    checked,
  );
  return pieces.join("") + decoder.decode();
}

/** An entry as a blob; one that was stored as it is stays where it lies in the file. */
async function blobOf(file: Blob, entry: FileEntry, type: string): Promise<Blob> {
  const isStored = entry.compressionMethod === 0;
  const pieces: Uint8Array<ArrayBuffer>[] = [];
  await entry.getData(
    bounded(entry, (chunk) => {
      if (!isStored) pieces.push(chunk.slice());
    }),
    checked,
  );
  if (!isStored) return new Blob(pieces, { type });
  const from = entry.localDirectory?.dataOffset ?? Number.NaN;
  return file.slice(from, from + entry.uncompressedSize, type);
}

interface Opened {
  file: Blob;
  entries: ReadonlyMap<string, FileEntry>;
  /** Names in each folder: looked through once, whatever the number of jobs. */
  pictures: ReadonlyMap<string, { id: string; type: Picture["type"]; entry: FileEntry }[]>;
}

/** The folder that a picture's name begins with, and its id; null where it is no picture of ours. */
function pictureName(path: string): { folder: string; id: string } | null {
  const at = path.lastIndexOf("pictures/");
  const [, id] = at < 0 ? [] : (/^([A-Za-z0-9_-]+)\.[a-z]+$/.exec(path.slice(at + "pictures/".length)) ?? []);
  return id ? { folder: path.slice(0, at), id } : null;
}

async function opened(file: Blob, reader: ZipReader<Blob>): Promise<Opened> {
  const entries = await directory(reader, file.size);
  const pictures = new Map<string, { id: string; type: Picture["type"]; entry: FileEntry }[]>();
  for (const [path, entry] of entries) {
    const [named, type] = [pictureName(path), typeOf(path)];
    if (!named || !type) continue;
    const own = pictures.get(named.folder) ?? [];
    own.push({ id: named.id, type, entry });
    pictures.set(named.folder, own);
  }
  return { file, entries, pictures };
}

async function picturesIn(
  { file, entries, pictures }: Opened,
  folder: string,
): Promise<Map<string, Picture>> {
  const read = new Map<string, Picture>();
  for (const { id, type, entry } of pictures.get(folder) ?? []) {
    const small = entries.get(`${folder}previews/${id}.jpg`);
    const full = await blobOf(file, entry, type);
    read.set(id, { type, full, ...(small && { preview: await blobOf(file, small, "image/jpeg") }) });
  }
  return read;
}

async function readIn(zip: Opened, folder: string): Promise<ReadFile> {
  const job = zip.entries.get(`${folder}${JOB}`);
  if (!job) return unreadable("notAJobFile");
  return readJobFile(await textOf(job), await picturesIn(zip, folder));
}

/** Opens a ZIP and reads in it; whatever it does not hold to becomes a fault, and nothing of it is kept. */
async function inZip<T>(
  file: Blob,
  read: (zip: Opened) => Promise<T>,
): Promise<T | { ok: false; faults: FileFault[] }> {
  const reader = new ZipReader(new BlobReader(file));
  try {
    return await read(await opened(file, reader));
  } catch (error) {
    if (error instanceof Unpackable) return { ok: false, faults: [error.fault] };
    // The library's own faults of a ZIP file are plain errors; a mistake of ours is not.
    if (error instanceof Error && error.name === "Error") return unreadable("notAZip");
    throw error;
  } finally {
    await reader.close().catch(() => undefined);
  }
}

/** Whether a file begins as a ZIP file does. */
async function isZip(file: Blob): Promise<boolean> {
  const [p, k] = new Uint8Array(await file.slice(0, 2).arrayBuffer());
  return p === 0x50 && k === 0x4b;
}

/** Reads a job's file, with pictures or without. */
export async function readJobBlob(file: Blob): Promise<ReadFile> {
  if (await isZip(file)) return inZip(file, (zip) => readIn(zip, ""));
  if (file.size > zipLimits.textBytes) return unreadable("zipLarge", { mostMiB: zipLimits.textBytes / MIB });
  return readJobFile(await file.text());
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

/** Jobs are asked for one by one, and let go of as they are written. */
export function writeAllZip({
  jobs,
  settings,
}: {
  jobs: AsyncIterable<Everything["jobs"][number]> | Everything["jobs"];
  settings: Everything["settings"];
}): Promise<Blob> {
  const head = { format: `${FORMAT}-all`, version: VERSION, settings };
  return packed(
    (async function* () {
      yield text(SETTINGS, `${JSON.stringify(head, null, 2)}\n`);
      for await (const job of jobs) yield* members(job, `jobs/${job.job.id}/`);
    })(),
  );
}

export type ReadAll = ({ ok: true } & Everything) | { ok: false; faults: FileFault[] };

/** The value of a JSON text; undefined where it is none. */
function valueOf(json: string): unknown {
  try {
    return JSON.parse(json);
  } catch {
    return undefined;
  }
}

async function readEverything(zip: Opened): Promise<ReadAll> {
  const head = zip.entries.get(SETTINGS);
  const parsed = settingsSchema.safeParse(head && valueOf(await textOf(head)));
  if (!parsed.success) return unreadable("notAllFile");
  const { version, settings } = parsed.data;
  if (version > VERSION) return unreadable("newerVersion", { version, known: VERSION }, "version");
  const jobs: Everything["jobs"] = [];
  const faults: FileFault[] = [];
  for (const path of zip.entries.keys()) {
    const [, folder] = /^jobs\/([^/]+)\/job\.keel\.json$/.exec(path) ?? [];
    if (folder === undefined) continue;
    const read = await readIn(zip, path.slice(0, -JOB.length));
    if (read.ok) jobs.push(read);
    else faults.push(...read.faults.map((fault) => ({ ...fault, path: `${folder}: ${fault.path}` })));
  }
  return faults.length > 0 ? { ok: false, faults } : { ok: true, jobs, settings };
}

/** Reads everything back; one job with a fault refuses the whole, each fault with the job's folder in its place. */
export async function readAllBlob(file: Blob): Promise<ReadAll> {
  return (await isZip(file)) ? inZip(file, readEverything) : unreadable("notAZip");
}
