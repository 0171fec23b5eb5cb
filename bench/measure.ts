/** Medians and times, printed in a row. */
export const quantile = (values: readonly number[], share: number) =>
  [...values].sort((a, b) => a - b)[Math.floor(share * (values.length - 1))] ?? 0;
export const median = (values: readonly number[]) => quantile(values, 0.5);
export const ms = (run: () => void) => {
  const start = performance.now();
  run();
  return performance.now() - start;
};
export const show = (name: string, value: string) => console.log(`${name.padEnd(58)} ${value}`);
