/**
 * Voltage drop of a copper pair: dU = 2 L I r / A, r = 1.724e-8 (1 + 0.00393 (t - 20)) ohm m.
 * Source: IEC 60028, international standard of resistance for copper (from memory).
 */
import { type Ampere, type Celsius, type Metre, type SquareMetre, type Volt, volt } from "../units/brands";

const COPPER_OHM_M_AT_20C = 1.724e-8;
const COPPER_PER_K = 0.00393;

export function wireDrop(current: Ampere, oneWay: Metre, area: SquareMetre, conductor: Celsius): Volt {
  const resistivity = COPPER_OHM_M_AT_20C * (1 + COPPER_PER_K * (conductor - 20));
  return volt((2 * oneWay * current * resistivity) / area);
}
