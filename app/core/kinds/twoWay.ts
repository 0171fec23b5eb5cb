import { heldInLine, type Kind, sideToSide, twoSides } from "./kind";
import type { PartBase } from "./record";

/** One handle: open or shut. */
export interface TwoWayValve extends PartBase {
  kind: "twoWay";
}

export const twoWay: Kind<TwoWayValve> = {
  ...heldInLine,
  title: "Valve",
  families: ["valve"],
  hasArrow: false,
  fields: {},
  ports: () => twoSides,
  through: sideToSide,
  links: (valve) => [{ kind: "valve", id: valve.id, from: "a", to: "b", valve, ports: ["a", "b"] }],
  body: { widthM: 0.07, heightM: 0.06, depthM: 0.05, massKg: 0.3, room: [{ use: "swing", clearM: 0.06 }] },
  end: "pipeThread",
};
