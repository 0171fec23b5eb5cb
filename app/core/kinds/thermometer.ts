import type { Kind } from "./kind";
import { plainThrough } from "./plain";
import type { PartBase } from "./record";

/** In the line, `a`-`b`, without loss: tells how warm the fuel is that passes. */
export interface Thermometer extends PartBase {
  kind: "thermometer";
}

export const thermometer: Kind<Thermometer> = {
  ...plainThrough,
  title: "Thermometer",
  fields: {},
  body: { widthM: 0.06, heightM: 0.06, depthM: 0.05, massKg: 0.2, room: [] },
};
