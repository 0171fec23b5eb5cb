import type { Kind } from "./kind";
import { cracking, oneWayInLine } from "./opening";
import type { PartBase } from "./record";

/** Holds the fuel of a tank back until a pump draws: a line that is cut does not drain it. */
export interface AntiSiphonValve extends PartBase {
  kind: "antiSiphon";
  crackingPa: number;
}

export const antiSiphon: Kind<AntiSiphonValve> = {
  ...oneWayInLine,
  title: "Anti-siphon valve",
  fields: { crackingPa: cracking(3000) },
  links: (part) => [
    { kind: "check", id: part.id, from: "in", to: "out", part, opensPa: part.crackingPa, perFlowPa: 0 },
  ],
};
