/** What the Keel says: at a station, along a hose, and the whole picture in words. */
import type { FuelWay, Leg, Station } from "~/core/hydraulics/route";
import type { LineUpVerdict } from "~/core/hydraulics/worst";
import { formatQuantity, type UnitChoice } from "~/core/units/format";

const pressure = (si: number, units: UnitChoice) => formatQuantity("pressure", si, units.pressure);

/** A share of all suction under this is not told. */
const LEAST_TOLD = 0.005;

/** What a station does now. */
export function stationLines(station: Station, way: FuelWay, units: UnitChoice): string[] {
  const loss = way.suctionLosses.find(({ id }) => id === station.id);
  const share = loss && loss.share >= LEAST_TOLD ? [`${Math.round(loss.share * 100)} % of all suction`] : [];
  const { kind, beforePa, afterPa, lossPa } = station;
  switch (kind) {
    case "pump":
      return [
        `lifts ${pressure(afterPa - beforePa, units)}`,
        `draws at ${pressure(beforePa, units)}`,
        ...share,
      ];
    case "gauge":
      return [`reads ${pressure(beforePa, units)}`, ...share];
    case "engine":
      return [`fed at ${pressure(beforePa, units)}`, ...share];
    case "tank":
      return [`${pressure(afterPa, units)} at the outside`, ...share];
    case "valve":
    case "tee":
    case "filter":
    case "check":
    case "rated":
      return [`drops ${pressure(lossPa, units)} here`, ...share];
  }
}

/** A hose: its length and bore, and what it takes. */
export function hoseLines({ lengthM, riseM, boreM, lossPa, range }: Leg, units: UnitChoice): string[] {
  const along = `${formatQuantity("length", lengthM, units.length)} of ${formatQuantity("length", boreM, units.bore)}`;
  const rise = `${riseM >= 0 ? "rises" : "falls"} ${formatQuantity("length", Math.abs(riseM), units.length)}`;
  return [
    `${along}, ${rise}`,
    `drops ${pressure(lossPa, units)}`,
    ...(range
      ? [`between laminar and turbulent: ${pressure(range.lowPa, units)} to ${pressure(range.highPa, units)}`]
      : []),
  ];
}

/** The limit line's name. */
export const limitLabel = (
  at: string,
  limitPa: number,
  basis: "maker" | "common" | undefined,
  units: UnitChoice,
): string => `${at} limit, ${pressure(limitPa, units)}${basis === "common" ? " (common practice)" : ""}`;

/** The picture in words, for those who do not see it. */
export function keelSummary({ lineUp, way, suction }: LineUpVerdict, units: UnitChoice): string {
  if (!way) return lineUp.name;
  const [worst] = way.suctionLosses;
  const vacuum = suction
    ? `Vacuum at the first pump ${pressure(suction.vacuumPa, units)}, limit ${pressure(suction.limitPa, units)}.`
    : "";
  const most = worst
    ? `Most is lost in ${way.stations.find(({ id }) => id === worst.id)?.name ?? "a hose"}.`
    : "";
  return `${lineUp.name}: ${way.stations.map(({ name }) => name).join(", ")}. ${vacuum} ${most}`;
}
