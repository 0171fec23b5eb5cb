/** What a verb reads: files, and what stands behind its flags. */
import { readFileSync } from "node:fs";
import { contentOf, missingIn } from "~/core/air/content";
import { currentPlan } from "~/core/plan/ports";
import type { Job, LineUp } from "~/core/plan/types";
import { type JobFile, readJobFile } from "~/schemas/file";
import { BAD_INPUT, BAD_USE, NO_FILE, refuse, Stop } from "./stop";

/** What a verb is called with: the values of its flags, its file and what else stands before it. */
export interface Call {
  flags: Readonly<Record<string, string | boolean | undefined>>;
  /** In place of its file: what a verb before it left. */
  left?: string;
  /** A path, or `-` for standard input. */
  file: string;
  /** What standard input holds. */
  input: () => string;
  /** What stands before the file: a law, a format. */
  word?: string | undefined;
}

export const valueOf = ({ flags }: Call, flag: string): string | undefined => {
  const value = flags[flag];
  return typeof value === "string" ? value : undefined;
};

function readText({ input }: Call, file: string): string {
  try {
    return file === "-" ? input() : readFileSync(file, "utf8");
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    throw new Stop(
      [`${file}: ${code === "ENOENT" ? "there is no such file" : `cannot be read (${code})`}`],
      NO_FILE,
    );
  }
}

export function readFile(call: Call): JobFile {
  const { file, left } = call;
  const found = readJobFile(left ?? readText(call, file));
  if (!found.ok) throw refuse(file, found.faults);
  return found;
}

export const readJob = (call: Call): Job => readFile(call).job;

export function readJson(call: Call, file: string, name: string): unknown {
  const text = readText(call, file);
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new Stop([`${name}: not JSON: ${(error as Error).message}`], BAD_INPUT);
  }
}

/** The file that a flag must name. */
export function fileOf(call: Call, flag: string, what: string): string {
  const path = valueOf(call, flag);
  if (path === undefined) throw new Stop([`--${flag}: ${what}`], BAD_USE);
  return path;
}

/** A number within its bounds, else what it is where nothing is said. */
export function numberOf(call: Call, flag: string, fallback: number, least: number, most: number): number {
  const given = valueOf(call, flag);
  if (given === undefined) return fallback;
  const read = Number(given);
  if (!(read >= least && read <= most) || given.trim() === "")
    throw new Stop([`--${flag}: a number from ${least} to ${most}`], BAD_USE);
  return read;
}

/** One of a list by the id that a flag names. */
export function oneOf<T extends { id: string }>(call: Call, flag: string, list: readonly T[]): T {
  const wanted = valueOf(call, flag);
  const found = list.find(({ id }) => id === wanted);
  if (!found) throw new Stop([`--${flag}: one of ${list.map(({ id }) => id).join(", ")}`], BAD_USE);
  return found;
}

export const lineUpOf = (call: Call, job: Job): LineUp => oneOf(call, "lineup", currentPlan(job).lineUps);

/** What the lines hold before a bleed begins. */
export function contentAsked(call: Call, job: Job) {
  const content = contentOf(valueOf(call, "content") ?? "dry");
  if (!content) throw new Stop(["--content: dry, ranDry, changed:FILTER or opened:PART.PORT"], BAD_USE);
  const missing = missingIn(currentPlan(job), content);
  if (missing !== null) throw new Stop([`--content: ${missing} is not in this plan`], BAD_USE);
  return content;
}
