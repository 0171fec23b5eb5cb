import { LITRE_M3, LITRE_PER_HOUR_M3_S } from "../units/factors";
import { panVolume, positive, toggle } from "./fields";
import type { Kind } from "./kind";
import { oneWayInLine, ownCracking } from "./opening";
import { type RatedDrop, ratedFields } from "./rated";

/** A rubber bulb between two checks, squeezed by hand. */
export interface Bulb extends RatedDrop {
  kind: "bulb";
  crackingPa: number;
  strokeM3: number;
  forDiesel: boolean;
}

export const bulb: Kind<Bulb> = {
  ...oneWayInLine,
  title: "Primer bulb",
  fields: {
    ...ratedFields(1500, 100 * LITRE_PER_HOUR_M3_S),
    crackingPa: ownCracking(500),
    strokeM3: panVolume("maker", positive, { blank: 0.04 * LITRE_M3 }),
    forDiesel: toggle({ blank: false }),
  },
  links: (part) => [
    { kind: "check", id: part.id, from: "in", to: "out", part, opensPa: part.crackingPa, perFlowPa: 0 },
  ],
  body: { widthM: 0.16, heightM: 0.06, depthM: 0.06, massKg: 0.2, room: [] },
  end: "barb",
};
