/** Normal errors that share causes: their density and their misfit. */

/** Lower triangle L of a covariance, L L' = C; rows of numbers. C is positive definite: each reading has an error of its own. */
export function cholesky(covariance: readonly (readonly number[])[]): number[][] {
  const n = covariance.length;
  const lower: number[][] = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      let sum = covariance[i]?.[j] ?? 0;
      for (let k = 0; k < j; k++) sum -= (lower[i]?.[k] ?? 0) * (lower[j]?.[k] ?? 0);
      const row = lower[i] as number[];
      row[j] = i === j ? Math.sqrt(Math.max(sum, 1e-12)) : sum / (lower[j]?.[j] ?? 1);
    }
  return lower;
}

/** What is off, in its own errors: sum of its squares is chi squared with as many freedoms. */
export function whitened(lower: readonly (readonly number[])[], off: readonly number[]): number[] {
  const out: number[] = [];
  for (let i = 0; i < off.length; i++) {
    let sum = off[i] as number;
    for (let k = 0; k < i; k++) sum -= (lower[i]?.[k] ?? 0) * (out[k] as number);
    out.push(sum / (lower[i]?.[i] ?? 1));
  }
  return out;
}

export const squares = (values: readonly number[]): number => values.reduce((sum, one) => sum + one * one, 0);

/** Log density, less the constant that is the same for all that are compared. */
export const logDensity = (lower: readonly (readonly number[])[], off: readonly number[]): number =>
  -0.5 * squares(whitened(lower, off)) - lower.reduce((sum, row, i) => sum + Math.log(row[i] as number), 0);
