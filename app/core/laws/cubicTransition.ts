/**
 * The friction law of the EPANET engine, to stand in for ours when the two are compared.
 *
 * Laminar 64/Re below 2000; Swamee-Jain above 4000, f = 0.25 / log10(e/3.7D + 5.74/Re^0.9)^2;
 * between them the cubic of Dunlop (1991): f = X1 + R (X2 + R (X3 + R X4)), R = Re/2000.
 * Source: EPANET 2 Users Manual, appendix D, table D.1 note (US EPA, 2000; from memory).
 */
import type { FrictionLaw } from "./friction";

export const swameeJain = (reynolds: number, roughness: number) =>
  0.25 / Math.log10(roughness / 3.7 + 5.74 / reynolds ** 0.9) ** 2;

function dunlop(reynolds: number, roughness: number): number {
  const r = reynolds / 2000;
  const y2 = roughness / 3.7 + 5.74 / 4000 ** 0.9;
  const y3 = -0.86859 * Math.log(y2);
  const fa = y3 ** -2;
  const fb = fa * (2 - 0.00514215 / (y2 * y3));
  const x4 = r * (0.032 - 3 * fa + 0.5 * fb);
  const x3 = -0.128 + 13 * fa - 2 * fb;
  const x2 = 0.128 - 17 * fa + 2.5 * fb;
  const x1 = 7 * fa - fb;
  return x1 + r * (x2 + r * (x3 + x4));
}

function factorAt(reynolds: number, roughness: number): number {
  if (reynolds < 2000) return 64 / reynolds;
  return reynolds < 4000 ? dunlop(reynolds, roughness) : swameeJain(reynolds, roughness);
}

const STEP = 1e-5;

export const cubicTransition: FrictionLaw = {
  name: "laminar, cubic transition, Swamee-Jain",
  evaluate(re, roughness, out) {
    out.factor = factorAt(re, roughness);
    const above = factorAt(re * (1 + STEP), roughness);
    out.logSlope = Math.log(above / out.factor) / Math.log1p(STEP);
  },
};
