/**
 * Sudden change of bore at an end (barb, banjo, adapter), on the velocity in the line's own bore.
 *
 * A barb narrower than the hose is a contraction to it and an expansion from it:
 * expansion (1 - a)^2 on the narrow velocity (Borda-Carnot), contraction 0.5 (1 - a), a = narrow/wide area.
 * Turbulent, sharp-edged. Source: Borda-Carnot in Idelchik, Handbook of Hydraulic Resistance (from memory).
 */
export function endLossK(lineBoreM: number, endBoreM: number): number {
  if (endBoreM >= lineBoreM) return 0;
  const areaRatio = (endBoreM / lineBoreM) ** 2;
  const onNarrow = 0.5 * (1 - areaRatio) + (1 - areaRatio) ** 2;
  return onNarrow / areaRatio ** 2;
}
