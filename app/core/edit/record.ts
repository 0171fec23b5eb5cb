import { current, isDraft } from "immer";
import type { Edit } from "./command";
import { type Change, cleaned, idOf, isAlike, isEqual, type Loose, rebased } from "./merge";

/** Sets what is given, merged with what has changed since it was shown; what is given as undefined goes. */
export function editRecord<T extends object>(record: T, { change, shown }: Edit<Change<T>>): void {
  const now = isDraft(record) ? (current(record as object) as T) : record;
  const edits = rebased(change, shown, now);
  for (const [key, value] of Object.entries(edits))
    if (value === undefined) delete record[key as keyof T];
    else setIn(record as Loose, key, cleaned(value));
}

/**
 * Sets a value on a draft figure by figure: what stays is not written, so that a change of one figure of a record is
 * recorded, undone and held against other tabs' changes as that figure alone.
 */
function setIn(holder: Loose | unknown[], key: string | number, value: unknown): void {
  const now = (holder as Loose)[key];
  if (isEqual(isDraft(now) ? current(now as object) : now, value)) return;
  if (Array.isArray(now) && Array.isArray(value) && isSameThings(now, value))
    value.forEach((item, i) => void setIn(now, i, item));
  else if (isAlike(now, value)) {
    const [held, wanted] = [now as Loose, value as Loose];
    for (const gone of Object.keys(held)) if (!(gone in wanted)) delete held[gone];
    for (const [field, item] of Object.entries(wanted)) setIn(held, field, item);
  } else (holder as Loose)[key] = value;
}

/** Whether two lists hold the same records in the same order, whatever has changed in them. */
const isSameThings = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length &&
  a.length > 0 &&
  a.every((item, i) => typeof idOf(item) === "string" && idOf(item) === idOf(b[i]));
