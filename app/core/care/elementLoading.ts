/** The loading of an element from a drop across it at any flow and fuel, with its spread; and its drop at another. */
import { type FilterRating, filterLaw, loadedPart, openPart } from "../laws/filterDrop";

export interface At {
  flowM3S: number;
  dynamicPaS: number;
  densityKgM3: number;
}

const parts = (rating: FilterRating, { flowM3S, dynamicPaS, densityKgM3 }: At) => {
  const law = filterLaw(rating);
  return {
    linear: loadedPart(law, 1, dynamicPaS / rating.dynamicPaS) * flowM3S,
    open: openPart(law, densityKgM3 / rating.densityKgM3) * flowM3S ** 2,
  };
};

/** Under 1 where it takes less than clean: kept as it is, with its spread. First order; drop and flow independent. */
export function elementLoading(
  rating: FilterRating,
  at: At,
  { dropPa, plusMinusPa, flowShareError }: { dropPa: number; plusMinusPa: number; flowShareError: number },
): { loading: number; plusMinus: number } {
  const { linear, open } = parts(rating, at);
  const byDrop = plusMinusPa / linear;
  const byFlow = (flowShareError * (dropPa + open)) / linear;
  return { loading: (dropPa - open) / linear, plusMinus: Math.hypot(byDrop, byFlow) };
}

export function dropOfLoadingPa(rating: FilterRating, at: At, loading: number): number {
  const { linear, open } = parts(rating, at);
  return loading * linear + open;
}
