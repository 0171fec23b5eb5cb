import { bore, boreSize } from "./fields";
import { heldInLine, type Kind, port } from "./kind";
import type { PartBase } from "./record";

/** Driven by the return: a nozzle into a throat that draws from the tank. Ports: `drive`, `draw`, `out`. Does not lift air. */
export interface JetPump extends PartBase {
  kind: "jetPump";
  nozzleM: number;
  throatM: number;
}

/** A jet's nozzle is the narrowest way there is. */
const nozzle = { least: 2e-4, most: 0.3 };

export const jetPump: Kind<JetPump> = {
  ...heldInLine,
  title: "Jet pump",
  families: [],
  hasArrow: false,
  fields: {
    nozzleM: boreSize("maker", nozzle, { blank: 0.0022, isNeeded: true, tells: true }),
    throatM: boreSize("maker", bore, { blank: 0.0045, isNeeded: true, tells: true }),
  },
  fault: ({ nozzleM, throatM }) => (nozzleM < throatM ? null : "nozzleTooWide"),
  ports: () => [port("drive", "drive", "in"), port("draw", "draw", "in"), port("out", "out", "out")],
  through: () => ["drive", "out"],
  links: (part) => [
    { kind: "jet", way: "nozzle", id: `${part.id}.n`, from: "drive", to: "x", part },
    { kind: "jet", way: "draw", id: `${part.id}.s`, from: "draw", to: "x", part },
    { kind: "jet", way: "mix", id: `${part.id}.m`, from: "x", to: "out", part },
  ],
  inner: ["x"],
  body: { widthM: 0.12, heightM: 0.06, depthM: 0.05, massKg: 0.4, room: [] },
  end: "barb",
};
