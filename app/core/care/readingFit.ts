/** Does a reading fit the plan? Within what the dial can tell and what the plan's own losses are good for. */

/** A dial of class 1.6 over 40 kPa. Common practice, no source; assumed until the gauge says its class. */
const DIAL_PA = 640;
/** Losses computed from makers' sheets and handbook figures. Common practice, no source. */
const PLAN_SHARE = 0.15;

export interface ReadingFit {
  /** More than nothing where it reads more than the plan computes, Pa. */
  offPa: number;
  withinPa: number;
  fits: boolean;
}

export function readingFit(readPa: number, computedPa: number): ReadingFit {
  const offPa = readPa - computedPa;
  const withinPa = Math.hypot(DIAL_PA, PLAN_SHARE * computedPa);
  return { offPa, withinPa, fits: Math.abs(offPa) <= withinPa };
}
