/** The box as it is stored and exchanged. */
import type { BoxItem } from "~/core/box/box";
import { adapterShape, endSchema } from "./end";
import { type FileFault, faultsOf, parsedJson } from "./file";
import type { Same } from "./job";
import { printable } from "./migrations";
import { planPart } from "./part";
import { bore, id, name } from "./primitives";
import { BOX_VERSION } from "./version";
import { z } from "./zod";

export const BOX_FORMAT = "keel-box";
/** A shop has no more lines than this; a file with more is none. */
export const MOST_ITEMS = 10000;

const count = z.int().min(1).max(100000);
export const boxItem = z.discriminatedUnion("kind", [
  z.strictObject({
    kind: z.literal("adapter"),
    id,
    shape: adapterShape,
    count,
  }),
  z.strictObject({
    kind: z.literal("hose"),
    id,
    marking: name,
    boreM: bore,
    lengthM: z.number().positive().max(1000),
    form: z.enum(["offcut", "coil"]),
  }),
  z.strictObject({ kind: z.literal("saw"), id, diameterM: z.number().positive().max(0.5) }),
  z.strictObject({
    kind: z.literal("part"),
    id,
    name,
    part: planPart,
    ends: z.record(id, endSchema),
    on: z.iso.date(),
  }),
  z.strictObject({ kind: z.literal("thing"), id, name, count }),
]);
true satisfies Same<z.infer<typeof boxItem>, BoxItem>;

export const boxFile = z.strictObject({
  format: z.literal(BOX_FORMAT),
  version: z.int().min(1).max(BOX_VERSION),
  items: z.array(boxItem).max(MOST_ITEMS),
});

/** A row or a file of the box as it reads in this version. */
export const broughtUp = (version: unknown, value: unknown): unknown =>
  typeof version === "number" && version < 3 ? printable(value) : value;

export type ReadBox = { ok: true; items: BoxItem[] } | { ok: false; faults: FileFault[] };

/** Reads a box file: all of it or nothing, with the place of what is wrong. */
export function readBoxFile(text: string): ReadBox {
  const fail = (...faults: FileFault[]): ReadBox => ({ ok: false, faults });
  const parsed = parsedJson(text);
  if ("fault" in parsed) return fail(parsed.fault);
  const { value } = parsed;
  const { format, version } = (value ?? {}) as { format?: unknown; version?: unknown };
  if (format !== BOX_FORMAT) return fail({ path: "format", code: "notABox" });
  if (typeof version === "number" && version > BOX_VERSION)
    return fail({ path: "version", code: "newerVersion", values: { version, known: BOX_VERSION } });
  const read = boxFile.safeParse(broughtUp(version, value));
  if (!read.success) return fail(...faultsOf(read.error));
  const ids = read.data.items.map(({ id }) => id);
  const twice = ids.findIndex((id, i) => ids.indexOf(id) !== i);
  if (twice >= 0)
    return fail({ path: `items[${twice}].id`, code: "duplicateId", values: { id: ids[twice] as string } });
  return { ok: true, items: read.data.items };
}

export const writeBoxFile = (items: readonly BoxItem[]): string =>
  `${JSON.stringify(boxFile.parse({ format: BOX_FORMAT, version: BOX_VERSION, items }), null, 2)}\n`;
