/**
 * Where the Keel draws what: distance to x (parts get a width of their own, so that what they take can be seen),
 * pressure to y with the vacuum drawn several times taller than the pressure, elevation to its own ribbon.
 */

import type { FuelWay, Leg, Station } from "~/core/hydraulics/route";
import { fromSi, toSi } from "~/core/units/factors";
import { type UnitChoice } from "~/core/units/format";
import { gaugeUnit } from "~/core/units/trade";

export interface KeelBox {
  width: number;
  height: number;
  left: number;
  right: number;
  top: number;
  /** Height of the elevation ribbon and of the names below it. */
  ribbon: number;
  names: number;
}

const PART_PX = 18;
const VACUUM_SHARE = 0.62;

export interface PlacedLeg {
  leg: Leg;
  points: { x: number; zM: number; gaugePa: number }[];
}

export interface KeelScale {
  legs: PlacedLeg[];
  stations: { station: Station; x: number }[];
  y: (gaugePa: number) => number;
  zeroY: number;
  plotBottom: number;
  elevation: (zM: number) => number;
  /** Highest and lowest of the line, where they stand apart, m. */
  heights: readonly number[];
  lowestPa: number;
  highestPa: number;
}

function placeLegs(
  legs: readonly Leg[],
  box: KeelBox,
): { placed: PlacedLeg[]; xAt: (id: string, atM: number) => number } {
  const hoseM = legs.reduce((sum, leg) => sum + leg.lengthM, 0) || 1;
  const parts = legs.filter(({ kind }) => kind === "part").length;
  const width = box.width - box.left - box.right;
  const partPx = Math.min(PART_PX, (width * 0.4) / Math.max(1, parts));
  const perMetre = (width - parts * partPx) / hoseM;
  let x = box.left;
  const placed = legs.map((leg): PlacedLeg => {
    const start = x;
    const startM = leg.points[0]?.atM ?? 0;
    if (leg.kind === "part") {
      x += partPx;
      return { leg, points: leg.points.map((point, i) => ({ ...point, x: start + (i === 0 ? 0 : partPx) })) };
    }
    x += leg.lengthM * perMetre;
    return {
      leg,
      points: leg.points.map((point) => ({ ...point, x: start + (point.atM - startM) * perMetre })),
    };
  });
  const xAt = (id: string, atM: number) => {
    const own = placed.find(({ leg }) => leg.id === id);
    if (own) return ((own.points[0]?.x ?? 0) + (own.points.at(-1)?.x ?? 0)) / 2;
    for (const { leg, points } of placed) {
      const [a, b] = [leg.points[0], leg.points.at(-1)];
      if (leg.kind === "run" && a && b && atM <= b.atM + 1e-9 && atM >= a.atM - 1e-9) {
        const share = b.atM > a.atM ? (atM - a.atM) / (b.atM - a.atM) : 0;
        return (points[0]?.x ?? 0) + share * ((points.at(-1)?.x ?? 0) - (points[0]?.x ?? 0));
      }
    }
    return box.left;
  };
  return { placed, xAt };
}

/** A round figure at or above a value, for the ends of the axis. */
function roundUp(value: number): number {
  const step = 10 ** Math.floor(Math.log10(Math.max(value, 1)));
  return Math.ceil(value / step) * step;
}

/** Flatter than this, its two heights would stand on one another. */
const LEAST_TOLD_M = 0.15;

/** Other lines and the fuel's surfaces are drawn on the same scale, so that it has room for all. */
export function keelScale(
  way: FuelWay,
  box: KeelBox,
  limitPa: number,
  others: readonly Leg[] = [],
  surfacesM: readonly number[] = [],
): KeelScale {
  const { placed, xAt } = placeLegs(way.legs, box);
  const pressures = [...way.legs, ...others]
    .flatMap(({ points }) => points.map(({ gaugePa }) => gaugePa))
    .filter(Number.isFinite);
  const lowestPa = -roundUp(Math.max(limitPa * 1.12, -Math.min(0, ...pressures) * 1.1));
  const highestPa = roundUp(Math.max(5000, ...pressures));
  const plotBottom = box.height - box.names - box.ribbon;
  const plot = plotBottom - box.top;
  const zeroY = box.top + plot * (1 - VACUUM_SHARE);
  const y = (pa: number) =>
    pa >= 0 ? zeroY - (pa / highestPa) * (zeroY - box.top) : zeroY + (pa / lowestPa) * (plotBottom - zeroY);
  const all = way.legs.flatMap(({ points }) => points.map(({ zM }) => zM));
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const [foot, top] = [Math.min(low, ...surfacesM), Math.max(high, ...surfacesM)];
  const elevation = (zM: number) =>
    box.height - box.names - 8 - ((zM - foot) / Math.max(0.2, top - foot)) * (box.ribbon - 18);
  const stations = way.stations.map((station) => ({ station, x: xAt(station.id, station.atM) }));
  const lastX = placed.at(-1)?.points.at(-1)?.x ?? box.left;
  const last = stations.at(-1);
  if (last && last.station.kind === "tank") last.x = lastX;
  return {
    legs: placed,
    stations,
    y,
    zeroY,
    plotBottom,
    elevation,
    heights: high - low > LEAST_TOLD_M ? [high, low] : [high],
    lowestPa,
    highestPa,
  };
}

/** Round steps for an axis end, at most `most` of them. */
function ticks(end: number, most: number): number[] {
  const size = Math.abs(end);
  const rough = size / most;
  const base = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((m) => m * base).find((s) => s >= rough) ?? rough;
  const sign = Math.sign(end);
  return Array.from({ length: Math.floor(size / step + 1e-9) }, (_, i) => sign * step * (i + 1));
}

/** Marks of the pressure axis, round in what is read above zero and in what is read below it. */
export function axisMarks(
  { lowestPa, highestPa }: Pick<KeelScale, "lowestPa" | "highestPa">,
  units: UnitChoice,
  mostBelow: number,
): { pa: number; value: number }[] {
  const marks = (endPa: number, most: number) => {
    const unit = gaugeUnit(units, endPa);
    return ticks(fromSi("pressure", endPa, unit), most).map((value) => ({
      pa: toSi("pressure", value, unit),
      value,
    }));
  };
  return [...marks(highestPa, 2), ...marks(lowestPa, mostBelow)];
}

/** Names that fit side by side: by rank, then those that would overlap are left to their station's own focus. */
export function fitNames(
  stations: readonly { station: Station; x: number }[],
  charPx: number,
  chosen: string | null,
): Set<number> {
  const rank: Record<Station["kind"], number> = {
    tank: 0,
    engine: 0,
    pump: 1,
    filter: 2,
    gauge: 3,
    check: 4,
    rated: 4,
    valve: 5,
    tee: 9,
  };
  const order = stations.map((_, i) => i).sort((a, b) => rankOf(a) - rankOf(b));
  function rankOf(i: number): number {
    const { station } = stations[i] as { station: Station };
    return station.id === chosen ? -1 : rank[station.kind];
  }
  const taken: [number, number][] = [];
  const shown = new Set<number>();
  for (const i of order) {
    const { station, x } = stations[i] as { station: Station; x: number };
    if (rankOf(i) >= 9) continue;
    const half = (station.name.length * charPx) / 2 + 6;
    if (taken.some(([from, to]) => x + half > from && x - half < to)) continue;
    taken.push([x - half, x + half]);
    shown.add(i);
  }
  return shown;
}
