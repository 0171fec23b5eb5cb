import type { Kind } from "./kind";
import { cracking, oneWayInLine } from "./opening";
import type { PartBase } from "./record";

/** Lets fuel one way. */
export interface CheckValve extends PartBase {
  kind: "check";
  crackingPa: number;
}

export const check: Kind<CheckValve> = {
  ...oneWayInLine,
  title: "Check valve",
  fields: { crackingPa: cracking(1000) },
  links: (part) => [
    { kind: "check", id: part.id, from: "in", to: "out", part, opensPa: part.crackingPa, perFlowPa: 0 },
  ],
};
