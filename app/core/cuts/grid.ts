/** Cuts are worked out in whole tenths of a millimetre. */
const GRID = 1e4;

export const grid = (m: number): number => Math.round(m * GRID);
export const metres = (units: number): number => units / GRID;
