/**
 * Pressure drop of a filter element: dp = loading (a mu Q + b rho Q |Q|), scaled from one rated point.
 *
 * The medium is laminar (Darcy): `viscousShare` of the rated drop goes with viscosity and flow, the rest
 * (ports and head) with density and the square of flow. Loading multiplies the medium's share alone.
 * Source: Darcy's law; the share is common practice, no source (0.8 where the maker gives none).
 */
export interface FilterRating {
  readonly flowM3S: number;
  readonly dropPa: number;
  readonly dynamicPaS: number;
  readonly densityKgM3: number;
  readonly viscousShare: number;
}

export const TYPICAL_VISCOUS_SHARE = 0.8;

/** Drop of a clean medium with the fuel it was rated with, per flow and per its square. */
export interface FilterLaw {
  readonly perFlow: number;
  readonly perFlow2: number;
}

export const filterLaw = ({ dropPa, viscousShare, flowM3S }: FilterRating): FilterLaw => ({
  perFlow: (dropPa * viscousShare) / flowM3S,
  perFlow2: (dropPa * (1 - viscousShare)) / flowM3S ** 2,
});

/** The part that goes with flow: it loads, and goes with viscosity over the rated one. */
export const loadedPart = ({ perFlow }: FilterLaw, loading: number, thicker: number): number =>
  loading * perFlow * thicker;
/** The part that goes with the square of flow: ports and head, by density over the rated one. */
export const openPart = ({ perFlow2 }: FilterLaw, denser: number): number => perFlow2 * denser;

/** Coefficients at a fuel state: dp = linear Q + square Q |Q|. */
export function filterCoefficients(
  rating: FilterRating,
  dynamicPaS: number,
  densityKgM3: number,
  loading: number,
): { linear: number; square: number } {
  const law = filterLaw(rating);
  return {
    linear: loadedPart(law, loading, dynamicPaS / rating.dynamicPaS),
    square: openPart(law, densityKgM3 / rating.densityKgM3),
  };
}
