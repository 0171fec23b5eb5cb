import { LITRE_M3 } from "../units/factors";
import { panVolume, positive } from "./fields";
import type { Kind } from "./kind";
import { plainThrough } from "./plain";
import type { PartBase } from "./record";

/** Warns when this much water stands in its bowl. */
export interface WaterSensor extends PartBase {
  kind: "waterSensor";
  heldM3: number;
}

export const waterSensor: Kind<WaterSensor> = {
  ...plainThrough,
  title: "Water sensor",
  fields: { heldM3: panVolume("maker", positive, { blank: 0.1 * LITRE_M3, tells: true }) },
};
