/** What is used of the package: the quantile of Student's t. */
declare module "jstat" {
  const jstat: { studentt: { inv(p: number, freedom: number): number } };
  export default jstat;
}
