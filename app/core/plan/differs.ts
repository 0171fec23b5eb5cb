/** What a plan takes from the plan that it is made from, and what it takes out or moves: one answer for order and list. */
import { isConsumer } from "../kinds/families";
import type { Part } from "../kinds/index";
import type { Id } from "../kinds/record";
import { distanceM, partsOf, placedPorts, portKey } from "./ports";
import { runGeometry } from "./route";
import type { Job, Joint, Plan, PortRef, Run } from "./types";

/** A part moved less than this was measured again, not moved; a run grown less is the same run. */
const MOVED_M = 0.005;
const GREW_M = 0.02;

/** Same hose: both ends, printing, bore, make, and no longer than a tape may differ. */
function isSameRun(job: Job, was: Run, run: Run, before: Plan, after: Plan): boolean {
  if (portKey(was.from) !== portKey(run.from) || portKey(was.to) !== portKey(run.to)) return false;
  if (was.product.marking !== run.product.marking || was.boreM !== run.boreM || was.make !== run.make)
    return false;
  const length = (plan: Plan, one: Run) => {
    const ports = placedPorts(job, plan);
    const [from, to] = [ports.get(portKey(one.from)), ports.get(portKey(one.to))];
    return from && to ? runGeometry(one, from, to).lengthM : 0;
  };
  return length(after, run) <= length(before, was) + GREW_M;
}

export interface Differs {
  /** Parts of the plan, consumers not among them. */
  mine: Part[];
  was: ReadonlyMap<Id, Part>;
  gone: Part[];
  moved: Part[];
  isSameRun(run: Run): boolean;
  isSameJoint(joint: Joint): boolean;
}

/** @param before null where the plan is made from nothing: then nothing of it stays */
export function differs(job: Job, before: Plan | null, after: Plan): Differs {
  const mine = partsOf(job, after).filter((part) => !isConsumer(part));
  const was = new Map((before?.parts ?? []).map((part) => [part.id, part]));
  const gone = (before?.parts ?? []).filter(({ id }) => !after.parts.some((part) => part.id === id));
  const moved = mine.filter((part) => {
    const old = was.get(part.id);
    if (old === undefined) return false;
    // What is to hang on another board than it did is hung again.
    const isRehung = before?.mounted?.[part.id]?.boardId !== after.mounted?.[part.id]?.boardId;
    return isRehung || distanceM(old.position, part.position) > MOVED_M;
  });
  const shifts = new Set([...gone, ...moved].map(({ id }) => id));
  const touches = ({ from, to }: { from: PortRef; to: PortRef }) =>
    shifts.has(from.part) || shifts.has(to.part);
  return {
    mine,
    was,
    gone,
    moved,
    isSameRun: (run) => {
      const old = before?.runs.find(({ id }) => id === run.id);
      return before !== null && old !== undefined && !touches(run) && isSameRun(job, old, run, before, after);
    },
    isSameJoint: (joint) => {
      const old = before?.joints.find(({ id }) => id === joint.id);
      return (
        old !== undefined &&
        !touches(joint) &&
        portKey(old.from) === portKey(joint.from) &&
        portKey(old.to) === portKey(joint.to)
      );
    },
  };
}
