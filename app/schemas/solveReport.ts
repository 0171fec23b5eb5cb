/** The shape of what `keel solve` prints, published as a JSON Schema. */
import { z } from "./zod";

const numbers = z.record(z.string(), z.number());
const point = z.strictObject({
  gaugeKpa: z.number(),
  absoluteKpa: z.number(),
  vacuumKpa: z.number(),
  vacuumInHg: z.number(),
  freeAirFraction: z.number().nullable(),
});
const consumer = z.discriminatedUnion("outcome", [
  z.strictObject({ outcome: z.literal("fed"), feedLH: z.number(), burnLH: z.number() }),
  z.strictObject({
    outcome: z.literal("starved"),
    feedLH: z.number(),
    mostLH: z.number(),
    at: z.string(),
    cause: z.enum(["vapour", "pumpSuction", "pumpCapacity", "pumpRise"]),
  }),
  z.strictObject({ outcome: z.literal("air"), feedLH: z.number(), mostLH: z.number(), at: z.string() }),
  z.strictObject({ outcome: z.literal("noPath"), side: z.enum(["feed", "return"]) }),
  z.strictObject({ outcome: z.literal("stopped") }),
]);

const solvedLineUp = z.strictObject({
  id: z.string(),
  name: z.string(),
  outcome: z.literal("solved"),
  residual: z.strictObject({ massM3S: z.number(), energyPa: z.number(), iterations: z.int() }),
  consumers: z.record(z.string(), consumer),
  points: z.record(z.string(), point.nullable()),
  links: z.record(
    z.string(),
    z.strictObject({
      flowLH: z.number(),
      velocityMS: z.number(),
      reynolds: z.number(),
      lossKpa: z.number().nullable(),
    }),
  ),
  suction: z
    .strictObject({
      at: z.string(),
      vacuumKpa: z.number(),
      vacuumInHg: z.number(),
      limitKpa: z.number(),
      basis: z.enum(["maker", "common"]),
      freeAirFraction: z.number().nullable(),
    })
    .nullable(),
  worstPart: z.strictObject({ id: z.string(), lossKpa: z.number(), shareOfSuction: z.number() }).nullable(),
});
const failedLineUp = z.strictObject({
  id: z.string(),
  name: z.string(),
  outcome: z.enum(["notConverged", "notFinite", "boils", "badConditions"]),
});

export const solveReportSchema = z.strictObject({
  job: z.string(),
  plan: z.string(),
  conditions: z.strictObject({ fuelC: z.number(), aboardL: numbers, loading: numbers, load: numbers }),
  lineUps: z.array(z.union([solvedLineUp, failedLineUp])),
});

export const solveReportJsonSchema = () => ({
  title: "Output of keel solve",
  ...z.toJSONSchema(solveReportSchema),
});
