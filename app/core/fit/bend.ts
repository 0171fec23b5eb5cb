/** A rigid line: legs to the corners' points, each corner an arc; what is cut, and what is left straight. */

export interface Flare {
  flareM: number;
  halfAngleDeg: number;
}

export interface Bent {
  developedM: number;
  /** What is left straight of each leg; less than nothing where its bends do not fit. */
  straightsM: number[];
  arcsM: number[];
  flareAllowancesM: number[];
  cutM: number;
}

const RAD = Math.PI / 180;

/** A flare turns the tube's wall outward: half of what it grows by, over half its angle. */
export const flareAllowanceM = (tubeM: number, { flareM, halfAngleDeg }: Flare): number =>
  ((flareM - tubeM) / 2) * Math.tan((halfAngleDeg * RAD) / 2);

/**
 * @param legsM lengths to the points where the legs would meet
 * @param bendsDeg turn at each corner, one less than legs
 * @param radiusM of the bend, to the centre line
 */
export function bentLine(
  legsM: readonly number[],
  bendsDeg: readonly number[],
  radiusM: number,
  tubeM = 0,
  flares: readonly Flare[] = [],
): Bent {
  const setbacks = bendsDeg.map((deg) => radiusM * Math.tan((deg * RAD) / 2));
  const arcsM = bendsDeg.map((deg) => radiusM * deg * RAD);
  const straightsM = legsM.map((leg, i) => leg - (setbacks[i - 1] ?? 0) - (setbacks[i] ?? 0));
  const flareAllowancesM = flares.map((flare) => flareAllowanceM(tubeM, flare));
  const sum = (list: readonly number[]) => list.reduce((total, one) => total + one, 0);
  const developedM = sum(straightsM) + sum(arcsM);
  return { developedM, straightsM, arcsM, flareAllowancesM, cutM: developedM + sum(flareAllowancesM) };
}
