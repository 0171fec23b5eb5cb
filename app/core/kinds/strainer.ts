import { positive, ratio, volume } from "./fields";
import { type Kind } from "./kind";
import { type RatedDrop, ratedFields, ratedInLine } from "./rated";

/** A mesh in the line before a pump: it is taken out, washed and put back. Its drop is that of the clean mesh. */
export interface Strainer extends RatedDrop {
  kind: "strainer";
  micron: number;
  volumeM3: number;
}

export const strainer: Kind<Strainer> = {
  ...ratedInLine,
  title: "Strainer",
  hasArrow: true,
  fields: {
    ...ratedFields(300),
    micron: ratio("maker", positive, { blank: 150, tells: true }),
    volumeM3: volume("maker", { least: 0, most: 1e9 }, { blank: 5e-5 }),
  },
  links: (part) => [{ kind: "rated", id: part.id, from: "in", to: "out", part }],
  volumeM3: ({ volumeM3 }) => volumeM3,
  filling: "bowl",
  body: {
    widthM: 0.08,
    heightM: 0.1,
    depthM: 0.08,
    massKg: 0.4,
    room: [{ use: "bowlDrop", clearM: 0.06 }],
    isUpright: true,
    faces: { in: { side: "left", at: 0.85 }, out: { side: "right", at: 0.85 } },
  },
};
