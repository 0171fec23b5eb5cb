/**
 * A refusal stands at the field that asked. While a field hands over its figure, it is the asker: what is dispatched in
 * that moment takes it along, and tells it, instead of the page, why nothing was changed. A field that is gone by then says so with false.
 */
export type Asker = (refusal: string) => boolean;

let asker: Asker | null = null;

/** Runs `ask` as the asker; what it starts at once takes it along with {@link currentAsker}. */
export function askedBy(one: Asker, ask: () => void): void {
  const before = asker;
  asker = one;
  try {
    ask();
  } finally {
    asker = before;
  }
}

export const currentAsker = (): Asker | null => asker;
