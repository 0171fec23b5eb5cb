/** Recorded changes of a job: which of them touch the same thing, and a long drag as one first and one last. */
import type { Patch } from "immer";

type Path = Patch["path"];

const isArrayOrder = ({ op, path }: Patch): boolean => {
  const last = path.at(-1);
  return last === "length" || (op !== "replace" && typeof last === "number");
};

/** What a patch touches: a whole list where its order changes, since places in it then mean other things. */
const touched = (patch: Patch): Path => (isArrayOrder(patch) ? patch.path.slice(0, -1) : patch.path);

const isWithin = (outer: Path, inner: Path): boolean => outer.every((key, i) => key === inner[i]);

/** Whether two sets of changes touch the same thing: one lies within what the other touches. */
export function overlap(a: readonly Patch[], b: readonly Patch[]): boolean {
  const paths = b.map(touched);
  return a.some((patch) => {
    const own = touched(patch);
    return paths.some((path) => isWithin(own, path) || isWithin(path, own));
  });
}

export interface Change {
  patches: Patch[];
  inverse: Patch[];
}

const keyOf = ({ path }: Patch): string => JSON.stringify(path);

/** Whether patches set values side by side only: none changes a list's order, none lies within another. */
function setOnly(patches: readonly Patch[]): boolean {
  const paths = new Map(patches.map((patch) => [keyOf(patch), patch.path]));
  const all = [...paths.values()];
  return (
    !patches.some(isArrayOrder) &&
    all.every((path) => !all.some((other) => other !== path && isWithin(path, other)))
  );
}

/**
 * Two changes one after the other as one. Where both only set values, of each place the first inverse and the last
 * value are kept; else one list follows the other.
 */
export function joined(first: Change, next: Change): Change {
  const patches = [...first.patches, ...next.patches];
  const inverse = [...next.inverse, ...first.inverse];
  if (!setOnly(patches) || !setOnly(inverse)) return { patches, inverse };
  const last = new Map<string, Patch>();
  for (const patch of patches) {
    const known = last.get(keyOf(patch));
    // What was added and then set is added with the last value; what was taken out again is taken out.
    const op = known?.op === "add" && patch.op === "replace" ? "add" : patch.op;
    last.set(keyOf(patch), { ...patch, op });
  }
  // In the list of inverses the first change stands last.
  const earliest = new Map(inverse.map((patch) => [keyOf(patch), patch]));
  return { patches: [...last.values()], inverse: [...earliest.values()] };
}
