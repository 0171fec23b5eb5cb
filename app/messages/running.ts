/** What happened in a run over time, in words. */
import type { RunEvent } from "~/core/running/run";
import { formatNumber, type UnitChoice } from "~/core/units/format";
import { tradeIn } from "~/core/units/trade";

/** Hours and minutes of a moment. */
export function clockText(atS: number): string {
  const minutes = Math.round(atS / 60);
  return `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, "0")}`;
}

export const hoursText = (hours: number): string =>
  hours >= 48 ? `${formatNumber(hours / 24, 3)} days` : clockText(hours * 3600);

export function eventText(event: RunEvent, units: UnitChoice, name: (id: string) => string): string {
  const say = tradeIn(units);
  switch (event.kind) {
    case "step":
      return name(event.lineUpId);
    case "uncovered":
      return `${name(event.tankId)}: mouth comes clear, ${say.volume(event.leftM3)} left`;
    case "starved":
      return `${name(event.consumerId)} starves`;
    case "air":
      return `${name(event.consumerId)} draws air`;
    case "noPath":
      return `${name(event.consumerId)} has no fuel`;
    case "overfilled":
      return `${name(event.tankId)} is overfilled and runs over`;
    case "limit":
      return `Vacuum passes ${say.vacuum(event.limitPa)}`;
    case "hot":
      return `${name(event.tankId)} reaches ${say.temperature(event.tempC)}`;
    case "filterDue":
      return `${name(event.partId)} is at its change point`;
    case "potDrains":
      return `${name(event.partId)} is not kept full`;
    case "potEmpty":
      return `${name(event.partId)} is empty: it gives air`;
    case "failed":
      return "No solution: the fuel is outside what is known of it";
  }
}

/** What someone must act on. */
export const isGrave = ({ kind }: RunEvent): boolean => kind !== "step" && kind !== "filterDue";
