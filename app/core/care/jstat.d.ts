/** What is used of the package: the quantile of Student's t. */
declare module "jstat" {
  export const studentt: { inv(p: number, freedom: number): number };
}
