/** `.keel.json`: one whole job with its book in one readable file; `.keel.zip` is the same with its pictures. */

import { checkBook } from "~/core/book/check";
import type { BookEntry } from "~/core/book/entries";
import type { Snapshot } from "~/core/book/snapshot";
import { checkJob } from "~/core/check/job";
import { cleaned } from "~/core/edit/merge";
import type { Job } from "~/core/plan/types";
import { bookEntrySchema, planHash, snapshotSchema } from "./book";
import { jobSchema } from "./job";
import { type Bundle, migrate, type Picture } from "./migrations";
import { VERSION } from "./version";
import { z } from "./zod";

export const FORMAT = "iron-keel";

export const fileSchema = z.strictObject({
  format: z.literal(FORMAT),
  version: z.literal(VERSION),
  job: jobSchema,
  book: z.array(bookEntrySchema),
  snapshots: z.record(planHash, snapshotSchema),
});

/** A job with its book, and the plans that the book cites by the hash of their content. */
export interface JobFile {
  job: Job;
  book: BookEntry[];
  snapshots: Record<string, Snapshot>;
}

/** One thing wrong, and where: a path such as `job.plans[0].runs[3].boreM`. Codes become sentences in messages/. */
export interface FileFault {
  path: string;
  code: string;
  values?: Record<string, string | number>;
}

export type ReadFile =
  | ({ ok: true; pictures: Map<string, Picture> } & JobFile)
  | { ok: false; faults: FileFault[] };

const MOST_FAULTS = 100;
const fail = (...faults: FileFault[]): ReadFile => ({ ok: false, faults: faults.slice(0, MOST_FAULTS) });

export const pathText = (path: readonly PropertyKey[]): string =>
  path
    .map((key, i) => (typeof key === "number" ? `[${key}]` : `${i === 0 ? "" : "."}${String(key)}`))
    .join("");

/** Zod's issues as faults with their places; unknown keys are named one by one. */
export function faultsOf(error: z.ZodError, root = ""): FileFault[] {
  const at = (path: readonly PropertyKey[]) =>
    [root, pathText(path)].filter(Boolean).join(path.length && typeof path[0] === "number" ? "" : ".");
  return error.issues.flatMap((issue): FileFault[] => {
    const path = at(issue.path);
    switch (issue.code) {
      case "unrecognized_keys":
        return issue.keys.map((key) => ({ path: path ? `${path}.${key}` : key, code: "unknownKey" }));
      case "too_small":
        return [{ path, code: "tooSmall", values: { least: Number(issue.minimum) } }];
      case "too_big":
        return [{ path, code: "tooLarge", values: { most: Number(issue.maximum) } }];
      case "invalid_type":
        return [
          {
            path,
            code: issue.input === undefined && issue.message.includes("undefined") ? "missing" : "wrongType",
            values: { wanted: issue.expected },
          },
        ];
      case "custom":
      case "invalid_format":
        return [{ path, code: /^[a-z]+[A-Za-z]*$/.test(issue.message) ? issue.message : "badFormat" }];
      default:
        return [{ path, code: "notAllowed" }];
    }
  });
}

function envelope(value: unknown): FileFault | null {
  if (typeof value !== "object" || value === null || Array.isArray(value))
    return { path: "", code: "notAJobFile" };
  const { format, version } = value as { format?: unknown; version?: unknown };
  if (format !== FORMAT) return { path: "format", code: "notAJobFile" };
  if (typeof version !== "number" || !Number.isInteger(version) || version < 1)
    return { path: "version", code: "badVersion" };
  if (version > VERSION)
    return { path: "version", code: "newerVersion", values: { version, known: VERSION } };
  return null;
}

/** Records of a job lie some twelve deep; what reads them later calls itself once a level. */
const MOST_DEEP = 60;
const SHOWN_DEEP = 6;

/**
 * What no schema would say of a value: keys that a record cannot hold as its own, which would be dropped without a word,
 * and records deeper in one another than any job's, which would end what walks through them.
 */
export function shapeFaults(value: unknown): FileFault[] {
  const faults: FileFault[] = [];
  const left: { value: unknown; path: PropertyKey[] }[] = [{ value, path: [] }];
  for (let one = left.pop(); one; one = left.pop()) {
    if (typeof one.value !== "object" || one.value === null) continue;
    if (one.path.length >= MOST_DEEP)
      return [
        {
          path: `${pathText(one.path.slice(0, SHOWN_DEEP))}…`,
          code: "tooDeep",
          values: { most: MOST_DEEP },
        },
      ];
    const isList = Array.isArray(one.value);
    for (const [key, held] of Object.entries(one.value)) {
      const path = [...one.path, isList ? Number(key) : key];
      if (key === "__proto__") faults.push({ path: pathText(path), code: "badId" });
      else if (typeof held === "object") left.push({ value: held, path });
    }
  }
  return faults.reverse();
}

/** A file's value, of whatever version, as what it holds. Every fault is listed with its place. */
export function readJobValue(value: unknown, pictures: Map<string, Picture> = new Map()): ReadFile {
  const wrong = envelope(value);
  if (wrong) return fail(wrong);
  const shape = shapeFaults(value);
  if (shape.length > 0) return fail(...shape);
  let bundle: Bundle;
  try {
    bundle = migrate({ file: value, pictures }, (value as { version: number }).version);
  } catch {
    return fail({
      path: "job",
      code: "notMigrated",
      values: { version: (value as { version: number }).version },
    });
  }
  const parsed = fileSchema.safeParse(bundle.file);
  if (!parsed.success) return fail(...faultsOf(parsed.error));
  const { job, book, snapshots } = parsed.data;
  const faults = [
    ...checkJob(job).map((fault) => ({ ...fault, path: `job.${fault.path}` })),
    ...checkBook(book, snapshots),
  ];
  if (faults.length > 0) return fail(...faults);
  return { ok: true, job, book, snapshots, pictures: bundle.pictures };
}

/** A text as the value it is JSON of, or the fault that it is none. */
export function parsedJson(text: string): { value: unknown } | { fault: FileFault } {
  try {
    return { value: JSON.parse(text) as unknown };
  } catch (error) {
    const reason = String((error as Error).message).slice(0, 120);
    return { fault: { path: "", code: "notJson", values: { reason } } };
  }
}

/** Reads a job file. Nothing is taken from a file with a fault. */
export function readJobFile(text: string, pictures?: Map<string, Picture>): ReadFile {
  const parsed = parsedJson(text);
  return "fault" in parsed ? fail(parsed.fault) : readJobValue(parsed.value, pictures);
}

/** Keys keep the order of the schema, so that two exports of one job are the same text. */
export function writeJobFile({ job, book, snapshots }: JobFile): string {
  const sorted = Object.fromEntries(Object.entries(snapshots).sort(([a], [b]) => (a < b ? -1 : 1)));
  const file = fileSchema.parse({ format: FORMAT, version: VERSION, job, book, snapshots: sorted });
  return `${JSON.stringify(file, null, 2)}\n`;
}

/** The JSON Schema of the file format, made from the source above; what stands in it often is defined once. */
export const fileJsonSchema = () => ({
  title: "Iron Keel job file",
  ...z.toJSONSchema(fileSchema, { reused: "ref" }),
});

/** What keeps a job from being kept: its shape, or records that do not fit one another. */
export function jobFaults(job: Job): FileFault[] {
  const asIs = jobSchema.safeParse(job);
  // A step of an older page may bring back a key without a value.
  const parsed = asIs.success ? asIs : jobSchema.safeParse(cleaned(job));
  return parsed.success ? checkJob(job) : faultsOf(parsed.error);
}
