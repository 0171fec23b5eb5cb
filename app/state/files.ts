/** Files out of the browser. */
import type { Id, Job } from "~/core/plan/types";
import { writeJobFile } from "~/schemas/file";
import { answerInTime } from "~/store/faults";
import { exportJob } from "~/store/jobs";

/** Saves the stored job as a file; where the store cannot be read, the job as this page holds it. Rejects where there is neither. */
export async function saveJobFile(jobId: Id, held?: Job): Promise<void> {
  const file = await answerInTime(exportJob(jobId)).catch((error: unknown) => {
    if (!held) throw error;
    return { name: held.name, text: writeJobFile(held) };
  });
  if (file) saveText(`${fileName(file.name)}.keel.json`, file.text, "application/json");
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
