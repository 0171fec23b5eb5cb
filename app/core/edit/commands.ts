/**
 * Every change to a job is a small typed command. Each runs on a draft; the change and its inverse are recorded as
 * patches, so that undo is exact whatever the command did.
 */
import { applyPatches, enablePatches, type Patch, produceWithPatches } from "immer";
import { straysOf } from "../plan/strays";
import type { Job } from "../plan/types";
import { boardCommands } from "./boardCommands";
import { type Command, CommandRefused, type Handler, type Handlers, type Note } from "./command";
import { planOf } from "./find";
import { lineUpCommands } from "./lineUpCommands";
import { partCommands } from "./partCommands";
import { planCommands } from "./planCommands";
import { runCommands } from "./runCommands";
import { surveyCommands } from "./surveyCommands";

enablePatches();

const handlers: Handlers<Command["name"]> = {
  ...surveyCommands,
  ...partCommands,
  ...runCommands,
  ...lineUpCommands,
  ...planCommands,
  ...boardCommands,
  several: {
    run: (job, _, { commands }) =>
      commands.flatMap((command) => handlerOf(command).run(job, planOf(job), command) ?? []),
  },
};
const handlerOf = <C extends Command>(command: C): Handler<C> => handlers[command.name] as Handler<C>;

/** Whether there is an edit of that name. */
export const isCommandName = (name: string): name is Command["name"] => Object.hasOwn(handlers, name);

export interface Applied {
  job: Job;
  patches: Patch[];
  inverse: Patch[];
  notes: Note[];
}

/** An edit made from a job as it is shown, with what it was made from: written later, it changes nothing else. */
export function madeFrom(job: Job, command: Command): Command {
  try {
    const record = handlerOf(command).record?.(job, planOf(job), command);
    if (!record || !("change" in command)) return command;
    const shown = Object.fromEntries(
      Object.keys(command.change).map((key) => [key, (record as Record<string, unknown>)[key]]),
    );
    return { ...command, shown } as Command;
  } catch (error) {
    // What it edits is gone from the page already: writing it says so.
    if (error instanceof CommandRefused) return command;
    throw error;
  }
}

/** Fields of commands that hold an id, which may become a key of a record. */
const holdsId = /^(id|part|port|branch|position|open)$|Id$/;

/** A name that every object answers to is lost as a key of a record: refused, in whatever place of a command. */
function refuseLostKeys(value: unknown, field = ""): void {
  if (typeof value === "string") {
    if (holdsId.test(field) && value in {}) throw new CommandRefused("badId", value);
  } else if (Array.isArray(value)) {
    for (const item of value) refuseLostKeys(item, field);
  } else if (typeof value === "object" && value !== null) {
    for (const key of Object.keys(value)) {
      if (key in {}) throw new CommandRefused("badId", key);
      refuseLostKeys((value as Record<string, unknown>)[key], key);
    }
  }
}

/** Applies a command. Throws {@link CommandRefused} where it cannot be; the job given is never changed. */
export function applyCommand(job: Job, command: Command): Applied {
  refuseLostKeys(command);
  let notes: Note[] = [];
  const [next, patches, inverse] = produceWithPatches(job, (draft) => {
    const target = draft as Job;
    notes = handlerOf(command).run(target, planOf(target), command) ?? [];
  });
  const strays = straysOf(next);
  if (strays.length === 0) return { job: next, patches, inverse, notes };
  // What named a thing that the command took away goes with it.
  const [swept, sweep, back] = produceWithPatches(next, (draft) => {
    for (const { path } of [...strays].reverse()) removeAt(draft as Job, path);
  });
  return { job: swept, patches: [...patches, ...sweep], inverse: [...back, ...inverse], notes };
}

function removeAt(job: Job, path: readonly (string | number)[]): void {
  const holder = path.slice(0, -1).reduce<unknown>((at, key) => (at as Record<string, unknown>)[key], job);
  const key = path.at(-1);
  // The last of a list first, so that places before it stay: see the order of the strays.
  if (Array.isArray(holder)) holder.splice(Number(key), 1);
  else delete (holder as Record<string, unknown>)[String(key)];
}

/** Plays recorded patches: a command again, or its inverse. */
export const playPatches = (job: Job, patches: readonly Patch[]): Job => applyPatches(job, [...patches]);
