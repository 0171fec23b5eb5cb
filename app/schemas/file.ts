/** `.keel.json`: one whole job in one readable file. */
import { z } from "zod";
import { checkJob } from "~/core/plan/check";
import type { Job } from "~/core/plan/types";
import { jobSchema } from "./job";

export const FORMAT = "iron-keel";
export const VERSION = 1;
/** A job of 200 parts with 500 readings is under 1 MB. */
export const LONGEST_FILE = 8 * 1024 * 1024;

export const fileSchema = z.strictObject({
  format: z.literal(FORMAT),
  version: z.literal(VERSION),
  job: jobSchema,
});

/** One thing wrong, and where: a path such as `job.plans[0].runs[3].boreM`. Codes become sentences in messages/. */
export interface FileFault {
  path: string;
  code: string;
  values?: Record<string, string | number>;
}

export type ReadFile = { ok: true; job: Job } | { ok: false; faults: FileFault[] };

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

/** From a version to the next, pure; the oldest first. There is one version so far. */
const migrations: Record<number, (file: unknown) => unknown> = {};

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

/** Reads a job file. Every fault is listed with its place; nothing is taken from a file with one. */
export function readJobFile(text: string): ReadFile {
  if (text.length > LONGEST_FILE)
    return fail({ path: "", code: "fileTooLong", values: { most: LONGEST_FILE, length: text.length } });
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    return fail({
      path: "",
      code: "notJson",
      values: { reason: String((error as Error).message).slice(0, 120) },
    });
  }
  const wrong = envelope(value);
  if (wrong) return fail(wrong);
  for (let v = (value as { version: number }).version; v < VERSION; v++) value = migrations[v]?.(value);
  const parsed = fileSchema.safeParse(value);
  if (!parsed.success) return fail(...faultsOf(parsed.error));
  const faults = checkJob(parsed.data.job);
  if (faults.length > 0) return fail(...faults.map((fault) => ({ ...fault, path: `job.${fault.path}` })));
  return { ok: true, job: parsed.data.job };
}

/** Keys keep the order of the schema, so that two exports of one job are the same text. */
export function writeJobFile(job: Job): string {
  return `${JSON.stringify(fileSchema.parse({ format: FORMAT, version: VERSION, job }), null, 2)}\n`;
}

/** The JSON Schema of the file format, made from the source above. */
export const fileJsonSchema = () => ({ title: "Iron Keel job file", ...z.toJSONSchema(fileSchema) });
