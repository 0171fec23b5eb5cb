/** Faults of a book that each entry by itself does not show: what it cites must have been there. */

import type { Id } from "../kinds/record";
import { portKey } from "../plan/ports";
import { elementIds } from "../plan/strays";
import type { Conditions, PortRef } from "../plan/types";
import type { Book, BookEntry } from "./entries";
import { hashOf, type Snapshot } from "./snapshot";

export interface BookFault {
  path: string;
  code:
    | "duplicateId"
    | "missingSnapshot"
    | "otherPlan"
    | "hashDiffers"
    | "missingPart"
    | "missingEntry"
    | "strikesRound";
  values?: Record<string, string | number>;
}

export type Snapshots = Readonly<Record<string, Snapshot>>;

/** Everything that had an id in a plan as it was; null where not all of it was kept (files of version 1). */
interface Known {
  parts: Set<Id>;
  lineUps: Set<Id>;
  all: Set<Id> | null;
  tanks: Set<Id> | null;
  consumers: Set<Id> | null;
  elements: Set<Id>;
  /** Ports that something was joined at, as `part.port`. */
  joined: Set<string>;
}

const idsOf = (items: readonly { id: Id }[]) => items.map(({ id }) => id);

const looked = new WeakMap<Snapshot, Known>();

/** What a kept plan knows, looked up once a plan. */
function knownIn(snapshot: Snapshot): Known {
  const found = looked.get(snapshot) ?? lookIn(snapshot);
  looked.set(snapshot, found);
  return found;
}

function lookIn({ plan, tanks, consumers }: Snapshot): Known {
  const elements = elementIds(plan.parts);
  const own = [
    ...idsOf(plan.parts),
    ...idsOf(plan.runs),
    ...idsOf(plan.joints),
    ...idsOf(plan.lineUps),
    ...idsOf(plan.passages ?? []),
    ...idsOf(plan.boards ?? []),
    ...idsOf(plan.covers ?? []),
  ];
  const surveyed =
    tanks && consumers
      ? [...idsOf(tanks), ...tanks.flatMap(({ ports }) => idsOf(ports)), ...idsOf(consumers)]
      : null;
  return {
    parts: new Set(idsOf(plan.parts)),
    lineUps: new Set(idsOf(plan.lineUps)),
    all: surveyed && new Set([...own, ...elements, ...surveyed]),
    tanks: tanks ? new Set(idsOf(tanks)) : null,
    consumers: consumers ? new Set(idsOf(consumers)) : null,
    elements: new Set(elements),
    joined: new Set([...plan.runs, ...plan.joints].flatMap(({ from, to }) => [portKey(from), portKey(to)])),
  };
}

function conditionFaults({ aboardM3, loading, load }: Conditions, known: Known, path: string): BookFault[] {
  const check = (record: Record<Id, number>, field: string, ids: Set<Id> | null) =>
    Object.keys(record).flatMap((id): BookFault[] =>
      ids === null || ids.has(id)
        ? []
        : [{ path: `${path}.${field}.${id}`, code: "missingPart", values: { id } }],
    );
  return [
    ...check(aboardM3, "aboardM3", known.tanks),
    ...check(loading, "loading", known.elements),
    ...check(load, "load", known.consumers),
  ];
}

/** What an entry names that was not in the plan it cites. */
function citedFaults(entry: BookEntry, known: Known, path: string): BookFault[] {
  const wanted = (id: Id, field: string, ids: Set<Id> | null): BookFault[] =>
    ids === null || ids.has(id) ? [] : [{ path: `${path}.${field}`, code: "missingPart", values: { id } }];
  const joint = ({ part, port }: PortRef): BookFault[] =>
    known.joined.has(portKey({ part, port })) || !known.all?.has(part)
      ? wanted(part, "joint.part", known.all)
      : [{ path: `${path}.joint.port`, code: "missingPart", values: { id: port } }];
  switch (entry.kind) {
    case "vacuum":
      return [
        ...wanted(entry.gaugeId, "gaugeId", known.parts),
        ...wanted(entry.lineUpId, "lineUpId", known.lineUps),
        ...conditionFaults(entry.conditions, known, `${path}.conditions`),
      ];
    case "reading":
      return [
        ...wanted(entry.ofId, "ofId", entry.quantity === "level" ? known.tanks : known.parts),
        ...wanted(entry.lineUpId, "lineUpId", known.lineUps),
        ...conditionFaults(entry.conditions, known, `${path}.conditions`),
      ];
    case "decay":
      return [
        ...wanted(entry.gaugeId, "gaugeId", known.parts),
        ...wanted(entry.lineUpId, "lineUpId", known.lineUps),
      ];
    case "elementChanged":
      return wanted(entry.partId, "partId", known.parts);
    case "leakCheck":
      return [...wanted(entry.lineUpId, "lineUpId", known.lineUps), ...joint(entry.joint)];
    case "setAside":
      return [
        ...entry.ids.flatMap((id, i) => wanted(id, `ids[${i}]`, known.all)),
        ...(entry.lineUpId === null ? [] : wanted(entry.lineUpId, "lineUpId", known.lineUps)),
      ];
    case "dip":
    case "fill":
    case "sample":
    case "puddle":
    case "bunkered":
    case "particles":
      return wanted(entry.tankId, "tankId", known.tanks);
    case "photo":
      return wanted(entry.ofId, "ofId", known.all);
    case "faultFound":
      return [...wanted(entry.lineUpId, "lineUpId", known.lineUps), ...wanted(entry.ofId, "ofId", known.all)];
    case "bled":
      return wanted(entry.lineUpId, "lineUpId", known.lineUps);
    case "torqueSet":
      return joint(entry.joint);
    case "stepDone":
    case "holdAside":
    case "serviced":
    case "strike":
      return [];
  }
}

/** What is wrong with an entry against the plan it cites. */
export const entryFaults = (entry: BookEntry, snapshot: Snapshot, path: string): BookFault[] =>
  snapshot.plan.id === entry.planId
    ? citedFaults(entry, knownIn(snapshot), path)
    : [{ path: `${path}.planId`, code: "otherPlan", values: { id: entry.planId } }];

/** Strikes of what is not in the book, and rings of strikes. */
function strikeFaults(book: Book): BookFault[] {
  const byId = new Map(book.map((entry) => [entry.id, entry]));
  return book.flatMap((entry, i): BookFault[] => {
    if (entry.kind !== "strike") return [];
    const path = `book[${i}].entryId`;
    if (!byId.has(entry.entryId)) return [{ path, code: "missingEntry", values: { id: entry.entryId } }];
    const passed = new Set([entry.id]);
    for (let next = byId.get(entry.entryId); next?.kind === "strike"; next = byId.get(next.entryId)) {
      if (passed.has(next.id)) return [{ path, code: "strikesRound" }];
      passed.add(next.id);
    }
    return [];
  });
}

/** Every fault of a book and of the plans kept with it. */
export function checkBook(book: Book, snapshots: Snapshots): BookFault[] {
  const faults: BookFault[] = [];
  const known = new Map<string, Known>();
  for (const [hash, snapshot] of Object.entries(snapshots)) {
    if (hashOf(snapshot) === hash) known.set(hash, knownIn(snapshot));
    else faults.push({ path: `snapshots.${hash}`, code: "hashDiffers" });
  }
  const seen = new Set<Id>();
  book.forEach((entry, i) => {
    const path = `book[${i}]`;
    if (seen.has(entry.id))
      faults.push({ path: `${path}.id`, code: "duplicateId", values: { id: entry.id } });
    seen.add(entry.id);
    const snapshot = snapshots[entry.planHash];
    const there = known.get(entry.planHash);
    if (!snapshot || !there) {
      if (!snapshot) faults.push({ path: `${path}.planHash`, code: "missingSnapshot" });
    } else if (snapshot.plan.id !== entry.planId)
      faults.push({ path: `${path}.planId`, code: "otherPlan", values: { id: entry.planId } });
    else faults.push(...citedFaults(entry, there, path));
  });
  return [...faults, ...strikeFaults(book)];
}
