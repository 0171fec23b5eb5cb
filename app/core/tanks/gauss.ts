/** Gauss-Legendre nodes and weights on 0..1; n points are exact to degree 2n - 1. Abramowitz and Stegun 25.4.29. */
export interface Rule {
  readonly at: Float64Array;
  readonly weight: Float64Array;
}

export function gaussLegendre(points: number): Rule {
  const at = new Float64Array(points);
  const weight = new Float64Array(points);
  for (let i = 0; i < points; i++) {
    let x = Math.cos((Math.PI * (i + 0.75)) / (points + 0.5));
    let slope = 1;
    for (let step = 0; step < 100; step++) {
      let [below, here] = [1, x];
      for (let k = 2; k <= points; k++)
        [below, here] = [here, ((2 * k - 1) * x * here - (k - 1) * below) / k];
      slope = (points * (x * here - below)) / (x * x - 1);
      const move = here / slope;
      x -= move;
      if (Math.abs(move) < 1e-15) break;
    }
    at[i] = (1 - x) / 2;
    weight[i] = 1 / ((1 - x * x) * slope * slope);
  }
  return { at, weight };
}
