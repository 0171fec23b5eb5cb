/**
 * Darcy friction factor of a round line.
 *
 * Laws of this kind share {@link FrictionLaw}; the solver takes any of them.
 */
export interface FrictionLaw {
  readonly name: string;
  /**
   * Writes the friction factor f and its logarithmic slope d ln f / d ln Re to `out`.
   * Re > 0, relative roughness 0..0.05.
   */
  evaluate(reynolds: number, relativeRoughness: number, out: FrictionValue): void;
}

export interface FrictionValue {
  factor: number;
  logSlope: number;
}

/** Below this the flow is taken as laminar, 64/Re; Churchill's law meets it there within 1e-6. */
export const LAMINAR_BELOW_RE = 1500;

/**
 * One smooth law over all Re: f = 8 [(8/Re)^12 + (A + B)^-1.5]^(1/12),
 * A = {2.457 ln[1/((7/Re)^0.9 + 0.27 e/D)]}^16, B = (37530/Re)^16.
 * Within 3 % of Colebrook-White from Re 5000 to 1e8 and e/D to 0.05 (2.98 % at Re 5000, e/D 0.02; the test beside this).
 * Source: S. W. Churchill, Chemical Engineering 84 (24), 7 November 1977, p. 91 (constants from memory).
 */
export const churchill: FrictionLaw = {
  name: "Churchill 1977",
  evaluate(re, roughness, out) {
    if (re < LAMINAR_BELOW_RE) {
      out.factor = 64 / re;
      out.logSlope = -1;
      return;
    }
    const seven = (7 / re) ** 0.9;
    const inner = seven + 0.27 * roughness;
    const log = -Math.log(inner);
    const base = 2.457 * log;
    const base2 = base * base;
    const base4 = base2 * base2;
    const base8 = base4 * base4;
    const a = base8 * base8;
    const r = 37530 / re;
    const r2 = r * r;
    const r4 = r2 * r2;
    const r8 = r4 * r4;
    const b = r8 * r8;
    const s = a + b;
    const turbulent = 1 / (s * Math.sqrt(s));
    const e = 8 / re;
    const e2 = e * e;
    const e4 = e2 * e2;
    const laminar = e4 * e4 * e4;
    const sum = laminar + turbulent;
    out.factor = 8 * Math.exp(Math.log(sum) / 12);
    const dLnA = (16 * 0.9 * seven) / (inner * log);
    const dLnTurbulent = (-1.5 * (a * dLnA - 16 * b)) / s;
    out.logSlope = (laminar * -12 + turbulent * dLnTurbulent) / (12 * sum);
  },
};

/** Colebrook-White, 1/sqrt f = -2 log10(e/3.7D + 2.51/(Re sqrt f)), solved to 1e-14: a reference for tests, turbulent only. */
export function colebrookWhite(reynolds: number, relativeRoughness: number): number {
  let x = 7;
  for (let step = 0; step < 60; step++) {
    const next = -2 * Math.log10(relativeRoughness / 3.7 + (2.51 * x) / reynolds);
    if (Math.abs(next - x) < 1e-14 * x) return 1 / next ** 2;
    x = next;
  }
  return 1 / x ** 2;
}
