/** A bleed that was practised, read back: which act cost most. */

/** What stood there as an act was done. */
export interface Mark {
  label: string;
  atS: number;
  airM3: number;
  panM3: number;
  /** Seconds dry of all that pumps, so far. */
  dryS: number;
}

export type Dearest =
  | { code: "letAirIn"; label: string; atS: number; airM3: number }
  | { code: "ranDry"; label: string; atS: number; seconds: number }
  | { code: "spilled"; label: string; atS: number; panM3: number };

/** Less than this is no mistake: a spoonful of air, two seconds dry. */
const WORTH_AIR_M3 = 5e-6;
const WORTH_DRY_S = 2;
/** Into the pan beyond the plan's own best, as a share of it. */
const WORTH_PAN_SHARE = 0.25;
/** How costs of unlike kinds are held against each other: of what is left at the most. */
interface Scale {
  roomM3: number;
  /** Most seconds that a pump may run dry. */
  limitS: number;
  /** The plan's own best comes to so much in the pan. */
  bestPanM3: number;
}

/**
 * The dearest act of a bleed: what let most air in, ran a pump dry longest, or brought most into the pan for nothing,
 * each as a share of what the line holds, the pump may, or the plan's best comes to. Null where none is worth telling.
 * @param marks acts in their order, and at the end how it stands now
 */
export function dearestOf(marks: readonly Mark[], { roomM3, limitS, bestPanM3 }: Scale): Dearest | null {
  let best: { cost: number; found: Dearest } | null = null;
  const consider = (cost: number, found: Dearest) => {
    if (!best || cost > best.cost) best = { cost, found };
  };
  marks.slice(1).forEach((after, i) => {
    const { label, atS, ...before } = marks[i] as Mark;
    const airM3 = after.airM3 - before.airM3;
    const seconds = after.dryS - before.dryS;
    const panM3 = Math.max(0, after.panM3 - before.panM3);
    if (airM3 > WORTH_AIR_M3) consider(airM3 / roomM3, { code: "letAirIn", label, atS, airM3 });
    if (seconds > WORTH_DRY_S) consider(seconds / limitS, { code: "ranDry", label, atS, seconds });
    if (bestPanM3 > 0 && panM3 > (1 + WORTH_PAN_SHARE) * bestPanM3)
      consider((panM3 - bestPanM3) / roomM3, { code: "spilled", label, atS, panM3 });
  });
  return (best as { found: Dearest } | null)?.found ?? null;
}
