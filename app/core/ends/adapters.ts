/** The generic catalogue: adapters as the trade makes them, by family. Shapes, not products; made once, when first asked. */
import type { End } from "./ends";
import { sizeOf } from "./ends";
import { type Family, type FamilyId, families, type Material } from "./families";

export interface Adapter {
  id: string;
  /** Two ends; three of a tee, the last its branch. */
  ends: readonly End[];
  materials: readonly Material[];
  /** To rank what is alike, no price. */
  cost: number;
  /** Places inside the part that can leak: a union's 1. */
  inner: number;
}

/** Which taper pipe thread is sold where the shop works. */
export type Pipe = "npt" | "bsp";

const rowsOf = (family: FamilyId) => (families[family] as Family).sizes.map(([size]) => size);
const all = (family: FamilyId, form: string): End[] => rowsOf(family).map((size) => ({ family, size, form }));
const nominal = (end: End) => sizeOf(end)?.nominalMm ?? 0;

/** Ends of one adapter are at most this far apart in size. Common practice, no source. */
const MOST_STEP = 2.1;
const isNear = (a: End, b: End) => {
  const [x, y] = [nominal(a), nominal(b)];
  return Math.max(x, y) <= MOST_STEP * Math.min(x, y);
};

const commonMaterials = (ends: readonly End[]): Material[] => {
  const [first, ...others] = ends.map(({ family }) => new Set((families[family] as Family).materials));
  return [...(first ?? [])].filter((one) => others.every((set) => set.has(one)));
};

const name = ({ family, size, form }: End) => `${family}${size}${form}`.replace(/[ /]/g, "_");
const CHEAP: Partial<Record<FamilyId, number>> = { npt: 80, barb: 80, hose: 20, bspt: 90 };
/** A step down narrows the way: it is chosen only where nothing of the same size will do. */
const STEP_COSTS = 200;
function costOf(ends: readonly End[]): number {
  const run = ends.slice(0, 2).map(nominal);
  const step = Math.max(...run) / Math.min(...run) - 1;
  const own = ends.reduce((sum, end) => sum + (CHEAP[end.family] ?? 100) * (1 + nominal(end) / 100), 0);
  return own / ends.length + STEP_COSTS * step;
}

/** An adapter of these ends, where one material suits them all. */
function adapter(ends: readonly End[], inner = 0): Adapter[] {
  const materials = commonMaterials(ends);
  return materials.length === 0
    ? []
    : [{ id: `g:${ends.map(name).join("+")}`, ends, materials, cost: costOf(ends), inner }];
}

const between = (as: readonly End[], bs: readonly End[]): Adapter[] =>
  as.flatMap((a) => bs.flatMap((b) => (isNear(a, b) ? adapter([a, b]) : [])));

/** Of one family with itself: every pair of sizes once. */
const within = (ends: readonly End[]): Adapter[] =>
  ends.flatMap((a, i) => ends.slice(i).flatMap((b) => (isNear(a, b) ? adapter([a, b]) : [])));

/** Tees: a run of one size and a branch of the same or a smaller one. */
const tees = (run: readonly End[], branch: readonly End[]): Adapter[] =>
  run.flatMap((end) =>
    branch.flatMap((one) => (nominal(one) <= nominal(end) * 1.001 ? adapter([end, end, one]) : [])),
  );

/** Ports with an O-ring or washer take a male stud; so do taper pipe threads. */
const STUDS: readonly FamilyId[] = ["bspp", "orb", "iso6149", "iso9974", "unFace"];
/** What a line is made on to: male bodies. */
const LINES: readonly FamilyId[] = ["jic37", "sae45", "orfs", "cone24", "bspCone"];
const SWIVELS: readonly FamilyId[] = ["jic37", "sae45", "orfs", "bspCone"];

function make(pipe: Pipe): Adapter[] {
  const taper: FamilyId = pipe === "npt" ? "npt" : "bspt";
  const other: FamilyId = pipe === "npt" ? "bspt" : "npt";
  const [m, f] = [all(taper, "m"), all(taper, "f")];
  const plainBarbs = all("barb", "m");
  // A self-gripping hose has a barb of its own, which takes no clamp.
  const barbs = [...plainBarbs, ...all("pushOn", "m")];
  // What the nut of an inverted flare goes into: its seat stands in the body.
  const seats = all("invFlare", "f");
  const studs = STUDS.flatMap((family) => all(family, "m"));
  const lines = LINES.flatMap((family) => all(family, "m"));
  const swivels = SWIVELS.flatMap((family) => all(family, "fs"));
  const eyes = all("eye", "f");
  const bolts = (["bspp", "iso9974", "unFace"] as const).flatMap((family) =>
    all(family, "bolt").flatMap((bolt) => {
      const shank = Math.round(sizeOf(bolt)?.majorMm ?? 0);
      return all("eye", "m").flatMap((eye) => (Number(eye.size) === shank ? adapter([bolt, eye]) : []));
    }),
  );
  return [
    ...within(m),
    ...within(f),
    ...between(m, f),
    ...between(m, [...lines, ...barbs, ...swivels, ...seats]),
    ...between(f, [...lines, ...barbs, ...swivels, ...seats]),
    ...between(studs, [...lines, ...barbs, ...f, ...seats]),
    ...within(seats),
    ...between(all("qc", "f"), [...lines, ...barbs, ...m, ...f]),
    ...between(m, all(other, "f")),
    ...between(f, all(other, "m")),
    ...between(all(other, "m"), barbs),
    ...between(swivels, barbs),
    ...LINES.flatMap((family) => within(all(family, "m"))),
    ...within(plainBarbs),
    ...all("hose", "f").flatMap((hose) => adapter([hose, hose])),
    ...bolts,
    ...between(eyes, [...lines, ...barbs]),
    ...tees(f, f),
    ...tees(plainBarbs, plainBarbs),
    ...tees(all("jic37", "m"), all("jic37", "m")),
    ...tees(all("cone24", "m"), all("cone24", "m")),
  ];
}

const made = new Map<Pipe, Adapter[]>();

export function genericAdapters(pipe: Pipe = "npt"): readonly Adapter[] {
  const known = made.get(pipe) ?? make(pipe);
  made.set(pipe, known);
  return known;
}

/** The generic adapter of two ends, whichever way round; null where none is made. */
export function adapterWith(a: End, b: End): Adapter | null {
  const ids = [`g:${name(a)}+${name(b)}`, `g:${name(b)}+${name(a)}`];
  return genericAdapters().find(({ id }) => ids.includes(id)) ?? null;
}

let byShape: Map<string, Adapter> | null = null;
/** An adapter of the generic catalogue by its shape; undefined where nobody makes one. */
export function shapeOf(shape: string): Adapter | undefined {
  byShape ??= new Map(genericAdapters().map((one) => [one.id, one]));
  return byShape.get(shape);
}
