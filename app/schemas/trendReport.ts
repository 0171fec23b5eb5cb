/** The shape of what `keel trend` prints, published as a JSON Schema. */
import { z } from "./zod";

const x = z.number().nullable();
const day = z.string().nullable();
export const trendReportSchema = z.strictObject({
  gauge: z.string(),
  filter: z.string(),
  element: z.string().nullable(),
  by: z.enum(["hours", "days", "litres"]),
  limitPa: z.number(),
  lastPa: z.number(),
  target: z.number(),
  points: z.array(
    z.strictObject({
      at: z.string(),
      x: z.number(),
      loading: z.number(),
      plusMinus: z.number(),
      isOutlier: z.boolean(),
    }),
  ),
  changedAt: x,
  fits: z.array(
    z.strictObject({
      order: z.number(),
      share: z.number(),
      rate: z.number(),
      atStart: z.number(),
      chi2PerFreedom: z.number(),
      due: x,
      earliest: x,
      latest: x,
    }),
  ),
  due: x,
  earliest: x,
  latest: x,
  dueAt: day,
  actBy: day,
});

export const trendReportJsonSchema = () => z.toJSONSchema(trendReportSchema, { reused: "ref" });
