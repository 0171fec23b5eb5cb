/** Drop of what is rated at one point with common diesel, per density and square of flow: dp = k rho Q |Q|. */

/** Middle of EN 590: what makers rate a cooler or meter with. Common practice, no source. */
const RATED_DENSITY_KG_M3 = 830;

export const ratedPerDensity = ({
  ratedDropPa,
  ratedFlowM3S,
}: {
  ratedDropPa: number;
  ratedFlowM3S: number;
}): number => ratedDropPa / (RATED_DENSITY_KG_M3 * ratedFlowM3S ** 2);
