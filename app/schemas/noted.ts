/** What a browser notes beside the jobs, for itself: read back through a schema, since an older page may have noted it otherwise. */
import type { ColumnMapping } from "~/core/care/incoming";
import type { Sketch } from "~/core/drawing/sketch";
import { z } from "./zod";

const grade = z.enum(["stop", "mend", "watch"]);
const count = z.int().min(0);

/** A small picture of the plumbing: bodies, and hoses as x and y in turn. */
const sketchSchema: z.ZodType<Sketch> = z.strictObject({
  width: z.int(),
  height: z.int(),
  hoses: z.array(z.array(z.int())),
  bodies: z.array(
    z.strictObject({
      is: z.enum(["tank", "consumer", "part"]),
      x: z.int(),
      y: z.int(),
      width: z.int(),
      height: z.int(),
    }),
  ),
});

/** What the job list tells of a job, in words, with the state of the job that it was worked out from. */
export const glanceSchema = z.strictObject({
  mark: z.string(),
  worst: z.strictObject({ grade, title: z.string() }).nullable(),
  counts: z.strictObject({ stop: count, mend: count, watch: count }),
  due: z.array(z.strictObject({ uid: z.string(), on: z.string(), text: z.string(), detail: z.string() })),
  awaited: count,
  /** Null where nothing is drawn, or where it could not be laid out. */
  sketch: sketchSchema.nullable(),
  changed: z.string().nullable(),
});
export type Glance = z.infer<typeof glanceSchema>;

/** How tall the Keel was left, by place. */
export const keelHeightsSchema = z.record(z.string(), z.enum(["folded", "low", "tall"]));

/** Which column of a recorder's table is of which instrument. */
export const columnMappingSchema: z.ZodType<ColumnMapping> = z.strictObject({
  time: z.string(),
  of: z.record(z.string(), z.string()),
});

/** A note as its schema has it; null where it is none of its kind, so that it is made anew. */
export function noted<T>(schema: z.ZodType<T>, text: string | null | undefined): T | null {
  if (text === null || text === undefined) return null;
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return null;
  }
  return schema.safeParse(value).data ?? null;
}
