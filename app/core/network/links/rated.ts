import { ratedPerDensity } from "../../laws/ratedDrop";
import type { LinkKind, LinkOf } from "./link";

/** What is rated at one point: its drop goes with the square of flow. */
export const rated: LinkKind<LinkOf<"rated">> = {
  boreM: ({ part }) => part.boreM,
  owner: ({ part }) => part,
  station: "rated",
  perDensity: ({ part }) => ratedPerDensity(part),
  export: (_, { from, to }, file) => file.pipe(from, to, 0, 0, "Open"),
};
