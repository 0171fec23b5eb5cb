/** Area of a round bore, m2. */
export const areaM2 = (boreM: number): number => (Math.PI / 4) * boreM * boreM;
