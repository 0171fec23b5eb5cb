/** The browser's store in words: why it fails, and why a job in it is not shown. */

/** Storage that fails says so in words; the caller offers the file. */
export function storageFault(error: unknown): string {
  const { name = "" } = error as { name?: string };
  const inner = (error as { inner?: { name?: string } }).inner?.name ?? "";
  const message = `${(error as { message?: string }).message ?? ""}`;
  // A disk that is full ends a transaction without a word of why.
  if (
    name.includes("Quota") ||
    inner.includes("Quota") ||
    name === "AbortError" ||
    /no space|disk.*full/i.test(message)
  )
    return "This browser's storage or the disk is full: the last change is not kept. Save the job as a file, then make room. If no file comes, make room on the disk first, and leave this page open.";
  if (name === "MissingAPIError" || inner === "MissingAPIError")
    return "This browser keeps no data for pages, as some do in a private window: nothing done here would be kept. Open the page in an ordinary window, or allow it to store data.";
  if (
    ["InvalidStateError", "DatabaseClosedError", "OpenFailedError", "SecurityError", "UnknownError"].some(
      (one) => name === one || inner === one,
    )
  ) {
    return "This browser's storage is closed: the last change is not kept. Save the job as a file and open the page again.";
  }
  if (name === "NoAnswer") {
    return "This browser's storage does not answer: the last change may not be kept. Save the job as a file and open the page again.";
  }
  return `The last change is not kept (${name || "unknown fault"}). Save the job as a file.`;
}

/** Why a file could not be read or taken in: nothing of it was. */
export const fileFault = (error: unknown): string =>
  error instanceof Error && error.name === "Error"
    ? `The file could not be read (${error.message}). Nothing of it was taken.`
    : storageFault(error);

/** Why a job that is asked for is not shown. */
export const closedText: Record<"gone" | "broken" | "newer" | "older", string> = {
  gone: "This job is not in this browser. It may have been deleted: the job list says. If the browser's data were cleared, everything kept here is gone.",
  broken: "This job could not be read. It is set aside whole: the job list offers it as a file.",
  newer: "This job was written by a newer version of this application. Nothing was changed: open it there.",
  older: "This job was written by an older version and could not be brought up. Nothing was changed.",
};
