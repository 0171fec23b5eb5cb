import { blankOf, type FieldsOf, toggle } from "./fields";
import type { Kind } from "./kind";
import { plainThrough } from "./plain";
import type { PartBase } from "./record";

/** What the part that was taken out carried besides fuel, and whether the block carries it on. */
interface Carried {
  heater: boolean;
  waterSensor: boolean;
  pressureSensor: boolean;
  returnWay: boolean;
}

/** Stands in place of a filter that was taken out: fuel passes, and each circuit that it carried is led on or told. */
export interface Block extends PartBase {
  kind: "block";
  carriesOn: Carried;
}

const carriedFields: FieldsOf<Carried> = {
  heater: toggle({ blank: false }),
  waterSensor: toggle({ blank: false }),
  pressureSensor: toggle({ blank: false }),
  returnWay: toggle({ blank: true }),
};

export const block: Kind<Block> = {
  ...plainThrough,
  title: "Block",
  fields: {
    carriesOn: {
      form: "group",
      fields: carriedFields,
      fold: "carried",
      blank: () => blankOf<Carried>(carriedFields),
    },
  },
  body: { widthM: 0.1, heightM: 0.05, depthM: 0.06, massKg: 0.7, room: [] },
};
