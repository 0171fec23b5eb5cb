/** The shape of the book's entries and of the plans they cite. */

import { type BookEntry, faultKinds, quantities } from "~/core/book/entries";
import { HASH_DIGITS, type Snapshot } from "~/core/book/snapshot";
import { verbs } from "~/core/order/facts";
import { conditions, plan, portRef, reading, type Same, tank } from "./job";
import { engine } from "./part";
import { atLeastZero, id, line, name, nameOrNone, note, reason } from "./primitives";
import { z } from "./zod";

/** A step of a work order: what is done, and to what. */
const stepId = line.max(60).regex(new RegExp(`^(${verbs.join("|")}):.+$`));

const when = z.iso.datetime({ offset: true });
export const planHash = z.string().regex(new RegExp(`^[0-9a-f]{${HASH_DIGITS}}$`), "badHash");

const engineH = z.number().min(0).max(1e6).exactOptional();
const gaugePa = z.number().min(-1.1e5).max(1e7);
/** Scale numbers of ISO 4406. */
const isoNumber = z.int().min(0).max(28);

const entryBase = { id, at: when, planId: id, planHash };
const tankEntry = { ...entryBase, tankId: id };
export const bookEntrySchema = z.discriminatedUnion("kind", [
  z.strictObject({
    ...tankEntry,
    kind: z.literal("dip"),
    depthM: z.number().min(0).max(20),
    volumeM3: atLeastZero.exactOptional(),
  }),
  z.strictObject({ ...tankEntry, kind: z.literal("fill"), addedM3: atLeastZero, reading }),
  z.strictObject({
    ...tankEntry,
    kind: z.literal("sample"),
    drainedM3: atLeastZero,
    looks: z
      .array(
        z.strictObject({
          afterH: z.number().min(0).max(2000),
          water: z.enum(["none", "drops", "layer"]),
          haze: z.enum(["clear", "hazy", "opaque"]),
          growth: z.enum(["none", "specks", "mat"]),
          colour: z.enum(["bright", "dark"]),
        }),
      )
      .min(1)
      .max(20),
  }),
  z.strictObject({
    ...tankEntry,
    kind: z.literal("puddle"),
    volumeM3: atLeastZero,
    aboardM3: atLeastZero,
    engine: z.enum(["running", "stopped"]),
  }),
  z.strictObject({
    ...entryBase,
    kind: z.literal("photo"),
    ofId: id,
    note,
    pictureId: id,
  }),
  z.strictObject({
    ...entryBase,
    kind: z.literal("vacuum"),
    gaugeId: id,
    lineUpId: id,
    vacuumPa: z.number().min(-1e6).max(1.1e5),
    conditions,
    engineH,
    isBaseline: z.boolean().exactOptional(),
    note,
  }),
  z.strictObject({
    ...entryBase,
    kind: z.literal("reading"),
    ofId: id,
    quantity: z.enum(quantities),
    value: z.number().min(-1e6).max(1e8),
    lineUpId: id,
    conditions,
    engineH,
    isBaseline: z.boolean().exactOptional(),
    note,
  }),
  z.strictObject({
    ...entryBase,
    kind: z.literal("decay"),
    lineUpId: id,
    gaugeId: id,
    fromPa: gaugePa,
    toPa: gaugePa,
    seconds: z.number().positive().max(86_400),
  }),
  z.strictObject({
    ...tankEntry,
    kind: z.literal("bunkered"),
    addedM3: z.number().positive().max(1000),
    place: nameOrNone,
    certificate: nameOrNone,
  }),
  z.strictObject({
    ...tankEntry,
    kind: z.literal("particles"),
    from: z.enum(["line", "bottom"]),
    code: z
      .tuple([isoNumber, isoNumber, isoNumber])
      .refine(([a, b, c]) => a >= b && b >= c, "countsNotFalling"),
    polishedH: z.number().min(0).max(1e5),
  }),
  z.strictObject({
    ...entryBase,
    kind: z.literal("elementChanged"),
    partId: id,
    fittedOn: z.iso.date().exactOptional(),
    engineH,
    loading: z.number().positive().max(1000).exactOptional(),
  }),
  z.strictObject({
    ...entryBase,
    kind: z.literal("serviced"),
    // What it is of, and what was due of it.
    dueId: z.string().regex(/^[\w-]{1,20}:[\w-]{1,20}$/),
    engineH,
    note,
  }),
  z.strictObject({
    ...entryBase,
    kind: z.literal("leakCheck"),
    lineUpId: id,
    joint: portRef,
    state: z.enum(["running", "pumpOnly", "overnight", "blanked"]).exactOptional(),
    result: z.enum(["dry", "wet"]),
  }),
  z.strictObject({
    ...entryBase,
    kind: z.literal("setAside"),
    rule: line.max(40),
    ids: z.array(id).max(20),
    lineUpId: id.nullable(),
    about: line.max(80).exactOptional(),
    reason,
    figure: z.number().nullable(),
  }),
  z.strictObject({
    ...entryBase,
    kind: z.literal("stepDone"),
    stepId,
    isDone: z.boolean(),
    cameM3: atLeastZero.exactOptional(),
  }),
  z.strictObject({
    ...entryBase,
    kind: z.literal("holdAside"),
    stepId,
    fact: line.min(1).max(60),
    reason,
    by: name,
  }),
  z.strictObject({
    ...entryBase,
    kind: z.literal("torqueSet"),
    joint: portRef,
    momentNM: z.number().positive().max(1000),
    tool: nameOrNone,
  }),
  z.strictObject({
    ...entryBase,
    kind: z.literal("bled"),
    lineUpId: id,
    step: line.min(1).max(60),
    came: z.enum(["begun", "solid", "foam", "air", "done"]),
    seconds: z.number().min(0).max(86_400).exactOptional(),
    computedS: z.number().min(0).max(86_400).exactOptional(),
    cameM3: atLeastZero.exactOptional(),
    isPractice: z.boolean().exactOptional(),
  }),
  z.strictObject({
    ...entryBase,
    kind: z.literal("faultFound"),
    lineUpId: id,
    fault: z.enum(faultKinds),
    ofId: id,
    note,
  }),
  z.strictObject({ ...entryBase, kind: z.literal("strike"), entryId: id }),
]) satisfies z.ZodType<BookEntry>;

export const snapshotSchema = z.strictObject({
  plan: plan.omit({ conditions: true, places: true, sides: true, duty: true }),
  tanks: z.array(tank).max(40).exactOptional(),
  consumers: z.array(engine).max(10).exactOptional(),
}) satisfies z.ZodType<Snapshot>;

true satisfies Same<z.infer<typeof bookEntrySchema>, BookEntry>;
true satisfies Same<z.infer<typeof snapshotSchema>, Snapshot>;
