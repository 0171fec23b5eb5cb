/** Files out of the browser. */
import type { Remote } from "comlink";
import type { Job } from "~/core/plan/types";
import { answerInTime } from "~/store/faults";
import type { FileSizes } from "~/store/files";
import { askWorker } from "~/workers/client";
import type { Answer, KeelWorker, OnProgress } from "~/workers/messages";

/** Bytes as a person reads them. */
export const sizeText = (bytes: number): string =>
  bytes < 1e6 ? `${Math.max(1, Math.round(bytes / 1e3))} kB` : `${(bytes / 1e6).toFixed(1)} MB`;

/** A large file of pictures is checked byte by byte; beyond this it hangs. */
const READ_MS = 600_000;

/** A file, read and judged by the worker: the page stays free, whatever it is given. */
async function readByWorker<T>(
  ask: (remote: Remote<KeelWorker>, onProgress: OnProgress) => Promise<Answer<T>>,
): Promise<T> {
  const answer = await askWorker("file", ask, new AbortController().signal, () => undefined, READ_MS);
  if (!answer.ok) throw new Error(answer.reason);
  return answer.value;
}
export const readJobOf = (file: Blob) =>
  readByWorker((remote, onProgress) => remote.readJobFile(file, onProgress));
export const readAllOf = (file: Blob) =>
  readByWorker((remote, onProgress) => remote.readAllFile(file, onProgress));

/** What the file of a job would weigh, with its pictures and without. */
export async function fileSizesOf(id: string): Promise<FileSizes | null> {
  const { fileSizes } = await import("~/store/files");
  return answerInTime(fileSizes(id));
}

/** Writes the file of a stored job. Rejects where the store cannot be read. */
export async function writeFile(id: string, withPictures: boolean): Promise<void> {
  const { exportJob } = await import("~/store/files");
  const file = await exportJob(id, withPictures);
  if (file) saveBlob(`${fileName(file.name)}.${file.extension}`, file.blob);
}

/**
 * The stored job with its book; where the store cannot be read, the job as this page holds it. The plans that a book
 * cites lie in the store alone: false where the file had to go without its book.
 */
export async function saveHeld(job: Job): Promise<boolean> {
  const { exportJob } = await import("~/store/files");
  const file = await answerInTime(exportJob(job.id)).catch(() => null);
  if (file) {
    saveBlob(`${fileName(file.name)}.${file.extension}`, file.blob);
    return true;
  }
  const { writeJobFile } = await import("~/schemas/file");
  const text = writeJobFile({ job, book: [], snapshots: {} });
  saveText(`${fileName(job.name)}.keel.json`, text, "application/json");
  return false;
}

export const fileName = (name: string) =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "") || "job";

export const saveText = (name: string, text: string, type: string): void =>
  saveBlob(name, new Blob([text], { type }));

export const saveBytes = (name: string, bytes: Uint8Array, type: string): void =>
  saveBlob(name, new Blob([bytes as Uint8Array<ArrayBuffer>], { type }));

export function saveBlob(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10000);
}
