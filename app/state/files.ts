/** Files out of the browser. */
import type { Job } from "~/core/plan/types";
import { answerInTime } from "~/store/faults";
import type { FileSizes } from "~/store/files";

/** Bytes as a person reads them. */
export const sizeText = (bytes: number): string =>
  bytes < 1e6 ? `${Math.max(1, Math.round(bytes / 1e3))} kB` : `${(bytes / 1e6).toFixed(1)} MB`;

/** What the file of a job would weigh, with its pictures and without. */
export async function fileSizesOf(id: string): Promise<FileSizes | null> {
  const { fileSizes } = await import("~/store/files");
  return answerInTime(fileSizes(id));
}

/** Writes the file of a stored job. Rejects where the store cannot be read. */
export async function writeFile(id: string, withPictures: boolean): Promise<void> {
  const { exportJob } = await import("~/store/files");
  const file = await exportJob(id, withPictures);
  if (file) saveBytes(`${fileName(file.name)}.${file.extension}`, file.bytes, "application/octet-stream");
}

/**
 * The stored job with its book; where the store cannot be read, the job as this page holds it. The plans that a book
 * cites lie in the store alone: false where the file had to go without its book.
 */
export async function saveHeld(job: Job): Promise<boolean> {
  const { exportJob } = await import("~/store/files");
  const file = await answerInTime(exportJob(job.id)).catch(() => null);
  if (file) {
    saveBytes(`${fileName(file.name)}.${file.extension}`, file.bytes, "application/json");
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

function saveBlob(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10000);
}
