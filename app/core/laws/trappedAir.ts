/** Air shut in: Boyle, isothermal. */
import { GRAVITY_M_S2 } from "../units/factors";

export const swollenM3 = (airM3: number, fromPa: number, toPa: number): number => (airM3 * fromPa) / toPa;

/** Air that stays in a filter's head over its outlet when it fills, m3. */
export const headAirM3 = (
  volumeM3: number,
  headShare: number,
  atmospherePa: number,
  gaugePa: number,
): number => swollenM3(volumeM3 * headShare, atmospherePa, atmospherePa + gaugePa);

const HALVINGS = 200;

/**
 * A line shut at its far end, full of air, that fuel is let into: how much of its length the air keeps, m. Its far end
 * stands over its mouth by `lengthM sin(slopeRad)`; `headM` is the fuel over the mouth.
 */
export function deadEndAirM(
  { lengthM, slopeRad, headM }: { lengthM: number; slopeRad: number; headM: number },
  densityKgM3: number,
  atmospherePa: number,
): number {
  const rise = Math.sin(slopeRad);
  // Air too short is pressed harder than the fuel presses: the root lies between nothing and all.
  const excess = (airM: number) =>
    (atmospherePa * lengthM) / airM -
    atmospherePa -
    densityKgM3 * GRAVITY_M_S2 * (headM - (lengthM - airM) * rise);
  let [low, high] = [0, lengthM];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (excess(middle) > 0) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
