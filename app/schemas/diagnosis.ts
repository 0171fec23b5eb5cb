/** Readings as a file has them, and what `keel diagnose` and `keel simulate` print: published as JSON Schemas. */
import { type CareReading, readStates } from "~/core/care/diagnose";
import { looks, symptoms } from "~/core/care/looks";
import { KILOPASCAL_PA } from "~/core/units/factors";
import { z } from "./zod";

const port = z.string().min(3).max(31);
const reading = z.union([
  z.strictObject({ port, state: z.enum(readStates), gaugeKpa: z.number().min(-101).max(2000) }),
  z.strictObject({ look: z.enum(looks), port: port.optional(), seen: z.boolean() }),
  z.strictObject({ symptom: z.enum(symptoms), has: z.boolean() }),
]);
const MOST_READINGS = 60;
export const careReadingsSchema = z.array(reading).max(MOST_READINGS);

export function readCareReading(one: z.infer<typeof reading>): CareReading {
  if ("symptom" in one) return { kind: "symptom", ...one };
  if ("look" in one) {
    const { look, seen } = one;
    return { kind: "look", look, seen, ...(one.port !== undefined && { port: one.port }) };
  }
  return { kind: "gauge", port: one.port, state: one.state, gaugePa: one.gaugeKpa * KILOPASCAL_PA };
}

const kpa = z.number().nullable();
export const diagnosisSchema = z.strictObject({
  lineUp: z.string(),
  outcome: z.enum(["nothingShows", "found", "open", "badReading"]),
  ranked: z.array(
    z.strictObject({
      group: z.string(),
      share: z.number(),
      ids: z.array(z.string()),
      names: z.array(z.string()),
      kind: z.string(),
      size: z.number(),
      wouldReadKpa: z.array(kpa),
    }),
  ),
  next: z.array(
    z.strictObject({
      id: z.string(),
      words: z.string(),
      bits: z.number(),
      minutes: z.number(),
      ifThen: z.array(z.strictObject({ reads: z.string(), group: z.string() })),
    }),
  ),
  fit: z.strictObject({ healthyP: z.number(), bestP: z.number() }),
  badReading: z.number().nullable(),
});
export const diagnosisJsonSchema = () => z.toJSONSchema(diagnosisSchema);

/** A delta of the Signal K format, 1.x: what a server of a boat's figures sends. Values are SI: Pa over the air. */
const delta = z.strictObject({
  context: z.literal("vessels.self"),
  updates: z.array(
    z.strictObject({
      source: z.strictObject({ label: z.literal("simulated"), type: z.literal("keel") }),
      timestamp: z.iso.datetime(),
      values: z.array(z.strictObject({ path: z.string(), value: z.number() })),
    }),
  ),
});
export const simulationSchema = z.array(delta);
export const simulationJsonSchema = () => z.toJSONSchema(simulationSchema);
