/** American wire gauge: the diameter of size n is 0.127 mm * 92^((36 - n) / 39). ASTM B258 (from memory). */
const THINNEST_M = 0.127e-3;
const THINNEST = 36;
const STEPS = 39;
const RATIO = 92;

/** The size, fractional, of a copper area in m2; 0 is 1/0, -1 is 2/0. */
export function wireGauge(areaM2: number): number {
  const diameterM = Math.sqrt((4 * areaM2) / Math.PI);
  return THINNEST - (STEPS * Math.log(diameterM / THINNEST_M)) / Math.log(RATIO);
}

/** Copper of a size, m2. */
export function wireAreaM2(gauge: number): number {
  const diameterM = THINNEST_M * RATIO ** ((THINNEST - gauge) / STEPS);
  return (Math.PI * diameterM ** 2) / 4;
}

/** '14 AWG', '3/0 AWG'. */
export const gaugeText = (gauge: number): string => (gauge > 0 ? `${gauge} AWG` : `${1 - gauge}/0 AWG`);

/** Reads '14 AWG', '#14', '2/0 awg', and where sizes are the default a bare '14'; null where it is no wire size. */
export function readGauge(text: string, isDefault: boolean): number | null {
  const match = /^(#)?\s*(\d{1,2})(\s*\/\s*0)?\s*(awg|gauge|ga)?$/i.exec(text.trim());
  if (!match) return null;
  const [, hash, digits = "", aught, word] = match;
  if (!hash && !word && !aught && !isDefault) return null;
  const size = aught ? 1 - Number(digits) : Number(digits);
  const isSold = aught ? size >= -3 && size <= 0 : size >= 0 && size <= THINNEST;
  return isSold ? size : null;
}
