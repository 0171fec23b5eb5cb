/** What lies in a line, `a`-`b`, without a loss worth counting. */
import { type Body, heldInLine, type Kind, sideToSide, twoSides } from "./kind";
import type { PartBase } from "./record";

const body: Body = { widthM: 0.05, heightM: 0.05, depthM: 0.04, massKg: 0.15, room: [] };

export const plainThrough = {
  ...heldInLine,
  families: ["plain"],
  hasArrow: false,
  ports: () => twoSides,
  through: sideToSide,
  links: () => [],
  joined: ["a", "b"],
  body,
  end: "pipeThread",
} as const satisfies Partial<Kind<PartBase>>;
