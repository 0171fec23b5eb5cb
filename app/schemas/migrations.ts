/**
 * One chain of pure steps from each version of a job's file to the next. Rows of the browser's store are migrated by
 * the same steps: a row holds the job of a file. What a step is given was written by an older application and is
 * checked only after the last step; a step that cannot make sense of it throws, and nothing is changed.
 */
import type { Patch } from "immer";
import { hashOf, type Snapshot } from "~/core/book/snapshot";
import { oneLine, prose } from "~/core/kinds/words";
import { VERSION } from "./version";

/** A picture apart from the job that shows it. */
export interface Picture {
  type: "image/jpeg" | "image/png" | "image/webp";
  full: Blob;
  /** A small one for lists; the picture itself stands in where there is none. */
  preview?: Blob;
}

/** A file's value, and the pictures that stood in it or beside it. */
export interface Bundle {
  file: unknown;
  pictures: Map<string, Picture>;
}

interface Step {
  file: (bundle: Bundle) => Bundle;
  /**
   * The rule for history: patches of an undo step as they read after the migration, without those of what has left
   * the job; null where they cannot be carried over, and then this step of undo and all before it are gone.
   */
  patches: (patches: readonly Patch[]) => Patch[] | null;
}

type Loose = Record<string, unknown>;
const loose = (value: unknown): Loose => {
  if (typeof value !== "object" || value === null || Array.isArray(value)) throw new Error("not a record");
  return value as Loose;
};
const list = (value: unknown): Loose[] => {
  if (value === undefined) return [];
  if (!Array.isArray(value)) throw new Error("not a list");
  return value.map(loose);
};

/** The bytes of `data:image/jpeg;base64,...`; null for anything else. */
function pictureOf(dataUrl: unknown): Picture | null {
  const parts = /^data:(image\/(?:jpeg|png|webp));base64,([A-Za-z0-9+/=]+)$/.exec(String(dataUrl));
  if (!parts) return null;
  const bytes = Uint8Array.from(atob(parts[2] ?? ""), (letter) => letter.charCodeAt(0));
  const type = parts[1] as Picture["type"];
  return { type, full: new Blob([bytes], { type }) };
}

/** A record without the keys that name nothing any more; version 1 left them behind. */
const known = (record: unknown, ids: ReadonlySet<unknown>): Loose =>
  Object.fromEntries(Object.entries(loose(record)).filter(([id]) => ids.has(id)));

const idsOf = (value: unknown) => new Set(list(value).map(({ id }) => id));

function withoutStrays(job: Loose): Loose {
  const [tanks, consumers] = [idsOf(job.tanks), idsOf(job.consumers)];
  const plans = list(job.plans).map((plan) => {
    const elements = new Set(list(plan.parts).flatMap(({ element }) => (element ? [loose(element).id] : [])));
    const conditions = loose(plan.conditions);
    const drawn = new Set([...tanks, ...consumers, ...idsOf(plan.parts)]);
    return {
      ...plan,
      conditions: {
        ...conditions,
        aboardM3: known(conditions.aboardM3, tanks),
        loading: known(conditions.loading, elements),
        load: known(conditions.load, consumers),
      },
      nudges: known(plan.nudges, drawn),
    };
  });
  const sound = list(job.tanks).map(({ pickupFit, ...tank }) =>
    pickupFit && idsOf(tank.ports).has(loose(pickupFit).portId) ? { ...tank, pickupFit } : tank,
  );
  return { ...job, tanks: sound, plans };
}

/** The job as it is where it is too broken to look into: what reads it next lists what is wrong. */
function tried(change: (job: Loose) => Loose, job: Loose): Loose {
  try {
    return change(job);
  } catch {
    return job;
  }
}

/**
 * Version 2: the book stands beside the job, its entries cite plans by the hash of what was built, and pictures lie
 * apart. Version 1 kept whole plans by revision inside the job, and pictures as text inside the entries.
 */
const toVersion2: Step = {
  file: ({ file, pictures }) => {
    const { job, ...rest } = loose(file);
    const { book, keptRevisions, ...whole } = loose(job);
    const stays = tried(withoutStrays, whole);
    const snapshots: Record<string, Snapshot> = {};
    const hashes = new Map<string, string>();
    const keep = (plan: Loose): string => {
      const { conditions: _, nudges: __, duty: ___, ...built } = plan;
      const snapshot = { plan: built } as unknown as Snapshot;
      const hash = hashOf(snapshot);
      snapshots[hash] = snapshot;
      return hash;
    };
    for (const { planId, revision, plan } of list(keptRevisions))
      hashes.set(`${planId} ${revision}`, keep(loose(plan)));
    const now = list(stays.plans);
    const hashFor = ({ planId, revision }: Loose): string => {
      const kept = hashes.get(`${planId} ${revision}`);
      if (kept !== undefined) return kept;
      const plan = now.find(({ id }) => id === planId) ?? now[0];
      return keep(loose(plan));
    };
    const carried = new Map(pictures);
    const entries = list(book).map((entry) => {
      const { kind, id, at, planId, revision: _, picture, ...own } = entry;
      const base = { kind, id, at, planId, planHash: hashFor(entry), ...own };
      if (kind !== "photo") return base;
      const found = pictureOf(picture);
      if (found) carried.set(String(id), found);
      return { ...base, pictureId: id };
    });
    return { file: { ...rest, version: 2, job: stays, book: entries, snapshots }, pictures: carried };
  },
  patches: (patches) => {
    const kept = patches.filter(({ path }) => path[0] !== "book" && path[0] !== "keptRevisions");
    return kept.some(({ path }) => path.length === 0) ? null : kept;
  },
};

/** A dosing pump's share of its period becomes the time of its stroke, at its most strokes a second. */
function withStrokeTime(part: Loose): Loose {
  if (part.kind !== "dosingPump" || part.drawShare === undefined) return part;
  const { drawShare, given, ...rest } = part;
  const { drawShare: said, ...others } = given === undefined ? {} : loose(given);
  return {
    ...rest,
    ...(given === undefined ? {} : { given: said === undefined ? others : { ...others, strokeS: said } }),
    strokeS: Number(drawShare) / Number(part.mostHz),
  };
}
/** The radius of a traced run was the hose's own, to the inside of the bend; it is to the centre line now. */
function withCentreRadius(run: Loose): Loose {
  const route = loose(run.route);
  if (route.kind !== "traced") return run;
  const { outerDiameterM } = loose(run.product);
  return { ...run, route: { ...route, radiusM: Number(route.radiusM) + Number(outerDiameterM) / 2 } };
}

/** Plans that entries cite, changed, each under the hash of what it now is, and the entries citing them so. */
function recited(
  snapshots: unknown,
  book: unknown,
  change: (snapshot: Loose) => Loose,
): { snapshots: Record<string, Snapshot>; book: Loose[] } {
  const hashes = new Map<unknown, string>();
  const kept: Record<string, Snapshot> = {};
  for (const [hash, snapshot] of Object.entries(loose(snapshots ?? {}))) {
    const now = change(loose(snapshot)) as unknown as Snapshot;
    const is = hashOf(now);
    hashes.set(hash, is);
    kept[is] = now;
  }
  const entries = list(book).map((entry) => ({
    ...entry,
    ...(hashes.has(entry.planHash) ? { planHash: hashes.get(entry.planHash) } : {}),
  }));
  return { snapshots: kept, book: entries };
}

const inPlan = (plan: Loose): Loose => ({
  ...plan,
  parts: list(plan.parts).map(withStrokeTime),
  runs: list(plan.runs).map(withCentreRadius),
});

/**
 * Version 3: strainers, blocks, breather valves and second media; a dosing pump's stroke has a time of its own. Plans
 * that entries cite are kept under the hash of what they now are.
 */
const toVersion3: Step = {
  file: ({ file, pictures }) => {
    const { job, book, snapshots, ...rest } = loose(file);
    const cited = recited(snapshots, book, (whole) => ({ ...whole, plan: inPlan(loose(whole.plan)) }));
    const changed = tried((one) => ({ ...one, plans: list(one.plans).map(inPlan) }), loose(job));
    return { file: { ...rest, version: 3, job: changed, ...cited }, pictures };
  },
  patches: (patches) => (JSON.stringify(patches).includes("drawShare") ? null : [...patches]),
};

/** Version 4: parts have places on the drawing in place of how far they were nudged from where they were laid. */
const toVersion4: Step = {
  file: ({ file, pictures }) => {
    const { job, ...rest } = loose(file);
    const unnudged = (plan: Loose): Loose => {
      const { nudges: _, ...others } = plan;
      return others;
    };
    const changed = tried((one) => ({ ...one, plans: list(one.plans).map(unnudged) }), loose(job));
    return { file: { ...rest, version: 4, job: changed }, pictures };
  },
  patches: (patches) =>
    JSON.parse(
      JSON.stringify(patches.filter(({ path }) => !path.includes("nudges"))),
      (key, value: unknown) => (key === "nudges" ? undefined : value),
    ) as Patch[],
};

/** Fields whose words may have several lines. */
const proseFields = new Set(["note", "reason", "wrong"]);

/** A value without what cannot be printed in any of its words, or in the names of its fields. */
export function printable(value: unknown, field = ""): unknown {
  if (typeof value === "string") return proseFields.has(field) ? prose(value) : oneLine(value);
  if (Array.isArray(value)) return value.map((one) => printable(one, field));
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, held]) => [oneLine(key), printable(held, key)]));
}

/** Version 5: words are printable; a line break in a name was another event in a calendar, another line in a drawing. */
const toVersion5: Step = {
  file: ({ file, pictures }) => {
    const { job, book, snapshots, ...rest } = loose(file);
    const cited = recited(snapshots, printable(book), (whole) => printable(whole) as Loose);
    return { file: { ...rest, version: 5, job: printable(job), ...cited }, pictures };
  },
  patches: (patches) => patches.map((patch) => printable(patch) as Patch),
};

/** By the version that it starts from. */
const steps: Record<number, Step> = { 1: toVersion2, 2: toVersion3, 3: toVersion4, 4: toVersion5 };

const stepFrom = (version: number): Step => {
  const step = steps[version];
  if (!step) throw new Error(`no way from version ${version}`);
  return step;
};

/** A bundle of an older version as one of this. Throws where a step cannot make sense of it. */
export function migrate(bundle: Bundle, from: number): Bundle {
  let migrated = bundle;
  for (let version = from; version < VERSION; version++) migrated = stepFrom(version).file(migrated);
  return migrated;
}

/** One undo step's patches as they read in this version; null where they cannot be carried over. */
export function migratePatches(patches: readonly Patch[], from: number): Patch[] | null {
  let carried: Patch[] | null = [...patches];
  for (let version = from; version < VERSION && carried; version++)
    carried = stepFrom(version).patches(carried);
  return carried;
}
