import type { Kind } from "./kind";
import { plainThrough } from "./plain";
import type { PartBase } from "./record";

/** Lets air out of the line by hand. */
export interface BleedScrew extends PartBase {
  kind: "bleedScrew";
}

export const bleedScrew: Kind<BleedScrew> = { ...plainThrough, title: "Bleed screw", fields: {} };
