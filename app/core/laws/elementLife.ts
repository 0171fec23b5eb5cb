/** Hours of rated flow in which common fuel loads an element to its change point. Common practice, no source. */
export const FILTER_LIFE_H = 500;

/** The same at another feed, h: what passes is what loads it. */
export const elementLifeH = (ratedM3S: number, feedM3S: number): number =>
  (FILTER_LIFE_H * ratedM3S) / feedM3S;
