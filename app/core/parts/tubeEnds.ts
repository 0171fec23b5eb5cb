/**
 * Ends of a rigid tube: what its flares take of the length it is cut to, and the nuts that must be on it before the second
 * flare is made.
 */
import { type End, familyOf, sizeOf } from "../ends/ends";
import { flareAllowanceM } from "../fit/bend";
import type { Plan, Run } from "../plan/types";

export interface TubeEnd {
  side: "from" | "to";
  /** The end that is flared, as it is known at the tube or at the port that it goes to. */
  end: End;
  allowanceM: number;
}

const MM = 1e-3;

/** Diameter of a flare over the tube's own, mm, by the tube's outside, mm. From memory of SAE J533, its largest. */
const growthsMm = [
  [6.35, 2.79],
  [7.94, 2.98],
  [9.52, 2.85],
  [12.7, 4.06],
  [15.88, 4.26],
  [19.05, 4.88],
  [25.4, 5.1],
] as const;

/** Of the nearest size in the table. */
const flareGrowthM = (tubeMm: number): number =>
  MM *
  growthsMm.reduce((best, one) => (Math.abs(one[0] - tubeMm) < Math.abs(best[0] - tubeMm) ? one : best))[1];

/** The flared ends of a rigid run; none of a hose, and none that is not known. */
export function tubeEnds(plan: Plan, run: Run): TubeEnd[] {
  if (run.make !== "rigid") return [];
  return (["from", "to"] as const).flatMap((side) => {
    const end = plan.ends?.[run.id]?.[side] ?? plan.ends?.[run[side].part]?.[run[side].port];
    if (!end) return [];
    const { seal, seatDeg } = familyOf(end);
    const tubeMm = sizeOf(end)?.nominalMm;
    if (seal !== "cone" || !seatDeg || tubeMm === undefined || !isFlared.has(end.family)) return [];
    const flare = { flareM: tubeMm * MM + flareGrowthM(tubeMm), halfAngleDeg: seatDeg };
    return [{ side, end, allowanceM: flareAllowanceM(tubeMm * MM, flare) }];
  });
}

/** Families whose tube is itself flared to its seat. */
export const isFlared: ReadonlySet<End["family"]> = new Set(["jic37", "sae45", "invFlare"]);
