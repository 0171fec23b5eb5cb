/** Families of kinds that share a law or a treatment: a kind belongs by its descriptor, its record by what it holds. */

import type { FilterBody } from "./filtering";
import { kindOf, kinds, type Part, type PartKind } from "./index";
import type { Family } from "./kind";
import type { PumpBody } from "./pumping";
import type { Id } from "./record";

const belongs =
  <T extends Part>(family: Family) =>
  (part: Part): part is T =>
    kindOf(part).families.includes(family);

/** What stands in a line-up at a position. */
export type Valve = Extract<Part, { kind: "twoWay" | "selector" | "bank" }>;
export const isValve = belongs<Valve>("valve");

/** What a line-up switches on and off and that pushes by a curve. */
export type Pushing = Extract<Part, PumpBody>;
export const isPushing = belongs<Pushing>("pushing");

/** Everything a line-up switches on and off. */
export type Powered = Pushing | Extract<Part, { kind: "dosingPump" }>;
export const isPowered = belongs<Powered>("powered");

/** What holds an element that loads. */
export type Filtering = Extract<Part, FilterBody>;
export const isFiltering = belongs<Filtering>("filtering");

/** A pump with a curve, alone. */
export type Pump = Exclude<Pushing, Filtering>;
export const isPump = (part: Part): part is Pump => isPushing(part) && !isFiltering(part);

/** A drop rated at one flow. */
export type RatedPart = Extract<Part, { kind: "cooler" | "flowMeter" | "fuelHeater" | "strainer" }>;
export const isRated = belongs<RatedPart>("rated");

/** Lets air in and out of a tank in place of an open vent. */
export type Breather = Extract<Part, { kind: "breatherValve" }>;
export const isBreather = belongs<Breather>("breather");

/** Through `a`-`b` without a loss worth counting: its two ports are one place. */
export const isPlainThrough = (part: Part): boolean => kindOf(part).families.includes("plain");

export const isConsumerKind = (kind: PartKind): boolean =>
  (kinds[kind].families as readonly Family[]).includes("consumer");

/** Can a part of this kind be let into a hose? */
export const isLetIn = (kind: PartKind): boolean =>
  !isConsumerKind(kind) && !(kinds[kind].families as readonly Family[]).includes("breather");

/** What burns fuel. */
export type Consumer = Extract<Part, { kind: "engine" | "generator" | "heater" }>;
export const isConsumer = belongs<Consumer>("consumer");

/** One way only, from a pressure on. */
export type OneWayPart = Extract<
  Part,
  { kind: "check" | "antiSiphon" | "bulb" | "relief" | "regulator" | "breatherValve" }
>;

/** Elements of a plan's filters, with the part they stand in. */
export const elementsOf = (parts: readonly Part[]): { id: Id; part: Filtering }[] =>
  parts.flatMap((part) => (isFiltering(part) && part.element ? [{ id: part.element.id, part }] : []));
