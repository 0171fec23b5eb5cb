/** What opens at a pressure and lets the rated flow through at that plus the droop. */
import { atLeastZero, flow, positive, pressure } from "./fields";
import { type Body, heldInLine, inOut, inToOut, type Kind } from "./kind";
import { RATED_M3_S } from "./rated";
import type { PartBase } from "./record";

export interface OpensBy extends PartBase {
  setPa: number;
  droopPa: number;
  ratedFlowM3S: number;
}

export const opensFields = (setPa: number, droopPa: number) => ({
  setPa: pressure("maker", positive, { blank: setPa, isNeeded: true, tells: true }),
  droopPa: pressure("maker", atLeastZero, { blank: droopPa }),
  ratedFlowM3S: flow("maker", positive, { blank: RATED_M3_S }),
});

/** Opening pressure of a check and its like. */
export const cracking = (blank: number) =>
  pressure("maker", atLeastZero, { blank, isNeeded: true, tells: true });

/** Of a part that has it beside what it is: told where it is known, not asked for. */
export const ownCracking = (blank: number) => pressure("maker", atLeastZero, { blank, tells: true });

export const opensBy = ({ setPa, droopPa, ratedFlowM3S }: OpensBy) => ({
  opensPa: setPa,
  perFlowPa: droopPa / ratedFlowM3S,
});

const body: Body = { widthM: 0.09, heightM: 0.05, depthM: 0.05, massKg: 0.3, room: [] };

/** What is the same in all that lets fuel one way only. */
export const oneWayInLine = {
  ...heldInLine,
  families: [],
  hasArrow: true,
  ports: () => inOut,
  through: inToOut,
  body,
  end: "pipeThread",
} as const satisfies Partial<Kind<PartBase>>;
