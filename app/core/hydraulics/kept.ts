/** How many answers are kept: a run goes to and fro between a few settings, levels over and under a mouth. */
const MOST_KEPT = 8;

/** Answers kept by the bytes they were asked with, the last used first. */
export class KeptByBytes<T> {
  private readonly entries: { key: Uint8Array; value: T }[] = [];

  get(key: Uint8Array): T | undefined {
    const { entries } = this;
    for (let k = 0; k < entries.length; k++) {
      const entry = entries[k] as { key: Uint8Array; value: T };
      if (!isSame(entry.key, key)) continue;
      if (k > 0) {
        entries.splice(k, 1);
        entries.unshift(entry);
      }
      return entry.value;
    }
    return undefined;
  }

  set(key: Uint8Array, value: T): T {
    this.entries.unshift({ key: key.slice(), value });
    if (this.entries.length > MOST_KEPT) this.entries.pop();
    return value;
  }
}

function isSame(one: Uint8Array, other: Uint8Array): boolean {
  for (let i = 0; i < one.length; i++) if (one[i] !== other[i]) return false;
  return one.length === other.length;
}
