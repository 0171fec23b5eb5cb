import { cornerOf, positionAt } from "../boards/board";
import type { Id } from "../kinds/record";
import type { Board, Job, Mounted, Plan } from "../plan/types";
import type { CommandOf, Handlers, Note } from "./command";
import { found, partOf } from "./find";
import { fitHoses } from "./hoses";
import { editRecord } from "./record";

const boardOf = (plan: Plan, id: Id): Board =>
  found(
    plan.boards?.find((one) => one.id === id),
    id,
  );
const mountedOf = (plan: Plan, id: Id): Mounted => found(plan.mounted?.[id], id);

export const boardCommands: Handlers<
  "addBoard" | "editBoard" | "removeBoard" | "hang" | "pin" | "setHandle" | "takeDown"
> = {
  addBoard: {
    run: (_, plan, { board }) => {
      plan.boards = [...(plan.boards ?? []), board];
    },
  },
  editBoard: {
    record: (_, plan, { id }) => boardOf(plan, id),
    run: (job, plan, command) => {
      const board = boardOf(plan, command.id);
      const hung = plan.parts.flatMap((part) => {
        const mounted = plan.mounted?.[part.id];
        return mounted?.boardId === board.id ? [{ part, corner: cornerOf(board, part, mounted.turn) }] : [];
      });
      editRecord<object>(board, command);
      // What hangs on it goes where it goes.
      for (const { part, corner } of hung) part.position = positionAt(board, part, corner);
      return lostBy(
        job,
        plan,
        hung.map(({ part }) => part.id),
      );
    },
  },
  // What hung on it keeps its place in the vehicle and hangs on nothing.
  removeBoard: {
    run: (_, plan, { id }) => {
      boardOf(plan, id);
      plan.boards = plan.boards?.filter((one) => one.id !== id) ?? [];
    },
  },
  hang: { run: (job, plan, command) => hang(job, plan, command) },
  pin: {
    run: (_, plan, { id, isPinned }) => {
      const one = mountedOf(plan, id);
      if (isPinned) one.pinned = true;
      else delete one.pinned;
    },
  },
  setHandle: {
    run: (_, plan, { id, handle }) => {
      const one = mountedOf(plan, id);
      if (handle) one.handle = { ...handle };
      else delete one.handle;
    },
  },
  takeDown: {
    run: (_, plan, { id }) => {
      mountedOf(plan, id);
      delete plan.mounted?.[id];
    },
  },
};

/** Hoses of parts that were put elsewhere, given a new length where they no longer reach; told if it was a measured one. */
function lostBy(job: Job, plan: Plan, ids: readonly Id[]): Note[] {
  const lost = ids.flatMap((id) => fitHoses(job, plan, id, { evenMeasured: true }));
  return lost.length > 0 ? [{ code: "measuredLost", ids: lost }] : [];
}

function hang(job: Job, plan: Plan, { boardId, at }: CommandOf<"hang">): Note[] {
  boardOf(plan, boardId);
  for (const { id, position, turn } of at) {
    partOf(plan, id).position = { ...position };
    plan.mounted = { ...plan.mounted, [id]: { ...plan.mounted?.[id], boardId, turn } };
  }
  // Every part is in its place before a hose is asked whether it reaches.
  return lostBy(
    job,
    plan,
    at.map(({ id }) => id),
  );
}
