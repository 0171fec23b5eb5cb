/**
 * A pump on air. What stands in its clearance swells as it draws: volumetric efficiency 1 + c - c (p_out / p_in)^(1/n),
 * c clearance over swept volume. At nothing it draws no more: that is its dry lift. Any text on reciprocating compressors.
 */
import { GRAVITY_M_S2 } from "../units/factors";

export interface Clearance {
  /** Clearance over swept volume. */
  ratio: number;
  /** 1 isothermal, 1.4 adiabatic. Slow strokes in metal are isothermal. */
  polytropic?: number;
}

/**
 * Generic pumps: diaphragms and pistons, a bulb in the hand, what doses, wheels that hardly lift air. Common practice,
 * no source; assumed until tried.
 */
export const commonClearance = { lift: 1.2, bulb: 2, dosing: 9, wheel: 25 } as const;

/** Share of its stroke that it draws; less than nothing where it draws none. */
export const gasEfficiency = (
  { ratio, polytropic = 1 }: Clearance,
  inletPa: number,
  outletPa: number,
): number => 1 + ratio - ratio * (outletPa / inletPa) ** (1 / polytropic);

/**
 * Vacuum that it draws at the most, its check's opening taken off, Pa.
 * @param outletPa what it pushes the air against, absolute
 */
export const dryVacuumPa = (
  { ratio, polytropic = 1 }: Clearance,
  atmospherePa: number,
  outletPa: number,
  checkPa: number,
): number => atmospherePa - outletPa / ((1 + ratio) / ratio) ** polytropic - checkPa;

/** The clearance of a pump that lifts so high when it is dry, isothermal: the inverse of {@link dryVacuumPa}. */
export const clearanceOfLift = (
  lift: number,
  densityKgM3: number,
  atmospherePa: number,
  checkPa: number,
): number => Math.max(1e-3, atmospherePa / (lift * densityKgM3 * GRAVITY_M_S2 + checkPa) - 1);

export const liftM = (vacuumPa: number, densityKgM3: number): number =>
  vacuumPa / (densityKgM3 * GRAVITY_M_S2);
