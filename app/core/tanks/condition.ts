/** What a tank found on board is worth: keep, mend or replace, from what was looked at. Common practice, no source. */

import type { Puddle } from "../book/entries";
import type { Condition, Tank } from "../plan/types";

export type TankVerdict = "lookFirst" | "keep" | "mend" | "replace";

export type TankReason =
  | "notCleaned"
  | "seamsUnseen"
  | "seamsBad"
  | "seamsWorn"
  | "feetBad"
  | "feetWorn"
  | "fittingsBad"
  | "fittingsWorn"
  | "holdsWater"
  | "foam"
  | "testFailed"
  | "leaksStopped"
  | "leaksRunning";

const replaces = new Set<TankReason>(["seamsBad"]);
const looksFirst = new Set<TankReason>(["notCleaned", "seamsUnseen"]);

/**
 * A puddle with the engine stopped is the tank or what hangs on it; only with it running, a line under pressure.
 * A tank that failed its test with sound seams may be mended at a fitting; with bad seams it goes.
 */
export function judgeTank(
  { condition }: { condition?: Condition },
  puddles: readonly Puddle[],
): { verdict: TankVerdict; reasons: TankReason[] } {
  const reasons: TankReason[] = [];
  if (!condition?.cleanedFirst) reasons.push("notCleaned");
  if (!condition || condition.seams === "unseen") reasons.push("seamsUnseen");
  if (condition) {
    const { seams, feet, fittings, drains, testHeld } = condition;
    if (seams === "bad") reasons.push("seamsBad");
    if (seams === "worn") reasons.push("seamsWorn");
    if (feet === "bad") reasons.push("feetBad");
    if (feet === "worn") reasons.push("feetWorn");
    if (fittings === "bad") reasons.push("fittingsBad");
    if (fittings === "worn") reasons.push("fittingsWorn");
    if (drains !== "drains" && drains !== "unseen") reasons.push(drains);
    if (testHeld === false) reasons.push("testFailed");
  }
  if (puddles.some(({ engine }) => engine === "stopped")) reasons.push("leaksStopped");
  else if (puddles.length > 0) reasons.push("leaksRunning");
  const verdict = reasons.some((reason) => replaces.has(reason))
    ? "replace"
    : reasons.some((reason) => looksFirst.has(reason))
      ? "lookFirst"
      : reasons.length > 0
        ? "mend"
        : "keep";
  return { verdict, reasons };
}

/** Most pressure for a low-pressure test: the tank's own rating, and never with petrol or an unknown rating. */
export const testPressurePa = (tank: Tank, isPetrol: boolean): number | null =>
  isPetrol || !tank.filling ? null : tank.filling.ratedPa;
