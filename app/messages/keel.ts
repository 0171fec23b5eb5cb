/** What the Keel says: at a station, along a hose, and the whole picture in words. */
import type { FuelWay, Leg, Station } from "~/core/hydraulics/route";
import type { LineUpVerdict } from "~/core/hydraulics/worst";
import type { UnitChoice } from "~/core/units/format";
import { tradeIn } from "~/core/units/trade";

/** A share of all suction under this is not told. */
const LEAST_TOLD = 0.005;

/** What a station does now. */
export function stationLines(station: Station, way: FuelWay, units: UnitChoice): string[] {
  const loss = way.suctionLosses.find(({ id }) => id === station.id);
  const share = loss && loss.share >= LEAST_TOLD ? [`${Math.round(loss.share * 100)} % of the vacuum`] : [];
  const { kind, beforePa, afterPa, lossPa } = station;
  const { gauge, vacuum } = tradeIn(units);
  switch (kind) {
    case "pump":
      return [`adds ${gauge(afterPa - beforePa)}`, `draws at ${gauge(beforePa)}`, ...share];
    case "gauge":
      return [`reads ${gauge(beforePa)}`, ...share];
    case "engine":
      return [`fed at ${gauge(beforePa)}`, ...share];
    case "tank":
      return [`${gauge(afterPa)} at the outside`, ...share];
    case "valve":
    case "tee":
    case "filter":
    case "check":
    case "rated":
      return [`drops ${vacuum(lossPa)} here`, ...share];
  }
}

/** A hose: its length and bore, and what it takes. */
export function hoseLines({ lengthM, riseM, boreM, lossPa, range }: Leg, units: UnitChoice): string[] {
  const { run, length, bore, vacuum } = tradeIn(units);
  const along = `${run(lengthM)} of ${bore(boreM)}`;
  const rise = `${riseM >= 0 ? "rises" : "falls"} ${length(Math.abs(riseM))}`;
  return [
    `${along}, ${rise}`,
    `drops ${vacuum(lossPa)}`,
    ...(range ? [`between laminar and turbulent: ${vacuum(range.lowPa)} to ${vacuum(range.highPa)}`] : []),
  ];
}

/** The limit line's name. */
export const limitLabel = (
  at: string,
  limitPa: number,
  basis: "maker" | "common" | undefined,
  units: UnitChoice,
): string =>
  `${at} limit, ${tradeIn(units).vacuum(limitPa)}${basis === "common" ? " (common practice)" : ""}`;

/** The picture in words, for those who do not see it. */
export function keelSummary({ lineUp, way, suction }: LineUpVerdict, units: UnitChoice): string {
  if (!way) return lineUp.name;
  const [worst] = way.suctionLosses;
  const say = tradeIn(units);
  const vacuum = suction
    ? `Vacuum at the first pump ${say.vacuum(suction.vacuumPa)}, limit ${say.vacuum(suction.limitPa)}.`
    : "";
  const most = worst
    ? `Most is lost in ${way.stations.find(({ id }) => id === worst.id)?.name ?? "a hose"}.`
    : "";
  return `${lineUp.name}: ${way.stations.map(({ name }) => name).join(", ")}. ${vacuum} ${most}`;
}
