/** The book of a job: dated entries that are never changed. What was entered by mistake is struck by a later entry. */
import type { Id } from "../kinds/record";
import type { Conditions, PortRef } from "../plan/types";

/** What every entry begins with. `planHash` is the hash of the plan as it was; see snapshot.ts. */
export interface EntryBase {
  id: Id;
  /** ISO 8601 with offset. */
  at: string;
  planId: Id;
  planHash: string;
}

export interface VacuumReading extends EntryBase {
  kind: "vacuum";
  gaugeId: Id;
  lineUpId: Id;
  vacuumPa: number;
  conditions: Conditions;
  /** On the engine's counter, where it was read. */
  engineH?: number;
  /** Noted as the work was handed over: what later ones are held against. */
  isBaseline?: boolean;
  note: string;
}

/** What an instrument of the plan can tell beside vacuum. */
export const quantities = ["pressure", "flow", "level", "temperature"] as const;
export type Quantity = (typeof quantities)[number];

/** A pressure over the open air in Pa, a flow in m3/s, or what a tank holds in m3. */
export interface Reading extends EntryBase {
  kind: "reading";
  /** Gauge, meter or tank. */
  ofId: Id;
  quantity: Quantity;
  value: number;
  lineUpId: Id;
  conditions: Conditions;
  engineH?: number;
  isBaseline?: boolean;
  note: string;
}

/** Pressure held with the return blanked: what a gauge read, and what it read after a while. */
export interface Decay extends EntryBase {
  kind: "decay";
  lineUpId: Id;
  gaugeId: Id;
  fromPa: number;
  toPa: number;
  seconds: number;
}

/** Fuel taken aboard: where, and what its certificate or delivery note says. */
export interface Bunkered extends EntryBase {
  kind: "bunkered";
  tankId: Id;
  addedM3: number;
  place: string;
  certificate: string;
}

/** Particles of a sample by ISO 4406, taken from the line or from the bottom of a tank. */
export interface Particles extends EntryBase {
  kind: "particles";
  tankId: Id;
  from: "line" | "bottom";
  /** At 4, 6 and 14 micron. */
  code: [number, number, number];
  /** Hours that it has been polished by then. */
  polishedH: number;
}

/** An element that was changed: how long it was in, where that is known. */
export interface ElementChanged extends EntryBase {
  kind: "elementChanged";
  partId: Id;
  fittedOn?: string;
  engineH?: number;
  /** What its medium took at the end, of what it takes clean. */
  loading?: number;
}

/** A thing that was due and was done. */
export interface Serviced extends EntryBase {
  kind: "serviced";
  /** Of the service plan. */
  dueId: string;
  engineH?: number;
  note: string;
}

export interface LeakCheck extends EntryBase {
  kind: "leakCheck";
  lineUpId: Id;
  /** Port at which the joint is. */
  joint: PortRef;
  /** What ran when it was looked at; not told by entries of before 0.6.0. */
  state?: "running" | "pumpOnly" | "overnight" | "blanked";
  result: "dry" | "wet";
}

/** A finding set aside with its reason. */
export interface SetAside extends EntryBase {
  kind: "setAside";
  rule: string;
  ids: Id[];
  lineUpId: Id | null;
  /** Which of a thing's findings of this rule; see rule.ts. */
  about?: string;
  reason: string;
  /** Figure of the finding when it was set aside; it comes back when it gets worse. */
  figure: number | null;
}

interface TankEntry extends EntryBase {
  tankId: Id;
}

/** A depth sounded, with the volume known to be aboard where it is known. */
export interface Dip extends TankEntry {
  kind: "dip";
  depthM: number;
  volumeM3?: number;
}

/** Known litres put in, and what the sender read after them. */
export interface Fill extends TankEntry {
  kind: "fill";
  addedM3: number;
  reading: number;
}

/** One look at a sample jar. */
export interface JarLook {
  afterH: number;
  water: "none" | "drops" | "layer";
  haze: "clear" | "hazy" | "opaque";
  growth: "none" | "specks" | "mat";
  colour: "bright" | "dark";
}

export interface Sample extends TankEntry {
  kind: "sample";
  drainedM3: number;
  looks: JarLook[];
}

/** A puddle found under a tank. */
export interface Puddle extends TankEntry {
  kind: "puddle";
  volumeM3: number;
  aboardM3: number;
  engine: "running" | "stopped";
}

/** A photograph, by what it shows; the picture itself is kept apart, under its id. */
export interface Photo extends EntryBase {
  kind: "photo";
  ofId: Id;
  note: string;
  pictureId: Id;
}

/** A step of the work order done, or found not to be after all. */
export interface StepDone extends EntryBase {
  kind: "stepDone";
  stepId: string;
  isDone: boolean;
  /** What came into the pan, where it was measured. */
  cameM3?: number;
}

/** What holds a step set aside, with who answers for it: it prints, and changes no fact. */
export interface HoldAside extends EntryBase {
  kind: "holdAside";
  stepId: string;
  fact: string;
  reason: string;
  by: string;
}

/** What a joint was tightened to, and with what. */
export interface TorqueSet extends EntryBase {
  kind: "torqueSet";
  joint: PortRef;
  momentNM: number;
  tool: string;
}

/** A step of a bleed as it went; `begun` opens a new bleed of the line-up. */
export interface BledStep extends EntryBase {
  kind: "bled";
  lineUpId: Id;
  /** Number of the step and what it opens, as the procedure had it. */
  step: string;
  came: "begun" | "solid" | "foam" | "air" | "done";
  seconds?: number;
  /** What the plan said it would take, where a pump ran: the two tell what the pump gives. */
  computedS?: number;
  /** What came into the pan, where it was measured. */
  cameM3?: number;
  /** On the model, to train. */
  isPractice?: boolean;
}

/** What can be wrong with a line-up that was fed once. */
export const faultKinds = [
  "restricted",
  "pickupBlocked",
  "filterLoaded",
  "wayShut",
  "ventBlocked",
  "weakPump",
  "airLeak",
  "airAtPickup",
  "returnRestricted",
  "waxing",
  "wrongLineUp",
] as const;
export type FaultKind = (typeof faultKinds)[number];

/** What was wrong, confirmed with the hand; it turns what is looked for first the next time. */
export interface FaultFound extends EntryBase {
  kind: "faultFound";
  lineUpId: Id;
  fault: FaultKind;
  /** Part, run or tank that it was at. */
  ofId: Id;
  note: string;
}

/** Takes an entry out of what counts; the entry itself stays. A strike can be struck in its turn. */
export interface Strike extends EntryBase {
  kind: "strike";
  entryId: Id;
}

export type BookEntry =
  | VacuumReading
  | Reading
  | Decay
  | Bunkered
  | Particles
  | ElementChanged
  | Serviced
  | LeakCheck
  | SetAside
  | Dip
  | Fill
  | Sample
  | Puddle
  | Photo
  | StepDone
  | HoldAside
  | TorqueSet
  | BledStep
  | FaultFound
  | Strike;
export type Book = readonly BookEntry[];

type WithoutBase<T> = T extends EntryBase ? Omit<T, keyof EntryBase> : never;
/** An entry as a person makes it: what it cites is added as it is written, and the date unless it is given. */
export type EntryDraft = WithoutBase<BookEntry> & { at?: string };

export const isKind =
  <K extends BookEntry["kind"]>(kind: K) =>
  (entry: BookEntry): entry is Extract<BookEntry, { kind: K }> =>
    entry.kind === kind;

/** The entries of one kind, in the book's order. */
export const entriesOf = <K extends BookEntry["kind"]>(book: Book, kind: K) => book.filter(isKind(kind));
