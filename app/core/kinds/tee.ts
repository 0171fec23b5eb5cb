import { heldInLine, type Kind, port, sideToSide, twoSides } from "./kind";
import type { PartBase } from "./record";

/** Through `a`-`b`, branch `c`. */
export interface Tee extends PartBase {
  kind: "tee";
}

export const tee: Kind<Tee> = {
  ...heldInLine,
  title: "Tee",
  families: [],
  hasArrow: false,
  fields: {},
  inner: ["m"],
  ports: () => [...twoSides.map((side) => ({ ...side, name: "through" })), port("c", "branch", "branch")],
  through: sideToSide,
  // Three legs from its middle: what combines or divides pays in each leg by what flows there.
  links: (part) => [
    { kind: "tee", id: `${part.id}.a`, from: "a", to: "m", part, way: "run" },
    { kind: "tee", id: `${part.id}.b`, from: "m", to: "b", part, way: "run" },
    { kind: "tee", id: `${part.id}.c`, from: "m", to: "c", part, way: "branch" },
  ],
  body: {
    widthM: 0.05,
    heightM: 0.04,
    depthM: 0.03,
    massKg: 0.1,
    room: [],
    faces: { c: { side: "top", at: 0.5 } },
  },
  end: "barb",
};
