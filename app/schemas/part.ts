/** Parts as they are stored: each kind's own list of figures, made into a schema. */

import { isConsumerKind } from "~/core/kinds/families";
import type { Field } from "~/core/kinds/fields";
import { type Engine, kinds, type Part, type PartKind, type PlanPart, partKinds } from "~/core/kinds/index";
import type { Kind } from "~/core/kinds/kind";
import {
  atLeastZero,
  bore,
  figurePath,
  given,
  id,
  name,
  nameOrNone,
  position,
  positive,
  share,
} from "./primitives";
import { z } from "./zod";

/** What hangs on a board or stands in a vehicle, m. */
const bodySize = z.number().min(0.005).max(5);

const partBase = {
  id,
  name,
  given,
  position,
  boreM: bore,
  ports: z
    .record(
      figurePath,
      z.strictObject({
        offset: position.exactOptional(),
        boreM: bore.exactOptional(),
        name: name.exactOptional(),
      }),
    )
    .exactOptional(),
  provisional: z.boolean().exactOptional(),
  flowBasis: z.enum(["arrow", "maker", "outerSide", "guess"]).exactOptional(),
  size: z.strictObject({ widthM: bodySize, heightM: bodySize, depthM: bodySize }).exactOptional(),
  sheet: nameOrNone.exactOptional(),
  shopMade: z.strictObject({ tested: z.boolean() }).exactOptional(),
  plugs: z.array(z.strictObject({ id, name })).max(12).exactOptional(),
};

/** Each number greater, or each smaller, than the one before it. */
const steps =
  <T>(of: (point: T) => number, isRising: boolean) =>
  (points: readonly T[]) =>
    points.every((point, i) => {
      const before = points[i - 1];
      return before === undefined || (isRising ? of(point) > of(before) : of(point) < of(before));
    });

type PumpPoint = { flowM3S: number; risePa: number };
type Load = { load: number; feedM3S: number; burnM3S: number };

/** What no list of figures describes. */
const structures = {
  curve: z
    .array(z.strictObject({ flowM3S: atLeastZero, risePa: z.number().min(-1e6).max(1e8) }))
    .min(2)
    .max(50)
    .refine(
      steps<PumpPoint>(({ flowM3S }) => flowM3S, true),
      "flowsNotRising",
    )
    .refine(
      steps<PumpPoint>(({ risePa }) => risePa, false),
      "risesNotFalling",
    ),
  off: z.discriminatedUnion("kind", [
    z.strictObject({ kind: z.literal("free"), dropPa: positive }),
    z.strictObject({ kind: z.literal("blocked") }),
    z.strictObject({ kind: z.literal("bypass"), opensPa: atLeastZero, dropPa: positive }),
  ]),
  element: z.strictObject({ id, fittedOn: z.iso.date().exactOptional() }).nullable(),
  loads: z
    .array(z.strictObject({ load: share, feedM3S: atLeastZero, burnM3S: atLeastZero }))
    .min(1)
    .max(20)
    .refine(
      steps<Load>(({ load }) => load, true),
      "loadsNotRising",
    )
    .refine((loads) => loads.every(({ burnM3S, feedM3S }) => burnM3S <= feedM3S), "burnsMoreThanFed"),
  positions: z
    .array(z.strictObject({ id, name, joins: z.array(z.array(id).min(2).max(9)).max(8) }))
    .min(1)
    .max(16),
  branches: z.array(z.strictObject({ id, name })).min(1).max(12),
};

function fieldSchema(field: Field): z.ZodType {
  switch (field.form) {
    case "quantity": {
      const { over, least, most, isWhole } = field.bounds;
      let number = isWhole ? z.int() : z.number();
      if (over !== undefined) number = number.gt(over);
      if (least !== undefined) number = number.min(least);
      return number.max(most);
    }
    case "switch":
      return z.boolean();
    case "choice":
      return z.enum(field.options as [string, ...string[]]);
    case "group":
      return z.strictObject(fieldSchemas(field.fields));
    default:
      return structures[field.form];
  }
}

/** One schema may stand in many kinds: a list that kinds share is made once, and once in the JSON Schema too. */
const made = new WeakMap<Field, z.ZodType>();

const fieldSchemas = (fields: Readonly<Record<string, Field>>): Record<string, z.ZodType> =>
  Object.fromEntries(
    Object.entries(fields).map(([key, field]) => {
      const schema = made.get(field) ?? fieldSchema(field);
      made.set(field, schema);
      return [key, field.isOptional ? schema.exactOptional() : schema];
    }),
  );

function partSchema(kind: PartKind) {
  const { fields, fault } = kinds[kind] as unknown as Kind<Part>;
  const record = z.strictObject({
    ...partBase,
    kind: z.literal(kind),
    ...fieldSchemas(fields as Readonly<Record<string, Field>>),
  });
  if (!fault) return record;
  return record.superRefine((part, context) => {
    const message = fault(part as unknown as Part);
    if (message) context.addIssue({ code: "custom", message });
  });
}

type Options = [ReturnType<typeof partSchema>, ...ReturnType<typeof partSchema>[]];
const union = (ofKinds: PartKind[]): z.ZodType =>
  z.discriminatedUnion("kind", ofKinds.map(partSchema) as Options);

/** The compiler holds each list of figures to its record: what the schemas take is what the types say. */
export const planPart = union(partKinds.filter((kind) => !isConsumerKind(kind))) as z.ZodType<
  PlanPart,
  PlanPart
>;
export const engine = union(partKinds.filter(isConsumerKind)) as z.ZodType<Engine, Engine>;
