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
