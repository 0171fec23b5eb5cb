/** Darcy-Weisbach and two-K in one line, at one flow: the sum done by hand in the trade. */
import { areaM2 } from "../units/bore";
import { churchill, type FrictionLaw, type FrictionValue } from "./friction";
import { type FittingKind, twoKOf } from "./twoK";

export interface LineInput {
  readonly boreM: number;
  readonly lengthM: number;
  readonly roughnessM: number;
  readonly flowM3S: number;
  readonly densityKgM3: number;
  readonly kinematicM2S: number;
  readonly fittings: readonly { readonly kind: FittingKind; readonly count: number }[];
}

export interface LineResult {
  readonly velocityMS: number;
  readonly reynolds: number;
  readonly frictionPa: number;
  readonly fittingsPa: number;
}

export function lineDrop(line: LineInput, law: FrictionLaw = churchill): LineResult {
  const velocityMS = line.flowM3S / areaM2(line.boreM);
  const reynolds = (Math.abs(velocityMS) * line.boreM) / line.kinematicM2S;
  if (reynolds === 0) return { velocityMS: 0, reynolds: 0, frictionPa: 0, fittingsPa: 0 };
  const friction: FrictionValue = { factor: 0, logSlope: 0 };
  law.evaluate(reynolds, line.roughnessM / line.boreM, friction);
  const dynamicPa = (line.densityKgM3 * velocityMS * Math.abs(velocityMS)) / 2;
  const k = line.fittings.reduce((sum, { kind, count }) => {
    const { overRe, constant } = twoKOf(kind, line.boreM);
    return sum + count * (overRe / reynolds + constant);
  }, 0);
  return {
    velocityMS,
    reynolds,
    frictionPa: ((friction.factor * line.lengthM) / line.boreM) * dynamicPa,
    fittingsPa: k * dynamicPa,
  };
}
