/** Storage that fails says so in words; the caller offers the file. */
export function storageFault(error: unknown): string {
  const { name = "" } = error as { name?: string };
  const inner = (error as { inner?: { name?: string } }).inner?.name ?? "";
  if (name.includes("Quota") || inner.includes("Quota")) {
    return "This browser's storage is full: the last change is not kept. Save the job as a file, then make room.";
  }
  if (
    [
      "InvalidStateError",
      "DatabaseClosedError",
      "OpenFailedError",
      "MissingAPIError",
      "SecurityError",
      "UnknownError",
    ].some((one) => name === one || inner === one)
  ) {
    return "This browser's storage is closed: the last change is not kept. Save the job as a file and open the page again.";
  }
  return `The last change is not kept (${name || "unknown fault"}). Save the job as a file.`;
}
