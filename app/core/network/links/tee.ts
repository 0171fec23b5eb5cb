import { teeLeg } from "../../laws/twoK";
import type { LinkKind, LinkOf } from "./link";

/** A leg of a tee, from one of its ports to its middle. */
export const tee: LinkKind<LinkOf<"tee">> = {
  boreM: ({ part }) => part.boreM,
  owner: ({ part }) => part,
  station: "tee",
  loss: ({ part, way }) => ({ boreM: part.boreM, lengthM: 0, roughnessM: 0, ...teeLeg(way, part.boreM) }),
  export: (_, { from, to }, file) => file.pipe(from, to, 0, 0, "Open"),
};
