/** An end as files and scripts write it. */
import { shapeOf } from "~/core/ends/adapters";
import { type FamilyId, familyIds, type Material } from "~/core/ends/families";
import { bore, line } from "./primitives";
import { z } from "./zod";

export const materials = [
  "brass",
  "steelZinc",
  "stainless",
  "aluminium",
  "polyamide",
  "rubber",
  "galvanised",
] as const satisfies readonly Material[];

export const endSchema = z.strictObject({
  family: z.enum(familyIds as [FamilyId, ...FamilyId[]]),
  size: line.min(1).max(12),
  form: line.min(1).max(6),
  material: z.enum(materials).exactOptional(),
  boreM: bore.exactOptional(),
});

/** An adapter of the generic catalogue by its shape. */
export const adapterShape = z
  .string()
  .max(120)
  .refine((shape) => shapeOf(shape) !== undefined, "noSuchShape");
