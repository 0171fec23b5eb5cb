import { type Circuit, circuitField, genericCircuit } from "./circuit";
import { positive, watts } from "./fields";
import type { Kind } from "./kind";
import { type RatedDrop, ratedFields, ratedInLine } from "./rated";

/** Warms what passes it by an electric element. */
export interface FuelHeater extends RatedDrop {
  kind: "fuelHeater";
  powerW: number;
  circuit?: Circuit;
}

export const fuelHeater: Kind<FuelHeater> = {
  ...ratedInLine,
  title: "Fuel heater",
  fields: {
    ...ratedFields(1000),
    powerW: watts("maker", positive, { blank: 150, tells: true }),
    circuit: circuitField({ ...genericCircuit(), runA: 12.5, peakA: 15, fuseA: 20 }),
  },
  links: (part) => [{ kind: "rated", id: part.id, from: "in", to: "out", part }],
};
