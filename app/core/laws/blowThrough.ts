/**
 * An old line blown out by gas from its low end. Gas breaks through when its pressure is over the fuel's height; it carries
 * the rest up only over the flooding point, j* = j sqrt(rho_g / (g D (rho_f - rho_g))) = 1 (G. B. Wallis, One-dimensional
 * Two-phase Flow, 1969, from memory); else a share stays on the wall.
 */
import { areaM2 } from "../units/bore";
import { GRAVITY_M_S2 } from "../units/factors";
import { AIR_KG_M3 } from "./bubbles";

export interface BlowThrough {
  breaksThrough: boolean;
  leastPa: number;
  gasMS: number;
  wallis: number;
  carriesUp: boolean;
  leftM3: number;
}

export function blowThrough(
  { boreM, riseM, riseRad }: { boreM: number; riseM: number; riseRad: number },
  { blowPa, gasM3S, holdup }: { blowPa: number; gasM3S: number; holdup: number },
  densityKgM3: number,
): BlowThrough {
  const area = areaM2(boreM);
  const leastPa = densityKgM3 * GRAVITY_M_S2 * riseM;
  const gasMS = gasM3S / area;
  const wallis = gasMS * Math.sqrt(AIR_KG_M3 / (GRAVITY_M_S2 * boreM * (densityKgM3 - AIR_KG_M3)));
  const heldM3 = (area * riseM) / Math.sin(riseRad);
  const breaksThrough = blowPa > leastPa;
  const carriesUp = wallis >= 1;
  return {
    breaksThrough,
    leastPa,
    gasMS,
    wallis,
    carriesUp,
    leftM3: heldM3 * (!breaksThrough ? 1 : carriesUp ? 0 : holdup),
  };
}
