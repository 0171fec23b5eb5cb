/** Recorded changes of a job: which of them touch the same thing, and a long drag as one first and one last. */
import type { Patch } from "immer";

type Path = Patch["path"];

export interface Change {
  patches: Patch[];
  inverse: Patch[];
}

const isArrayOrder = ({ op, path }: Patch): boolean => {
  const last = path.at(-1);
  return last === "length" || (op !== "replace" && typeof last === "number");
};

/** What a patch touches: all within a path; of a list that grew at its end, what lies from there on. */
interface Touched {
  path: Path;
  from: number;
}

const keyOf = ({ path }: Patch): string => JSON.stringify(path);

/** A body moved on the drawing to make room: nobody's figure, and nothing to be asked about. */
const isRoom = ({ op, path }: Patch): boolean =>
  op === "replace" && path[0] === "plans" && (path[2] === "places" || path[2] === "sides");

/**
 * What a change touches: a whole list where its order changes, since places in it then mean other things; a list that
 * only grew at its end means the same up to there, and its inverse says where the end was.
 */
function touchedBy({ patches, inverse }: Change): Touched[] {
  const ends = new Map<string, number>();
  for (const { op, path, value } of inverse) {
    const [list, last] = [JSON.stringify(path.slice(0, -1)), path.at(-1)];
    const end = last === "length" ? Number(value) : op === "remove" && typeof last === "number" ? last : null;
    if (end !== null) ends.set(list, Math.min(end, ends.get(list) ?? end));
  }
  return patches
    .filter((patch) => !isRoom(patch))
    .map((patch): Touched => {
      const { op, path } = patch;
      if (!isArrayOrder(patch)) return { path, from: 0 };
      const list = path.slice(0, -1);
      const end = ends.get(JSON.stringify(list));
      const grew = op === "add" && end !== undefined && Number(path.at(-1)) >= end;
      return { path: list, from: grew ? end : 0 };
    });
}

const isWithin = (outer: Path, inner: Path): boolean => outer.every((key, i) => key === inner[i]);

/** Whether one touched thing holds another; a place in a list before where that grew is not held. */
const holds = (outer: Touched, inner: Touched): boolean => {
  if (!isWithin(outer.path, inner.path)) return false;
  const place = inner.path[outer.path.length];
  return typeof place !== "number" || place >= outer.from;
};

/** Whether two changes touch the same thing: one lies within what the other touches. */
export function overlap(a: Change, b: Change): boolean {
  const theirs = touchedBy(b);
  return touchedBy(a).some((own) => theirs.some((other) => holds(own, other) || holds(other, own)));
}

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
