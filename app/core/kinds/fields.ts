/**
 * The list of figures of a kind of part: each field of its record once, with its dimension, bounds, value on a blank
 * part, and whose word it is. The schema, the inspector, 'to measure', the parts list and blank parts are read off it.
 */
import type { Dimension } from "../units/factors";
import type { UnitChoice } from "../units/format";
import type { PartBase } from "./record";

export type UnitKey =
  | Exclude<keyof UnitChoice, "pressure">
  /** Above zero, below it, and into a pan: the trade has a scale for each. */
  | "gauge"
  | "vacuum"
  | "pan"
  | "wire"
  | "A"
  | "V"
  | "W"
  | "Hz"
  | "ms"
  | "s"
  | "deg"
  | "ratio"
  | "C"
  | "kg/m3";

export interface Bounds {
  /** The figure must be greater than this. */
  over?: number;
  least?: number;
  most: number;
  isWhole?: true;
}

/** Where a field stands on screen: with the others, folded under a heading, or nowhere. */
export type Fold = "circuit" | "standing" | "second" | "spare" | "carried" | "bleeding" | "quiet";

interface Common<T> {
  /** On a blank part, or what makes it; absent where nobody knows it until it is entered. */
  blank?: T | (() => T);
  isOptional?: true;
  /** 'To measure' asks for it as long as it is assumed. */
  isNeeded?: true;
  /** It tells one part from another of its kind in the parts list. */
  tells?: boolean;
  fold?: Fold;
}

export interface QuantityField extends Common<number> {
  form: "quantity";
  dimension: Dimension;
  unit: UnitKey;
  bounds: Bounds;
  basis: "measured" | "maker";
}

export interface SwitchField extends Common<boolean> {
  form: "switch";
  /** A person must look at it: absent until somebody has. */
  isLook?: true;
}

export interface ChoiceField<T extends string = string> extends Common<T> {
  form: "choice";
  options: readonly T[];
}

/** A record inside the part, with fields of its own. */
export interface GroupField<T extends object> extends Common<T> {
  form: "group";
  fields: FieldsOf<T>;
}

/** Structures that no list of figures describes: the schema knows each by its name. */
export interface StructureField<T> extends Common<T> {
  form: "curve" | "off" | "element" | "loads" | "positions" | "branches";
}

export type Field = QuantityField | SwitchField | ChoiceField | GroupField<never> | StructureField<never>;

type IsStructure<T> = T extends readonly unknown[] | { kind: string } | null ? true : false;
type FieldOf<T> = [T] extends [number]
  ? QuantityField
  : [T] extends [boolean]
    ? SwitchField
    : [T] extends [string]
      ? ChoiceField<T>
      : true extends IsStructure<T>
        ? StructureField<T>
        : [T] extends [object]
          ? GroupField<T>
          : never;

/** Every key of a record; optional there, optional here. A field too many, too few or of another kind does not compile. */
export type FieldsOf<R> = {
  readonly [K in keyof R]-?: FieldOf<NonNullable<R[K]> | Extract<R[K], null>> &
    (undefined extends R[K] ? { isOptional: true } : { isOptional?: never; blank: unknown });
};

/** A record of blank values: what nobody knows yet is absent. Each call makes new objects. */
export function blankOf<R extends object>(fields: FieldsOf<R>): R {
  const entries = Object.entries(fields as Record<string, Field>).flatMap(([key, { blank }]) => {
    const value = typeof blank === "function" ? (blank as () => unknown)() : blank;
    return value === undefined ? [] : [[key, structuredClone(value)] as const];
  });
  return Object.fromEntries(entries) as R;
}

/** What a kind adds to the base of all parts. */
export type Own<P> = Omit<P, keyof PartBase | "kind">;

export const positive: Bounds = { over: 0, most: 1e9 };
export const atLeastZero: Bounds = { least: 0, most: 1e9 };
export const share: Bounds = { least: 0, most: 1 };
/** What fuel passes is at least half a millimetre wide: a slip of a unit is narrower. */
export const bore: Bounds = { least: 5e-4, most: 0.3 };
export const length: Bounds = { least: 0, most: 20 };
export const degreesC: Bounds = { least: -60, most: 120 };

type Rest = Omit<QuantityField, "form" | "dimension" | "unit" | "bounds" | "basis">;

const quantity =
  (dimension: Dimension, unit: UnitKey) =>
  <const O extends Rest>(basis: "measured" | "maker", bounds: Bounds, rest: O) => ({
    form: "quantity" as const,
    dimension,
    unit,
    basis,
    bounds,
    ...rest,
  });

/** One maker of a quantity's field for each dimension and unit that it is shown in. */
export const flow = quantity("flow", "flow");
export const pressure = quantity("pressure", "gauge");
/** Of a vacuum, and of losses that are held against one. */
export const vacuum = quantity("pressure", "vacuum");
export const panVolume = quantity("volume", "pan");
export const volume = quantity("volume", "volume");
export const ratio = quantity("ratio", "ratio");
export const metres = quantity("length", "length");
export const boreSize = quantity("length", "bore");
export const temperature = quantity("temperature", "temperature");
export const amperes = quantity("current", "A");
export const volts = quantity("voltage", "V");
export const watts = quantity("power", "W");
export const hertz = quantity("frequency", "Hz");
export const degrees = quantity("angle", "deg");
export const milliseconds = quantity("time", "ms");
export const seconds = quantity("time", "s");
export const wireArea = quantity("area", "wire");
export const density = quantity("density", "kg/m3");
/** Dynamic, Pa s: asked for nowhere yet, so that it has no unit on screen. */
export const viscosity = quantity("ratio", "ratio");

export const toggle = <const O extends Omit<SwitchField, "form">>(rest: O) => ({
  form: "switch" as const,
  ...rest,
});
/** What a person must look at: not looked at, yes, no. Never right by default. */
export const look = { form: "switch", isOptional: true, isLook: true } as const;
export const choice = <const T extends string, const O extends Omit<ChoiceField<T>, "form" | "options">>(
  options: readonly T[],
  rest: O,
) => ({ form: "choice" as const, options, ...rest });

/** A field that only a maker's sheet or the plan itself gives: absent until it is entered. */
export const optional = { isOptional: true } as const;
