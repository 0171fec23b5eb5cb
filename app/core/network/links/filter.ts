import type { Filtering } from "../../kinds/families";
import { type FilterLaw, type FilterRating, filterLaw, loadedPart, openPart } from "../../laws/filterDrop";
import { Way } from "../../solver/newton";
import type { LinkKind, LinkOf } from "./link";

/** The rated points of all its media, on the same fuel. */
const mediaOf = (part: Filtering): FilterRating[] =>
  [part, ...(part.second ? [part.second] : [])].map(({ ratedFlowM3S, ratedDropPa }) => ({
    flowM3S: ratedFlowM3S,
    dropPa: ratedDropPa,
    dynamicPaS: part.ratedDynamicPaS,
    densityKgM3: part.ratedDensityKgM3,
    viscousShare: part.viscousShare,
  }));

/** A filter's media; without an element nothing passes. */
export const filter: LinkKind<LinkOf<"filter">> = {
  boreM: ({ part }) => part.boreM,
  owner: ({ part }) => part,
  station: "filter",
  setter: ({ part }, index) => {
    const { element } = part;
    if (!element)
      return (laws) => {
        laws.way[index] = Way.shut;
      };
    const { id } = element;
    const media = mediaOf(part).map(filterLaw);
    const { ratedDynamicPaS, ratedDensityKgM3 } = part;
    return (laws, { conditions, fuel }) => {
      const loading = conditions.loading[id] ?? 1;
      const thicker = fuel.dynamicPaS / ratedDynamicPaS;
      const denser = fuel.densityKgM3 / ratedDensityKgM3;
      let linear = 0;
      let square = 0;
      for (let i = 0; i < media.length; i++) {
        const medium = media[i] as FilterLaw;
        linear += loadedPart(medium, loading, thicker);
        square += openPart(medium, denser);
      }
      laws.linear[index] = linear;
      laws.square[index] = square;
    };
  },
  export: ({ id }, { from, to, way, linear, square }, file) =>
    way === Way.shut
      ? file.pipe(from, to, 0, 0, "Closed")
      : file.sampled(from, to, id, (q) => (linear + square * q) * q),
};
