/** Seeded mutations of job files, and what must hold of each: refused with its place, or accepted with figures that are figures. */
import { columnsOf, guessedMapping, readTable } from "~/core/care/incoming";
import { instrumentsOf } from "~/core/care/instruments";
import { readDipCsv } from "~/core/export/dipCsv";
import { exportInp } from "~/core/export/inp";
import { findingsOf } from "~/core/findings/findings";
import { solveReport } from "~/core/hydraulics/report";
import { LineUpSolver } from "~/core/hydraulics/solve";
import { buildNetwork } from "~/core/network/network";
import { currentPlan } from "~/core/plan/ports";
import type { Job } from "~/core/plan/types";
import { seeded } from "~/core/random/seeded";
import { findingText } from "~/messages/findings";
import { nameOf } from "~/messages/notes";
import { readJobFile, writeJobFile } from "./file";
import { readJobBlob } from "./zip";

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
  if (typeof value === "string" && random() < 0.2) {
    parent[key] = `${value}${pick(["\n", "\r\nBEGIN:VEVENT", "\u0000", "\u2028", "\u0085"])}x`;
    // Notes and reasons have lines.
    return { what: `${where} with a control character`, isWrong: !/note|reason|wrong/.test(String(key)) };
  }
  if (random() < 0.05) {
    const [open, shut] = pick([
      ["[", "]"],
      ['{"a":', "}"],
    ] as const);
    const deep = 60 + Math.floor(random() * 2000);
    parent[key] = JSON.parse(`${open.repeat(deep)}1${shut.repeat(deep)}`);
    return { what: `${where} ${deep} deep`, isWrong: true };
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

/** A ZIP with some of its bytes changed, cut, or doubled: refused, or read as one that is sound. */
export async function judgeZip(zip: Uint8Array<ArrayBuffer>, seed: number): Promise<Verdict> {
  const random = seeded(seed);
  const at = () => Math.floor(random() * zip.length);
  let bytes = zip.slice();
  const what: string[] = [];
  for (let i = Math.floor(random() * 4); i >= 0; i--) {
    const kind = random();
    // Most of what a ZIP says of itself stands in its last bytes.
    const place = random() < 0.7 ? bytes.length - 1 - Math.floor(random() * 400) : at();
    what.push(`${kind.toFixed(2)} at ${place}`);
    if (kind < 0.6) bytes[Math.max(0, place)] = Math.floor(random() * 256);
    else if (kind < 0.8) bytes.fill(random() < 0.5 ? 0xff : 0, Math.max(0, place), place + 4);
    else if (kind < 0.9) bytes = bytes.slice(0, at());
    else bytes = new Uint8Array([...bytes.slice(at()), ...bytes]);
  }
  const words = `zip ${what.join(", ")}`;
  try {
    const read = await readJobBlob(new Blob([bytes]));
    if (!read.ok) return { outcome: "refused", what: words };
    return judge(writeJobFile(read), words, false);
  } catch (error) {
    return {
      outcome: "crash",
      what: `${words}: ${(error as Error).stack?.split("\n").slice(0, 3).join(" ")}`,
    };
  }
}

/** A table of readings with cells, rows and columns that no logger writes: readings that are figures, or faults with their rows. */
export function judgeTable(job: Job, seed: number): Verdict {
  const random = seeded(seed);
  const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)] as T;
  const cells = [
    "",
    "0",
    "-1",
    "1e999",
    "=1+1",
    "\uff1d1",
    "NaN",
    "3 inHg",
    "3,5",
    '"',
    "'",
    "\u0000",
    "2026-05-01T09:00:00Z",
    "x".repeat(500),
    "\t",
    "9".repeat(400),
  ];
  const width = pick([1, 2, 3, 5, 40, 5000]);
  const names = Array.from({ length: width }, (_, i) =>
    pick(["time", "Vacuum gauge", "vacuum", `c${i}`, "", "__proto__", "time"]),
  );
  const rows = Array.from({ length: pick([0, 1, 3, width > 100 ? 2 : 60]) }, () =>
    Array.from({ length: width + pick([0, 0, 1, -1]) }, () => pick(cells)).join(pick([",", ",", ";"])),
  );
  const text = [names.join(","), ...rows].join(pick(["\n", "\r\n", "\r"]));
  const what = `table of ${width} by ${rows.length}`;
  try {
    const plan = currentPlan(job);
    const mapping = guessedMapping(columnsOf(text), instrumentsOf(job, plan));
    const { readings, faults } = readTable(text, mapping, job, plan, new Date("2026-06-01T00:00:00Z"));
    const wrong = readings.find(({ value }) => !Number.isFinite(value));
    if (wrong) return { outcome: "nonFinite", what: `${what}: ${wrong.value}` };
    const dips = readDipCsv(text, { length: "mm", volume: "L" });
    if (readings.length === 0 && faults.length === 0 && rows.some((row) => /\S/.test(row)))
      return { outcome: "accepted", what };
    return { outcome: faults.length > 0 && !dips.ok ? "refused" : "accepted", what };
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
