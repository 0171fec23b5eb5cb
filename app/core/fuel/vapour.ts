/**
 * True vapour pressure of petrol from its Reid vapour pressure.
 *
 * P = exp{ [0.7553 - 413/(T+459.6)] S^0.5 log10(R) - [1.854 - 1042/(T+459.6)] S^0.5
 *        + [2416/(T+459.6) - 2.013] log10(R) - 8742/(T+459.6) + 15.64 },
 * P and R in psi, T in degF, S the slope of the distillation curve at 10 % (3 for motor petrol).
 * Valid for R 0.3..1.5 bar and -20..60 degC or so.
 * Source: EPA AP-42 chapter 7.1, refined petroleum stocks (from memory of the published text).
 */
import { fromSi, toSi } from "../units/factors";

const MOTOR_PETROL_SLOPE = 3;

/** Vapour pressure of diesel is negligible; this stands for it. */
export const DIESEL_VAPOUR_PA = 100;

export function petrolVapourPa(reidPa: number, tempC: number): number {
  const t = fromSi("temperature", tempC, "F") + 459.6;
  const logR = Math.log10(fromSi("pressure", reidPa, "psi"));
  const s = Math.sqrt(MOTOR_PETROL_SLOPE);
  const exponent =
    (0.7553 - 413 / t) * s * logR - (1.854 - 1042 / t) * s + (2416 / t - 2.013) * logR - 8742 / t + 15.64;
  return toSi("pressure", Math.exp(exponent), "psi");
}
