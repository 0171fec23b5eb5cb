/** What is used of the package: the quantile of Student's t, and the share under a chi squared. */
declare module "jstat" {
  const jstat: {
    studentt: { inv(p: number, freedom: number): number };
    chisquare: { cdf(x: number, freedom: number): number };
  };
  export default jstat;
}
