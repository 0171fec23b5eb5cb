/**
 * Changes merged by their path. A view makes a change from the record that it shows; by the time the change is written,
 * another one may stand in the store. Only what differs from what was shown is put on what stands.
 */

export type Loose = Record<string, unknown>;

/** A value in which what may be absent may also be given as undefined: then it goes. */
type Loosened<T> = T extends readonly (infer I)[]
  ? number extends T["length"]
    ? Loosened<I>[]
    : T
  : T extends object
    ? { [K in keyof T]: object extends Pick<T, K> ? Loosened<T[K]> | undefined : Loosened<T[K]> }
    : T;

/** Some of a record's fields, as they are to be; what it may lack and is given as undefined goes. */
export type Change<T> = {
  [K in keyof T]?: object extends Pick<T, K> ? Loosened<T[K]> | undefined : Loosened<T[K]>;
};

const isRecord = (value: unknown): value is Loose =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** Records of one kind; a union's other kind is another thing, and is put in the place of the whole. */
export const isAlike = (a: unknown, b: unknown): boolean => isRecord(a) && isRecord(b) && a.kind === b.kind;

export function isEqual(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((item, i) => isEqual(item, b[i]));
  if (!isRecord(a) || !isRecord(b)) return false;
  const keys = new Set([...Object.keys(a), ...Object.keys(b)]);
  return [...keys].every((key) => isEqual(a[key], b[key]));
}

export const idOf = (item: unknown): unknown => (isRecord(item) ? item.id : undefined);
const haveIds = (items: readonly unknown[]): boolean => items.every((item) => typeof idOf(item) === "string");

/** Lists of records with ids: each by its id; what one side took out is out, what it added is at the end. */
function mergedById(
  shown: readonly unknown[],
  wanted: readonly unknown[],
  now: readonly unknown[],
): unknown[] {
  const [before, after] = [shown, wanted].map((items) => new Map(items.map((item) => [idOf(item), item])));
  const there = new Set(now.map(idOf));
  return [
    ...now.flatMap((item) => {
      const id = idOf(item);
      if (!before?.has(id)) return [item];
      return after?.has(id) ? [merged(before.get(id), after.get(id), item)] : [];
    }),
    ...wanted.filter((item) => !there.has(idOf(item)) && !before?.has(idOf(item))),
  ];
}

function mergedList(shown: readonly unknown[], wanted: readonly unknown[], now: readonly unknown[]): unknown {
  if ([shown, wanted, now].every((items) => items.length > 0 && haveIds(items)))
    return mergedById(shown, wanted, now);
  const isAligned = shown.length === wanted.length && wanted.length === now.length;
  return isAligned ? now.map((item, i) => merged(shown[i], wanted[i], item)) : wanted;
}

/** What stands (`now`), with what was changed from `shown` to `wanted`. Where both changed one value, `wanted` holds. */
export function merged(shown: unknown, wanted: unknown, now: unknown): unknown {
  if (isEqual(shown, wanted)) return now;
  if (Array.isArray(shown) && Array.isArray(wanted) && Array.isArray(now))
    return mergedList(shown, wanted, now);
  if (!isAlike(wanted, now)) return wanted;
  // Nothing was shown: both begin the record, each with its own fields.
  if (shown === undefined) return mergedRecord({}, wanted as Loose, now as Loose);
  return isAlike(shown, wanted) ? mergedRecord(shown as Loose, wanted as Loose, now as Loose) : wanted;
}

function mergedRecord(shown: Loose, wanted: Loose, now: Loose): Loose {
  const result: Loose = { ...now };
  for (const key of new Set([...Object.keys(shown), ...Object.keys(wanted)])) {
    const value = merged(shown[key], wanted[key], now[key]);
    if (value === undefined) delete result[key];
    else result[key] = value;
  }
  return result;
}

/** A change of some fields, as it is to be put on a record that may have changed since it was shown. */
export function rebased<T extends object>(
  change: Change<T>,
  shown: Change<T> | undefined,
  now: T,
): Change<T> {
  const keys = Object.keys(change) as (keyof T)[];
  return Object.fromEntries(
    keys.map((key) => [key, shown ? merged(shown[key], change[key], now[key]) : change[key]]),
  ) as Change<T>;
}

/** A value without the keys that are given as undefined, at any depth. */
export function cleaned(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(cleaned);
  if (!isRecord(value)) return value;
  return Object.fromEntries(
    Object.entries(value).flatMap(([key, held]) => (held === undefined ? [] : [[key, cleaned(held)]])),
  );
}
