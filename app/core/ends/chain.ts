/** The shortest chain of adapters that seals between two ends, or three. */
import { type Adapter, genericAdapters, type Pipe, shapeOf } from "./adapters";
import { type End, endBoreM, endKey, type Joining, joining } from "./ends";
import type { Dress, Material } from "./families";

export interface InBox extends Adapter {
  count: number;
}

export interface ChainAsked {
  from: End;
  to: End;
  /** A third end, met by a tee. */
  branch?: End;
  box?: readonly InBox[];
  /** Parts more that a chain from the box alone may have. Default 1. */
  boxExtra?: number;
  biodieselPercent?: number;
  /** Default: the generic one. */
  catalogue?: readonly Adapter[];
  pipe?: Pipe;
}

export type ChainNote = "antiSeize" | "galvanic";

export interface Chain {
  outcome: "chain" | "none";
  /** What the two ends make of each other without anything between. */
  direct: Joining["fit"] | null;
  why: Joining["why"];
  count: number;
  leakPoints: number;
  washers: number;
  parts: string[];
  /** One a part, the first that suits the fuel and is told to be there. */
  materials: (Material | null)[];
  /** One a joint, from the first end on; the branch's last. */
  dress: Dress[];
  notes: ChainNote[];
  from: "box" | "mixed" | null;
  /** Narrowest bore on the way, m; null for a chain of no parts whose ends have none. */
  boreM: number | null;
}

/** From this share on brass and zinc are out: common practice, no source. */
const BRASS_OUT_PERCENT = 20;

interface Step {
  adapter: Adapter;
  /** End that meets what came before, and the one that it leaves open. */
  met: number;
  open: number;
  isBox: boolean;
}

interface Label {
  /** What stands open. */
  end: End;
  parts: number;
  leaks: number;
  bought: number;
  cost: number;
  washers: number;
  step: Step | null;
  joined: Joining | null;
  before: Label | null;
  ids: string;
}

/** Less is better, in this order; then the ids from the first end on, so that the answer is one. */
function compare(a: Omit<Label, "end">, b: Omit<Label, "end">): number {
  return (
    a.parts - b.parts ||
    a.leaks - b.leaks ||
    a.bought - b.bought ||
    a.cost - b.cost ||
    (a.ids < b.ids ? -1 : a.ids > b.ids ? 1 : 0)
  );
}

/** Beyond this a chain is no joint any more. */
const MOST_PARTS = 5;

/** Every end of a form and size that a chain may meet, by what it seals with. */
class Catalogue {
  private readonly byEnd = new Map<string, Step[]>();
  private readonly mates = new Map<string, { key: string; joined: Joining }[]>();
  private readonly open = new Map<string, End>();
  readonly tees: { adapter: Adapter; isBox: boolean }[] = [];

  constructor(adapters: readonly { adapter: Adapter; isBox: boolean }[]) {
    for (const { adapter, isBox } of adapters) {
      if (adapter.ends.length > 2) {
        this.tees.push({ adapter, isBox });
        continue;
      }
      for (const met of adapter.ends.length === 2 ? [0, 1] : []) {
        const end = adapter.ends[met] as End;
        const key = endKey(end);
        const steps = this.byEnd.get(key) ?? [];
        steps.push({ adapter, met, open: 1 - met, isBox });
        this.byEnd.set(key, steps);
        this.open.set(key, end);
      }
    }
  }

  /** What can be put on an open end. */
  *after(end: End): Iterable<{ step: Step; joined: Joining }> {
    const key = endKey(end);
    let mates = this.mates.get(key);
    if (!mates) {
      mates = [...this.open].flatMap(([other, one]) => {
        const joined = joining(end, one);
        return joined.fit === "seals" ? [{ key: other, joined }] : [];
      });
      this.mates.set(key, mates);
    }
    for (const { key: other, joined } of mates)
      for (const step of this.byEnd.get(other) ?? []) yield { step, joined };
  }
}

const start = (end: End): Label => ({
  end,
  parts: 0,
  leaks: 0,
  bought: 0,
  cost: 0,
  washers: 0,
  step: null,
  joined: null,
  before: null,
  ids: "",
});

function usedOf(label: Label, id: string): number {
  let used = 0;
  for (let at: Label | null = label; at; at = at.before) if (at.step?.adapter.id === id) used++;
  return used;
}

/** Of two barbs that hold, the one made for the hose. */
const STRAIN_COSTS = 1000;
const strainOf = ({ stretch }: Joining) => STRAIN_COSTS * Math.abs(stretch);
/** A clamp cuts the cover of hose that grips by itself: its own barb comes first where one is made. Common practice, no source. */
const CLAMPED_GRIP_COSTS = 500;
const gripOf = ({ dress }: Joining, ...ends: readonly End[]) =>
  dress === "clamp" && ends.some(({ family, form }) => family === "hose" && form === "p")
    ? CLAMPED_GRIP_COSTS
    : 0;

/** A single eye has a washer either side: the bolt's own joint has one, the eye's the other. */
function extended(label: Label, step: Step, joined: Joining): Label {
  const { adapter } = step;
  return {
    end: adapter.ends[step.open] as End,
    parts: label.parts + 1,
    leaks: label.leaks + joined.leakPoints + adapter.inner,
    bought: label.bought + (step.isBox ? 0 : 1),
    cost:
      label.cost +
      (step.isBox ? 0 : adapter.cost) +
      strainOf(joined) +
      gripOf(joined, label.end, adapter.ends[step.met] as End),
    washers: label.washers + joined.washers,
    step,
    joined,
    before: label,
    ids: `${label.ids} ${adapter.id}`,
  };
}

/** The best way to each open end that is reached from one, breadth first: parts come first in what is compared. */
function reach(
  catalogue: Catalogue,
  from: End,
  counts: ReadonlyMap<string, number>,
  most: number,
  isDone: (labels: readonly Label[]) => boolean = () => false,
): Map<string, Label> {
  const best = new Map<string, Label>([[endKey(from), start(from)]]);
  let front = [...best.values()];
  for (let parts = 0; parts < most && front.length > 0 && !isDone(front); parts++) {
    const next = new Map<string, Label>();
    for (const label of front)
      for (const { step, joined } of catalogue.after(label.end)) {
        const end = step.adapter.ends[step.open] as End;
        const key = endKey(end);
        if (best.has(key)) continue;
        if (step.isBox && usedOf(label, step.adapter.id) >= (counts.get(step.adapter.id) ?? 0)) continue;
        const grown = extended(label, step, joined);
        const known = next.get(key);
        if (!known || compare(grown, known) < 0) next.set(key, grown);
      }
    for (const [key, label] of next) best.set(key, label);
    front = [...next.values()];
  }
  return best;
}

/** The best of what is reached that seals with an end. */
function closing(labels: Iterable<Label>, to: End): Label | null {
  let best: Label | null = null;
  for (const label of labels) {
    const joined = joining(label.end, to);
    if (joined.fit !== "seals") continue;
    const closed: Label = {
      ...label,
      end: to,
      leaks: label.leaks + joined.leakPoints,
      washers: label.washers + joined.washers,
      cost: label.cost + strainOf(joined) + gripOf(joined, label.end, to),
      step: null,
      joined,
      before: label,
    };
    if (!best || compare(closed, best) < 0) best = closed;
  }
  return best;
}

/** Adapters of a way, from its first end on, and its joints. */
function unrolled(label: Label): { steps: Step[]; joints: Joining[] } {
  const steps: Step[] = [];
  const joints: Joining[] = [];
  for (let at: Label | null = label; at; at = at.before) {
    if (at.step) steps.unshift(at.step);
    if (at.joined) joints.unshift(at.joined);
  }
  return { steps, joints };
}

interface Whole {
  label: Pick<
    Label,
    "parts" | "leaks" | "bought" | "cost" | "washers" | "ids" | "step" | "joined" | "before"
  >;
  adapters: { adapter: Adapter; isBox: boolean }[];
  joints: Joining[];
}

function twoEnds(
  catalogue: Catalogue,
  { from, to }: ChainAsked,
  counts: ReadonlyMap<string, number>,
): Whole | null {
  const labels = reach(catalogue, from, counts, MOST_PARTS, (front) => closing(front, to) !== null);
  const best = closing(labels.values(), to);
  if (!best) return null;
  const { steps, joints } = unrolled(best);
  return { label: best, adapters: steps, joints };
}

/** Most parts of an arm of a tee: a run of more is no joint. */
const MOST_ARM = 3;

/** Every tee, each way round, and the shortest chains to its three ends. */
function threeEnds(
  catalogue: Catalogue,
  { from, to, branch }: ChainAsked & { branch: End },
  counts: ReadonlyMap<string, number>,
): Whole | null {
  const asked = [from, to, branch];
  const reached = asked.map((end) => [...reach(catalogue, end, counts, MOST_ARM).values()]);
  const arms = asked.map(() => new Map<string, Label | null>());
  const arm = (i: number, end: End): Label | null => {
    const key = endKey(end);
    const known = arms[i]?.get(key);
    if (known !== undefined) return known;
    const found = closing(reached[i] as Label[], end);
    arms[i]?.set(key, found);
    return found;
  };
  let best: Whole | null = null;
  for (const { adapter, isBox } of catalogue.tees) {
    for (const round of [
      [0, 1, 2],
      [1, 0, 2],
      [0, 2, 1],
      [2, 0, 1],
      [1, 2, 0],
      [2, 1, 0],
    ]) {
      const three = round.map((at, i) => arm(i, adapter.ends[at] as End));
      if (three.some((one) => one === null)) continue;
      const ways = three as Label[];
      const sum = (of: "parts" | "leaks" | "bought" | "cost" | "washers") =>
        ways.reduce((total, one) => total + one[of], 0);
      const label = {
        parts: sum("parts") + 1,
        leaks: sum("leaks") + adapter.inner,
        bought: sum("bought") + (isBox ? 0 : 1),
        cost: sum("cost") + (isBox ? 0 : adapter.cost),
        washers: sum("washers"),
        ids: `${ways.map(({ ids }) => ids).join(" ")} ${adapter.id}`,
        step: null,
        joined: null,
        before: null,
      };
      if (best && compare(label, best.label) >= 0) continue;
      const [first, second, third] = ways.map(unrolled);
      if (!first || !second || !third) continue;
      best = {
        label,
        adapters: [...first.steps, { adapter, isBox }, ...second.steps.reverse(), ...third.steps.reverse()],
        joints: [...first.joints, ...second.joints.reverse(), ...third.joints.reverse()],
      };
    }
  }
  return best;
}

const suits = (material: Material, biodieselPercent: number) =>
  material !== "galvanised" &&
  !(biodieselPercent >= BRASS_OUT_PERCENT && (material === "brass" || material === "steelZinc"));

const meets = (a: Material, b: Material, x: Material, y: Material) =>
  (a === x && b === y) || (a === y && b === x);

/** Metals in their order of which two that meet gall as they are screwed. */
export const gallsOf = (metals: readonly (Material | null | undefined)[]): boolean =>
  notesOf(metals).includes("antiSeize");

/** Of two metals that meet: what galls, and what eats the other where it stands wet. Common practice, no source. */
function notesOf(metals: readonly (Material | null | undefined)[]): ChainNote[] {
  const notes = new Set<ChainNote>();
  metals.slice(1).forEach((b, i) => {
    const a = metals[i];
    if (!a || !b) return;
    if (meets(a, b, "stainless", "stainless") || meets(a, b, "stainless", "aluminium"))
      notes.add("antiSeize");
    if (meets(a, b, "stainless", "aluminium") || meets(a, b, "brass", "aluminium")) notes.add("galvanic");
  });
  return (["antiSeize", "galvanic"] as const).filter((one) => notes.has(one));
}

const generic = new Map<Pipe, Catalogue>();

function genericCatalogue(pipe: Pipe): Catalogue {
  const known =
    generic.get(pipe) ?? new Catalogue(genericAdapters(pipe).map((adapter) => ({ adapter, isBox: false })));
  generic.set(pipe, known);
  return known;
}

const NO_COUNTS: ReadonlyMap<string, number> = new Map();

/**
 * The chain between ends: fewest parts, then leak points, then bought parts, then cost. A chain from the box alone wins
 * with at most `boxExtra` parts more.
 */
export function chainBetween(asked: ChainAsked): Chain {
  const { from, to, branch, box = [], boxExtra = 1, biodieselPercent = 0, pipe = "npt" } = asked;
  const joined = branch ? null : joining(from, to);
  const counts = new Map(box.map(({ id, count }) => [id, count]));
  const fits = ({ materials }: Adapter) => materials.some((one) => suits(one, biodieselPercent));
  const boxed = box
    .filter((one) => one.count > 0 && fits(one))
    .map((adapter) => ({ adapter: adapter as Adapter, isBox: true }));
  const listed = asked.catalogue?.filter(fits).map((adapter) => ({ adapter, isBox: false }));
  const find = (catalogue: Catalogue, own: ReadonlyMap<string, number>) =>
    branch ? threeEnds(catalogue, { ...asked, branch }, own) : twoEnds(catalogue, asked, own);
  const isPlain = boxed.length === 0 && !listed && biodieselPercent < BRASS_OUT_PERCENT;
  const bought =
    listed ??
    genericAdapters(pipe)
      .filter(fits)
      .map((adapter) => ({ adapter, isBox: false }));
  const any = isPlain
    ? find(genericCatalogue(pipe), NO_COUNTS)
    : find(new Catalogue([...boxed, ...bought]), counts);
  const own = boxed.length > 0 ? find(new Catalogue(boxed), counts) : null;
  const best = own && (!any || own.label.parts <= any.label.parts + boxExtra) ? own : any;
  const direct = { direct: joined?.fit ?? null, why: joined?.fit === "seals" ? null : (joined?.why ?? null) };
  if (!best)
    return {
      outcome: "none",
      ...direct,
      count: 0,
      leakPoints: 0,
      washers: 0,
      parts: [],
      materials: [],
      dress: [],
      notes: [],
      from: null,
      boreM: null,
    };
  const { adapters, joints, label } = best;
  const materials = adapters.map(
    ({ adapter }) => adapter.materials.find((one) => suits(one, biodieselPercent)) ?? null,
  );
  const bores = [from, ...adapters.flatMap(({ adapter }) => adapter.ends.slice(0, 2)), to].flatMap(
    (end) => endBoreM(end) ?? [],
  );
  return {
    outcome: "chain",
    ...direct,
    count: label.parts,
    leakPoints: label.leaks,
    washers: label.washers,
    parts: adapters.map(({ adapter }) => adapter.id),
    materials,
    dress: joints.map(({ dress }) => dress ?? "none"),
    notes: notesOf([from.material, ...materials, to.material]),
    from: adapters.length === 0 ? null : adapters.every(({ isBox }) => isBox) ? "box" : "mixed",
    boreM: bores.length > 0 ? Math.min(...bores) : null,
  };
}

/** The chain of parts that somebody chose, from the first end on; null where they do not seal between these ends. */
export function chainOfParts(from: End, to: End, parts: readonly string[]): Chain | null {
  const catalogue = parts.flatMap((id) => shapeOf(id) ?? []);
  if (catalogue.length !== parts.length) return null;
  const chain = chainBetween({ from, to, catalogue });
  const isSame =
    chain.parts.length === parts.length && [...chain.parts].sort().join() === [...parts].sort().join();
  return chain.outcome === "chain" && isSame ? chain : null;
}

const MOST_OTHERS = 3;

/**
 * Other chains than the best between two ends: each does without one part of it, best first. Nothing says that there are
 * no more; these are the nearest.
 */
export function otherChains(from: End, to: End, best: Chain): Chain[] {
  const found = new Map<string, Chain>();
  for (const without of new Set(best.parts)) {
    const chain = chainBetween({
      from,
      to,
      catalogue: genericAdapters().filter(({ id }) => id !== without),
    });
    if (chain.outcome === "chain" && chain.parts.length > 0) found.set(chain.parts.join(), chain);
  }
  found.delete(best.parts.join());
  return [...found.values()]
    .sort((a, b) => a.parts.length - b.parts.length || a.leakPoints - b.leakPoints)
    .slice(0, MOST_OTHERS);
}
