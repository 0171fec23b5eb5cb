/** Strokes of a bulb, a lever or a dosing pump, and air through a hole: displacement and the orifice. */
import { AIR_KG_M3 } from "./bubbles";

/** Whole strokes that move a volume. */
export const strokesFor = (volumeM3: number, strokeM3: number, efficiency: number): number =>
  Math.ceil(volumeM3 / (strokeM3 * efficiency) - 1e-9);

/** Air drawn in through a hole by a vacuum, m3/s: incompressible, as it is at a few kPa. */
export const airThroughM3S = (holeM: number, vacuumPa: number, coefficient: number): number =>
  coefficient * (Math.PI / 4) * holeM ** 2 * Math.sqrt((2 * vacuumPa) / AIR_KG_M3);
