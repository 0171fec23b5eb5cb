import { LITRE_M3 } from "../units/factors";
import { positive, volume } from "./fields";
import { type Kind, port } from "./kind";
import type { PartBase } from "./record";

/** A pot that is kept full and lets air out over the top. Ports: `fill`, `back`, `out`, `over`. */
export interface SwirlPot extends PartBase {
  kind: "swirlPot";
  volumeM3: number;
}

export const swirlPot: Kind<SwirlPot> = {
  title: "Swirl pot",
  families: [],
  hasArrow: false,
  fields: { volumeM3: volume("maker", positive, { blank: 1.5 * LITRE_M3, tells: true }) },
  ports: () => [
    port("fill", "fill", "in"),
    port("back", "return in", "branch"),
    port("out", "out", "out"),
    port("over", "overflow", "branch"),
  ],
  through: () => ["fill", "out"],
  links: () => [],
  joined: ["fill", "back", "out", "over"],
  volumeM3: ({ volumeM3 }) => volumeM3,
  filling: "pot",
  body: {
    widthM: 0.12,
    heightM: 0.22,
    depthM: 0.12,
    massKg: 1,
    room: [],
    isUpright: true,
    faces: {
      fill: { side: "left", at: 0.5 },
      back: { side: "right", at: 0.5 },
      out: { side: "foot", at: 0.5 },
      over: { side: "top", at: 0.5 },
    },
  },
  end: "barb",
};
