/** What records of all kinds are made of. */
import { LONGEST_ID } from "~/core/kinds/ids";
import { UNPRINTABLE, UNPRINTABLE_IN_PROSE } from "~/core/kinds/words";
import { coordinate } from "./shape";
import { z } from "./zod";

export const LONGEST_NAME = 80;
export const LONGEST_NOTE = 2000;
/** Ids are keys of records: the names that every object answers to would be lost there. */
export const id = z
  .string()
  .regex(new RegExp(`^[A-Za-z0-9_-]{1,${LONGEST_ID}}$`), "badId")
  .refine((text) => !(text in {}), "badId");
const without = (characters: string) =>
  z.string().regex(new RegExp(`^[^${characters}]*$`), "controlCharacter");
/** Words on one line, and words that may have several: neither holds what cannot be printed. */
export const line = without(UNPRINTABLE);
const prose = without(UNPRINTABLE_IN_PROSE);
export const note = prose.max(LONGEST_NOTE);
export const reason = prose.min(1).max(LONGEST_NOTE);
export const name = line.min(1).max(LONGEST_NAME);
export const nameOrNone = line.max(LONGEST_NAME);
/** Which figure: its path in its record. */
export const figurePath = line.max(120);
/** What fuel passes is at least half a millimetre wide: a slip of a unit is narrower. */
export const bore = z.number().min(5e-4).max(0.3);
export const diameter = z.number().positive().max(0.3);
export const positive = z.number().positive().max(1e9);
export const atLeastZero = z.number().min(0).max(1e9);
export const share = z.number().min(0).max(1);

export const given = z
  .record(
    figurePath,
    z.strictObject({
      entered: line.max(40).exactOptional(),
      plusMinus: atLeastZero.exactOptional(),
      basis: z.enum(["measured", "maker", "assumed"]).exactOptional(),
    }),
  )
  .exactOptional();
export const position = z.strictObject({ xM: coordinate, yM: coordinate, zM: coordinate });
