/** A store that was closed under the page can leave a call unanswered for good; a change takes a few milliseconds. */
const ANSWER_MS = 6000;

class NoAnswer extends Error {
  override readonly name = "NoAnswer";
}

/** The promise's own end, or a rejection when the store does not answer in time. */
export async function answerInTime<T>(work: Promise<T>): Promise<T> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new NoAnswer()), ANSWER_MS);
  });
  try {
    return await Promise.race([work, late]);
  } finally {
    clearTimeout(timer);
  }
}

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
  if (name === "NoAnswer") {
    return "This browser's storage does not answer: the last change may not be kept. Save the job as a file and open the page again.";
  }
  return `The last change is not kept (${name || "unknown fault"}). Save the job as a file.`;
}
