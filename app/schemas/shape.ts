/** The shapes of tanks, as files, stored jobs and `keel calc` give them. */
import { z } from "./zod";

/** No vehicle or boat of this trade is larger: beyond it a unit has slipped. */
export const FARTHEST_M = 200;

export const coordinate = z.number().min(-FARTHEST_M).max(FARTHEST_M);
export const size = z.number().positive().max(FARTHEST_M);

const polygon = z
  .array(z.tuple([coordinate, coordinate]))
  .min(3)
  .max(200);

export const tankShape = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("box"), lengthM: size, widthM: size, heightM: size }),
  z.strictObject({ kind: z.literal("prism"), section: polygon, lengthM: size }),
  z.strictObject({
    kind: z.literal("cylinder"),
    diameterM: size,
    lengthM: size,
    axis: z.enum(["x", "y", "z"]),
    endDepthM: z.number().min(0).max(FARTHEST_M).exactOptional(),
  }),
  z.strictObject({
    kind: z.literal("loft"),
    sections: z
      .array(z.strictObject({ xM: coordinate, polygon }))
      .min(2)
      .max(40),
  }),
]);
