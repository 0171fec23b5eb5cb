/** What an end may be, by what a caliper and a thread gauge say of it. */
import type { End } from "./ends";
import { type Family, type FamilyId, families } from "./families";

export interface Guess {
  end: End;
  /** How far its own figures lie from what was measured, mm. */
  offMm: number;
}

const MOST_OFF_MM = 0.6;
/** Ten pitches are measured; each tenth of a millimetre of one counts as so many of the diameter. */
const PITCH_WEIGHT = 5;

/**
 * Ends whose thread, or barb, is nearest to what is in the hand, the nearest first, each family once.
 * @param outsideM over the thread of a male, or over a barb
 * @param pitchM of the thread; null for what has none
 */
export function guessEnds(outsideM: number, pitchM: number | null): Guess[] {
  const [outsideMm, pitchMm] = [outsideM * 1000, pitchM === null ? null : pitchM * 1000];
  return (Object.entries(families) as [FamilyId, Family][])
    .flatMap(([family, { male, sizes }]) => {
      const [form] = male;
      if (form === undefined) return [];
      const guesses = sizes.flatMap(([size, major, pitch]): Guess[] => {
        if (major === null || (pitch === null) !== (pitchMm === null)) return [];
        const offPitch = pitch === null || pitchMm === null ? 0 : Math.abs(pitch - pitchMm) * PITCH_WEIGHT;
        return [{ end: { family, size, form }, offMm: Math.abs(major - outsideMm) + offPitch }];
      });
      const [best] = guesses.sort((a, b) => a.offMm - b.offMm);
      return best && best.offMm <= MOST_OFF_MM + 0.02 * outsideMm ? [best] : [];
    })
    .sort((a, b) => a.offMm - b.offMm);
}
