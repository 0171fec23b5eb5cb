import type { FuelState } from "../../fuel/fuel";
import type { Filtering } from "../../kinds/families";
import { filterCoefficients } from "../../laws/filterDrop";
import { Way } from "../../solver/newton";
import type { LinkKind, LinkOf } from "./link";

/** Linear and square drop of all media of a filter, at a loading that they share. */
function mediaOf(part: Filtering, { dynamicPaS, densityKgM3 }: FuelState, loading: number) {
  const rating = {
    dynamicPaS: part.ratedDynamicPaS,
    densityKgM3: part.ratedDensityKgM3,
    viscousShare: part.viscousShare,
  };
  const drop = ({ ratedFlowM3S, ratedDropPa }: { ratedFlowM3S: number; ratedDropPa: number }) =>
    filterCoefficients(
      { ...rating, flowM3S: ratedFlowM3S, dropPa: ratedDropPa },
      dynamicPaS,
      densityKgM3,
      loading,
    );
  const first = drop(part);
  if (!part.second) return first;
  const second = drop(part.second);
  return { linear: first.linear + second.linear, square: first.square + second.square };
}

/** A filter's media; without an element nothing passes. */
export const filter: LinkKind<LinkOf<"filter">> = {
  boreM: ({ part }) => part.boreM,
  owner: ({ part }) => part,
  station: "filter",
  set: ({ part }, index, laws, { conditions, fuel }) => {
    if (!part.element) {
      laws.way[index] = Way.shut;
      return;
    }
    const { linear, square } = mediaOf(part, fuel, conditions.loading[part.element.id] ?? 1);
    laws.linear[index] = linear;
    laws.square[index] = square;
  },
  export: ({ id }, { from, to, way, linear, square }, file) =>
    way === Way.shut
      ? file.pipe(from, to, 0, 0, "Closed")
      : file.sampled(from, to, id, (q) => (linear + square * q) * q),
};
