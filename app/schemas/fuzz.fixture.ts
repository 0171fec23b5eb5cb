/** Seeded mutations of job files, and what must hold of each: refused with its place, or accepted with figures that are figures. */
import { exportInp } from "~/core/export/inp";
import { findingsOf } from "~/core/findings/findings";
import { solveReport } from "~/core/hydraulics/report";
import { LineUpSolver } from "~/core/hydraulics/solve";
import { buildNetwork } from "~/core/network/network";
import { currentPlan } from "~/core/plan/ports";
import { seeded } from "~/core/random/seeded";
import { findingText } from "~/messages/findings";
import { nameOf } from "~/messages/notes";
import { readJobFile, writeJobFile } from "./file";

type Json = Record<string, unknown> | unknown[];
type Path = (string | number)[];

export interface Verdict {
  outcome: "refused" | "accepted" | "crash" | "nonFinite" | "silent" | "altered" | "notSolved";
  what: string;
}

const isNode = (value: unknown): value is Json => typeof value === "object" && value !== null;
const at = (root: unknown, path: Path) =>
  path.reduce<unknown>((node, key) => (node as Record<string | number, unknown>)[key], root);

/** A place in a tree, each level chosen evenly: small records far down are met as often as long lists. */
function someplace(root: Json, random: () => number): Path {
  const path: Path = [];
  let node: unknown = root;
  // A kept plan is held by its hash: what is changed in it is refused for that alone, and teaches little.
  if (random() < 0.9 && !Array.isArray(root)) {
    const part = random() < 0.85 ? "job" : "book";
    path.push(part);
    node = root[part];
  }
  while (isNode(node)) {
    const keys: Path = Array.isArray(node) ? node.map((_, i) => i) : Object.keys(node);
    if (keys.length === 0 || (path.length > 2 && random() < 0.12)) break;
    const key = keys[Math.floor(random() * keys.length)] as string | number;
    path.push(key);
    node = (node as Record<string | number, unknown>)[key];
  }
  return path;
}

const numbers = [0, -0, -1, 1e-12, 1e-9, 1e-4, 0.5, 1, 40, 1e3, 1e9, -1e9, 1e300];

/** Changes one thing. `isWrong` where no reading of the format could take it for right. */
function mutate(root: Json, random: () => number): { what: string; isWrong: boolean } {
  const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)] as T;
  const path = someplace(root, random);
  const parent = at(root, path.slice(0, -1)) as Record<string | number, unknown>;
  const key = path.at(-1) as string | number;
  const value = parent[key];
  const where = path.join(".");
  if (Array.isArray(parent) && isNode(value) && "id" in value && random() < 0.5) {
    parent.push(structuredClone(value));
    return { what: `${where} twice`, isWrong: true };
  }
  if (typeof value === "number") {
    parent[key] = random() < 0.7 ? value * pick([0, -1, 1e-3, 0.1, 0.9, 1.1, 10, 1e3]) : pick(numbers);
    return { what: `${where} = ${parent[key]}`, isWrong: false };
  }
  if (typeof value === "boolean") {
    parent[key] = !value;
    return { what: `${where} = ${!value}`, isWrong: false };
  }
  const kind = random();
  if (kind < 0.2) {
    if (Array.isArray(parent)) parent.splice(key as number, 1);
    else delete parent[key];
    return { what: `${where} taken out`, isWrong: false };
  }
  if (kind < 0.35) {
    parent[key] = pick<unknown>([null, "nan", [], {}, true, 1e999]);
    return { what: `${where} = ${JSON.stringify(parent[key])}`, isWrong: false };
  }
  if (kind < 0.5 && !Array.isArray(parent)) {
    parent[pick(["colour", "__proto__x", "x"])] = 1;
    return {
      what: `${where} beside an unknown key`,
      isWrong: !/valves|pumps|consumers|aboardM3|loading|load$|places|sides|given|ports/.test(
        path.slice(0, -1).join("."),
      ),
    };
  }
  if (/Id$|^(part|port|position|id)$/.test(String(key)) && typeof value === "string") {
    parent[key] = "nobody";
    // A name of one's own in the place of another is no fault by itself where nothing points at it.
    return { what: `${where} = nobody`, isWrong: /Id$|^(part|port)$/.test(String(key)) };
  }
  if (
    isNode(value) &&
    !Array.isArray(value) &&
    /valves|pumps|consumers|aboardM3|loading|places|sides/.test(String(key))
  ) {
    (value as Record<string, unknown>).nobody = Object.values(value)[0] ?? 1;
    return { what: `${where}.nobody`, isWrong: true };
  }
  if (typeof value === "string") {
    parent[key] = pick(["", "x", value.toUpperCase(), `${value}${value}`, "é漢"]);
    return { what: `${where} = ${JSON.stringify(parent[key])}`, isWrong: false };
  }
  return { what: `${where} left`, isWrong: false };
}

/** The first number that is none, with its way. */
function notFinite(value: unknown, path = ""): string | null {
  if (typeof value === "number") return Number.isFinite(value) ? null : path;
  if (!isNode(value)) return null;
  for (const [key, item] of Object.entries(value)) {
    const found = notFinite(item, `${path}.${key}`);
    if (found !== null) return found;
  }
  return null;
}

const broken = /NaN|Infinity|undefined|\[object/;

/** What comes of a file's text: refused, or accepted and then worked with as the application does. */
export function judge(text: string, what: string, isWrong: boolean): Verdict {
  try {
    const read = readJobFile(text);
    if (!read.ok) return { outcome: "refused", what };
    if (isWrong) return { outcome: "silent", what };
    const again = readJobFile(writeJobFile(read));
    if (!again.ok || JSON.stringify(again) !== JSON.stringify(read)) return { outcome: "altered", what };
    const { job, book } = read;
    const report = solveReport(job);
    const lost = report.lineUps.find(({ outcome }) => outcome === "notConverged" || outcome === "notFinite");
    if (lost) return { outcome: "notSolved", what: `${what}: ${lost.id} ${lost.outcome}` };
    const network = buildNetwork(job);
    const findings = findingsOf(job, book, network);
    const wrong = notFinite(report, "solve") ?? notFinite(findings, "findings");
    if (wrong !== null) return { outcome: "nonFinite", what: `${what}: ${wrong}` };
    for (const finding of findings) {
      const words = JSON.stringify(findingText(finding, job.units, (id) => nameOf(job, id)));
      if (broken.test(words))
        return { outcome: "nonFinite", what: `${what}: ${finding.rule}: ${words.slice(0, 120)}` };
    }
    const solver = new LineUpSolver(network);
    for (const lineUp of currentPlan(job).lineUps) {
      const result = solver.solve(lineUp, network.plan.conditions);
      if (result.outcome === "solved" && broken.test(exportInp(result)))
        return { outcome: "nonFinite", what: `${what}: export of ${lineUp.id}` };
    }
    return { outcome: "accepted", what };
  } catch (error) {
    return {
      outcome: "crash",
      what: `${what}: ${(error as Error).stack?.split("\n").slice(0, 3).join(" ")}`,
    };
  }
}

/** One mutated file by its seed; one to three changes. */
export function fuzzed(
  texts: readonly string[],
  seed: number,
): { text: string; what: string; isWrong: boolean } {
  const random = seeded(seed);
  const root = JSON.parse(texts[Math.floor(random() * texts.length)] as string) as Json;
  const count = 1 + Math.floor(random() ** 3 * 3);
  const done = Array.from({ length: count }, () => mutate(root, random));
  return {
    text: JSON.stringify(root),
    what: done.map(({ what }) => what).join("; "),
    isWrong: done.length === 1 && done.some(({ isWrong }) => isWrong),
  };
}
