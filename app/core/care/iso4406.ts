/**
 * Cleanliness code of ISO 4406:2021 from particles per millilitre at 4, 6 and 14 um(c).
 * Upper limits of its scale numbers, from the standard's table (from memory): each step doubles, with rounding.
 */
const UPPER_PER_ML = [
  0.01, 0.02, 0.04, 0.08, 0.16, 0.32, 0.64, 1.3, 2.5, 5, 10, 20, 40, 80, 160, 320, 640, 1300, 2500, 5000,
  10000, 20000, 40000, 80000, 160000, 320000, 640000, 1300000, 2500000,
];

/** Scale number of a count per mL: the first whose upper limit is not passed; null beyond the scale. */
export function scaleNumber(perMl: number): number | null {
  const number = UPPER_PER_ML.findIndex((upper) => perMl <= upper);
  return number < 0 ? null : number;
}

/** What makers of common rail ask for. Common practice, no source. */
export const WANTED_CODE = "18/16/13";

/** `[n4, n6, n14]` per mL to a code such as 18/16/13; null beyond the scale. */
export function iso4406Code(perMl: readonly [number, number, number]): string | null {
  const numbers = perMl.map(scaleNumber);
  return numbers.includes(null) ? null : numbers.join("/");
}

/** '22/20/17' as its scale numbers; null for what is no code: particles over 6 micron are no more than those over 4. */
export function readCode(text: string): [number, number, number] | null {
  const found = /^\s*(\d{1,2})\s*\/\s*(\d{1,2})\s*\/\s*(\d{1,2})\s*$/.exec(text);
  if (!found) return null;
  const [a, b, c] = found.slice(1).map(Number) as [number, number, number];
  return a < UPPER_PER_ML.length && a >= b && b >= c ? [a, b, c] : null;
}
