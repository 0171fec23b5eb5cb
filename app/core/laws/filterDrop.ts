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

/** Coefficients at a fuel state: dp = linear Q + square Q |Q|. */
export function filterCoefficients(
  rating: FilterRating,
  dynamicPaS: number,
  densityKgM3: number,
  loading: number,
): { linear: number; square: number } {
  const medium = (rating.dropPa * rating.viscousShare) / rating.flowM3S;
  const ports = (rating.dropPa * (1 - rating.viscousShare)) / rating.flowM3S ** 2;
  return {
    linear: loading * medium * (dynamicPaS / rating.dynamicPaS),
    square: ports * (densityKgM3 / rating.densityKgM3),
  };
}
