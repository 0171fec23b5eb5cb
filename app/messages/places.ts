/** Where in a job something is, in words: 'Port tank, sump' for `tanks[0].sump`. */
import type { Job } from "~/core/plan/types";
import { fieldNames } from "./fields";
import { nameOf } from "./notes";

/** Lists that go without saying: what stands in them has a name of its own. */
const unsaid = new Set([
  "tanks",
  "consumers",
  "plans",
  "parts",
  "runs",
  "joints",
  "lineUps",
  "ports",
  "job",
  "conditions",
]);

/** 'floorOverGroundM' as 'floor over ground': a word that no table has, without its unit. */
const plainWords = (key: string) =>
  key
    .replace(/(M3S|M3|M2S|M2|KgM3|Kg|Pa|Deg|C|M|S|W|V|A)$/, "")
    .replace(/([a-z])([A-Z0-9])/g, "$1 $2")
    .toLowerCase() || key;

const isNamed = (value: unknown): value is { name: string } =>
  typeof value === "object" && value !== null && typeof (value as { name?: unknown }).name === "string";

/**
 * The place that a fault's path leads to, in the user's words: the names on the way, then the figure. Empty for the job
 * itself.
 * @param path as in a fault: keys with dots, places in a list in brackets
 */
export function placeText(path: string, job: Job): string {
  const said: string[] = [];
  let at: unknown = job;
  let list = "";
  const keys = [...path.matchAll(/\[(\d+)\]|[^.[\]]+/g)];
  keys.forEach(([text, place], i) => {
    const key = place ?? text;
    at = typeof at === "object" && at !== null ? (at as Record<string, unknown>)[key] : undefined;
    if (place !== undefined) {
      const only = list === "plans" && job.plans.length === 1;
      if (isNamed(at)) {
        if (!only) said.push(at.name);
      } else said.push(`${list.replace(/s$/, "")} ${Number(key) + 1}`);
      return;
    }
    list = plainWords(key);
    const name = nameOf(job, key);
    if (name !== key) said.push(name);
    else if (keys[i + 1]?.[1] === undefined && !unsaid.has(key)) said.push(fieldNames[key] ?? list);
  });
  return said.join(", ");
}
