/**
 * Jet pump for liquids: a nozzle in a throat, one-dimensional momentum in the throat and losses in its parts.
 *
 *   drive Q1 ──▶ nozzle ─┐
 *                        ├─ throat ── diffuser ──▶ Q1 + Q2
 *   draw  Q2 ────────────┘
 *
 * With b nozzle area over throat area, M = Q2/Q1, and all pressures total:
 *   pd - ps = (rho Vn^2 / 2) [2 b + 2 M^2 b^2/(1-b) - b^2 (1+M)^2 (1 + Kt + Kd) - M^2 b^2/(1-b)^2 (1 + Ke)]
 *   pi - ps = (rho Vn^2 / 2) (1 + Kn);  N = (pd - ps)/(pi - pd);  efficiency = M N.
 * The pressures of the ports are taken as total: the velocities in them are small beside the nozzle's.
 * Source: R. G. Cunningham, NASA TM X-1409 (1967) and J. Fluids Eng. 96 (1974), from memory; loss coefficients of a
 * well-made pump as given there. Valid until it cavitates; it does not lift air.
 */
import { areaM2 } from "../units/bore";
export interface JetPumpSize {
  readonly nozzleM: number;
  readonly throatM: number;
}

export interface JetLosses {
  readonly nozzle: number;
  readonly entry: number;
  readonly throat: number;
  readonly diffuser: number;
}

/** A pump as it is bought, rougher than one of a laboratory. Common practice, no source. */
export const jetLosses: JetLosses = { nozzle: 0.05, entry: 0.05, throat: 0.1, diffuser: 0.1 };

export const areaRatio = ({ nozzleM, throatM }: JetPumpSize): number => (nozzleM / throatM) ** 2;

/** Pressure of the nozzle's jet: rho Vn^2/2 = rho * perFlow2 * Q1^2. */
export const nozzlePerFlow2 = ({ nozzleM }: JetPumpSize): number => 1 / (2 * areaM2(nozzleM) ** 2);

/** Weights of the rise pd - ps on the jet's pressure: own + drawn M^2 - mixed (1+M)^2. */
export function riseWeights(
  size: JetPumpSize,
  losses: JetLosses = jetLosses,
): { own: number; drawn: number; mixed: number } {
  const b = areaRatio(size);
  return {
    own: 2 * b,
    drawn: (2 * b * b) / (1 - b) - ((1 + losses.entry) * b * b) / (1 - b) ** 2,
    mixed: b * b * (1 + losses.throat + losses.diffuser),
  };
}

export interface JetPoint {
  /** Pressure ratio N and efficiency M N. */
  pressureRatio: number;
  efficiency: number;
}

/** At a flow ratio M. */
export function jetPoint(size: JetPumpSize, flowRatio: number, losses: JetLosses = jetLosses): JetPoint {
  const { own, drawn, mixed } = riseWeights(size, losses);
  const rise = own + drawn * flowRatio ** 2 - mixed * (1 + flowRatio) ** 2;
  const pressureRatio = rise / (1 + losses.nozzle - rise);
  return { pressureRatio, efficiency: flowRatio * pressureRatio };
}
