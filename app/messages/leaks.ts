/** What a joint is under, and when it is looked at. */
import type { UnitChoice } from "~/core/units/format";
import { tradeIn } from "~/core/units/trade";
import type { LeakState, Under } from "~/core/work/leakStates";

export const leakStateNames: Record<LeakState, string> = {
  running: "Running",
  pumpOnly: "Pump on, engine off",
  overnight: "Stopped overnight",
};

/** What to do before the joints are looked at. */
export const leakStateSteps: Record<LeakState, string> = {
  running: "Start it with the space aired and the exhaust led outside; keep clear of belts and hot pipes.",
  pumpOnly: "Pump on, engine off.",
  overnight:
    "Everything off, valves as in the line-up, dry paper under each joint; look again in the morning.",
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
