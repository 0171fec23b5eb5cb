import { current, isDraft } from "immer";
import type { Edit } from "./command";
import { type Change, cleaned, rebased } from "./merge";

/** Sets what is given, merged with what has changed since it was shown; what is given as undefined goes. */
export function editRecord<T extends object>(record: T, { change, shown }: Edit<Change<T>>): void {
  const now = isDraft(record) ? (current(record as object) as T) : record;
  const edits = rebased(change, shown, now);
  Object.assign(record, cleaned(edits));
  for (const key of Object.keys(edits) as (keyof T)[]) if (edits[key] === undefined) delete record[key];
}
