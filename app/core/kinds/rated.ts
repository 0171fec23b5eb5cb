/** A drop rated at one flow; it goes with the square of flow. */
import { LITRE_PER_HOUR_M3_S } from "../units/factors";
import { flow, positive, vacuum } from "./fields";
import { type Body, heldInLine, inOut, inToOut, type Kind } from "./kind";
import type { PartBase } from "./record";

export interface RatedDrop extends PartBase {
  ratedFlowM3S: number;
  ratedDropPa: number;
}

export const RATED_M3_S = 200 * LITRE_PER_HOUR_M3_S;

export const ratedFields = (dropPa: number, flowM3S = RATED_M3_S) => ({
  ratedFlowM3S: flow("maker", positive, { blank: flowM3S, isNeeded: true }),
  ratedDropPa: vacuum("maker", positive, { blank: dropPa, isNeeded: true }),
});

const body: Body = { widthM: 0.14, heightM: 0.07, depthM: 0.07, massKg: 0.6, room: [] };

/** What is the same in all that lies in a line with a rated drop; either way round will do. */
export const ratedInLine = {
  ...heldInLine,
  families: ["rated"],
  hasArrow: false,
  ports: () => inOut,
  through: inToOut,
  body,
  end: "barb",
} as const satisfies Partial<Kind<RatedDrop>>;
