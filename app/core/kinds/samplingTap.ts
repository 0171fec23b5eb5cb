import type { Kind } from "./kind";
import { plainThrough } from "./plain";
import type { PartBase } from "./record";

/** Lets fuel out of the line into a jar. */
export interface SamplingTap extends PartBase {
  kind: "samplingTap";
}

export const samplingTap: Kind<SamplingTap> = { ...plainThrough, title: "Sampling tap", fields: {} };
