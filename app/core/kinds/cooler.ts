import { degreesC, ratio, share, temperature } from "./fields";
import type { Kind } from "./kind";
import { type RatedDrop, ratedFields, ratedInLine } from "./rated";

/** Cools what passes it towards its coolant. */
export interface Cooler extends RatedDrop {
  kind: "cooler";
  effectiveness: number;
  coolantC: number;
}

const { ratedFlowM3S, ratedDropPa } = ratedFields(3000);

export const cooler: Kind<Cooler> = {
  ...ratedInLine,
  title: "Fuel cooler",
  fields: {
    ratedFlowM3S: { ...ratedFlowM3S, tells: true },
    ratedDropPa,
    effectiveness: ratio("maker", share, { blank: 0.5 }),
    coolantC: temperature("maker", degreesC, { blank: 30 }),
  },
  links: (part) => [{ kind: "rated", id: part.id, from: "in", to: "out", part }],
  body: { widthM: 0.25, heightM: 0.08, depthM: 0.08, massKg: 1.5, room: [] },
};
