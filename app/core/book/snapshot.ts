/** Plans as they were when the book cites them: kept once a content, under the hash of it. */
import { sha256 } from "@noble/hashes/sha2";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils";
import type { Engine } from "../kinds/index";
import type { Job, Plan, Tank } from "../plan/types";

/** What is built: conditions stand in the reading itself, and places on the drawing say nothing of the system. */
export type BuiltPlan = Omit<Plan, "conditions" | "places" | "sides" | "duty">;

export interface Snapshot {
  plan: BuiltPlan;
  /** Absent in what came from files of version 1, which kept the plan alone. */
  tanks?: Tank[];
  consumers?: Engine[];
}

/** Hexadecimal digits of a hash: 128 bits of SHA-256 (FIPS 180-4), enough never to meet by chance. */
export const HASH_DIGITS = 32;

/** A value as text in which keys stand in one order, so that equal contents give equal text. */
function canonical(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonical).join(",")}]`;
  if (typeof value !== "object" || value === null) return JSON.stringify(value) ?? "null";
  const keys = Object.keys(value).sort();
  const members = keys
    .filter((key) => (value as Record<string, unknown>)[key] !== undefined)
    .map((key) => `${JSON.stringify(key)}:${canonical((value as Record<string, unknown>)[key])}`);
  return `{${members.join(",")}}`;
}

export const hashOf = (snapshot: Snapshot): string =>
  bytesToHex(sha256(utf8ToBytes(canonical(snapshot)))).slice(0, HASH_DIGITS);

export function builtPlan({ conditions: _, places: __, sides: ___, duty: ____, ...built }: Plan): BuiltPlan {
  return built;
}

/** The snapshot of the current plan, and its hash. */
export function snapshotOf(job: Job, plan: Plan): { hash: string; snapshot: Snapshot } {
  const snapshot = { plan: builtPlan(plan), tanks: job.tanks, consumers: job.consumers };
  return { hash: hashOf(snapshot), snapshot };
}
