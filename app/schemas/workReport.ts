/** The shape of what `keel work` prints, published as a JSON Schema. */
import { z } from "./zod";

const minutes = z.number().min(0);
const text = z.string();
const step = z.strictObject({
  id: text,
  verb: text,
  of: z.array(text),
  /** Of the first of them, where it is done at one. */
  port: z.string().optional(),
  place: text,
  needs: z.array(text),
  holds: z.array(text),
  people: z.int(),
  /** The line as screen and paper print it. */
  words: text,
  tools: text.nullable(),
  cautions: text.nullable(),
  workMin: minutes,
  waitMin: minutes,
  opens: z.array(text),
  litres: z.number().min(0),
  undoes: z.array(text),
  redoneBy: z.array(text),
});
export const workReportSchema = z.strictObject({
  outcome: z.enum(["order", "nothing", "cannotBeOrdered", "neverTrue"]),
  from: text.nullable(),
  /** Ids of the steps in a ring, or what never comes true. */
  fault: z.unknown().optional(),
  steps: z.array(step),
  done: z.array(text),
  ledger: z.array(z.strictObject({ fact: text, value: text, undidBy: text, redoneBy: text.nullable() })),
  critical: z.array(text),
  schedule: z.strictObject({
    people: z.int(),
    finishMin: minutes,
    slots: z.array(z.strictObject({ id: text, startMin: minutes, workedMin: minutes, doneMin: minutes })),
  }),
  pans: z.record(text, z.number()),
  /** Without what is awaited until it comes; null where nothing is, or where the plan would not feed without it. */
  interim: z.strictObject({ without: z.array(text), runsAfterMin: minutes, moreMin: z.number() }).nullable(),
  notes: z.array(text),
});

export const workReportJsonSchema = () => z.toJSONSchema(workReportSchema, { reused: "ref" });
