/** What a joint is under, and when it is looked at. */
import type { Decay } from "~/core/book/entries";
import type { UnitChoice } from "~/core/units/format";
import { type Trade, tradeIn } from "~/core/units/trade";
import type { LeakState, Under } from "~/core/work/leakStates";

export const leakStateNames: Record<LeakState, string> = {
  running: "Running",
  pumpOnly: "Pump on, engine off",
  overnight: "Stopped overnight",
  blanked: "Return blanked",
};

/** What to do before the joints are looked at. */
export const leakStateSteps: Record<LeakState, string> = {
  running: "Start it with the space aired and the exhaust led outside; keep clear of belts and hot pipes.",
  pumpOnly: "Pump on, engine off.",
  overnight:
    "Everything off, valves as in the line-up, dry paper under each joint; look again in the morning.",
  blanked:
    "Engine off, a blank in each return where it enters its tank, pump on until the gauge stands, then off. A pressure that falls now is a leak, or a check that lets back. Take the blanks out before the engine is started: a shut return bursts filters.",
};

const underNames: Record<Under, string> = {
  pressure: "pressure",
  vacuum: "vacuum",
  rest: "at rest",
  unknown: "shut in",
};

/** 'vacuum 3.2 kPa', 'at rest': no figure where there is nothing to weep by. */
export function underText(under: Under, gaugePa: number | null, units: UnitChoice): string {
  const say = tradeIn(units);
  if (gaugePa === null || under === "rest" || under === "unknown") return underNames[under];
  return `${underNames[under]} ${gaugePa < 0 ? say.vacuum(-gaugePa) : say.gauge(gaugePa)}`;
}

/** A dial tells no less than this of what it reads. Common practice, no source. */
const TOLD_SHARE = 0.03;

/** Whether a line held its pressure with the return blanked. */
export function decayText(
  { fromPa, toPa, seconds }: Pick<Decay, "fromPa" | "toPa" | "seconds">,
  say: Trade,
): string {
  const fell = fromPa - toPa;
  const minutes = `${Math.round(seconds / 60)} min`;
  if (fell <= TOLD_SHARE * fromPa)
    return `It held ${say.gauge(fromPa)} for ${minutes}: no dial tells a fall.`;
  return `It fell by ${say.gauge(fell)} from ${say.gauge(fromPa)} in ${minutes}: a joint lets out, or a check lets back. Look at every joint that is under pressure now.`;
}
