/** Files out of the browser. */
import type { Id } from "~/core/plan/types";
import { exportJob } from "~/store/jobs";

export async function saveJobFile(jobId: Id): Promise<void> {
  const file = await exportJob(jobId);
  if (file) saveText(`${fileName(file.name)}.keel.json`, file.text, "application/json");
}

export const fileName = (name: string) =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "") || "job";

export function saveText(name: string, text: string, type: string): void {
  const url = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10000);
}
