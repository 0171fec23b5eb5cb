/** Dip tables, gauge senders, and what fills of known litres say about the measured shape. */

import type { Fill } from "../book/entries";
import type { Sender, Tank } from "../plan/types";
import type { Attitude } from "./attitude";
import { floorUnder } from "./floor";
import { soundingOf, TiltedTank } from "./tank";

export interface DipRow {
  /** Depth on the stick, along the tank's own z from the floor under the sounding point. */
  depthM: number;
  volumeM3: number;
}

/** Volume by depth on the stick at the sounding point, from empty to full, at an attitude. `stepM` > 0. */
export function dipTable(tank: Tank, attitude: Attitude, stepM: number): DipRow[] {
  if (!(stepM > 0)) throw new RangeError("stepM must be greater than zero");
  const tilted = new TiltedTank(tank, attitude);
  const { xM, yM } = soundingOf(tank);
  const floor = floorUnder(tank, xM, yM);
  const top = tilted.levelAt(xM, yM, tilted.high) - floor;
  const rows: DipRow[] = [];
  for (let i = 0; i * stepM < top; i++)
    rows.push({
      depthM: i * stepM,
      volumeM3: tilted.volumeM3(Math.min(tilted.high, tilted.offsetAt(xM, yM, floor + i * stepM))),
    });
  rows.push({ depthM: top, volumeM3: tilted.capacityM3 });
  return rows;
}

/** Volume of one dip at an attitude. */
export function volumeOfDip(tank: Tank, attitude: Attitude, depthM: number): number {
  const tilted = new TiltedTank(tank, attitude);
  const { xM, yM } = soundingOf(tank);
  return tilted.volumeM3(Math.min(tilted.high, tilted.offsetAt(xM, yM, floorUnder(tank, xM, yM) + depthM)));
}

/** Readings at empty and full of the common kinds of sender. Common practice, no source. */
export const senderReadings: Readonly<Record<Sender["kind"], readonly [empty: number, full: number]>> = {
  ohm240to33: [240, 33],
  ohm10to180: [10, 180],
  ohm0to90: [0, 90],
  volt0to5: [0, 5],
  own: [0, 1],
};

/** Depth at which a float sender gives a reading: straight between its ends of travel. */
export const depthOfReading = (sender: Sender, reading: number): number =>
  sender.lowM +
  ((reading - sender.emptyReading) / (sender.fullReading - sender.emptyReading)) *
    (sender.highM - sender.lowM);

export interface GaugeRow {
  reading: number;
  depthM: number;
  volumeM3: number;
  /** What a gauge that runs straight from empty to full would say. */
  straightM3: number;
}

/** The sender's table, and the straight-line gauge beside it; level, in equal steps of reading. */
export function gaugeTable(tank: Tank, sender: Sender, attitude: Attitude, steps = 20): GaugeRow[] {
  const tilted = new TiltedTank(tank, attitude);
  const { xM, yM } = soundingOf(tank);
  const floor = floorUnder(tank, xM, yM);
  return Array.from({ length: steps + 1 }, (_, i) => {
    const share = i / steps;
    const reading = sender.emptyReading + share * (sender.fullReading - sender.emptyReading);
    const depthM = depthOfReading(sender, reading);
    const offset = Math.min(tilted.high, tilted.offsetAt(xM, yM, floor + depthM));
    return { reading, depthM, volumeM3: tilted.volumeM3(offset), straightM3: share * tilted.capacityM3 };
  });
}

/** The straight-line gauge where it is furthest off, m3: greater than zero where it says too much. */
export const worstGaugeErrorM3 = (rows: readonly GaugeRow[]): number =>
  rows
    .map(({ straightM3, volumeM3 }) => straightM3 - volumeM3)
    .reduce((most, off) => (Math.abs(off) > Math.abs(most) ? off : most), 0);

export interface FittedFills {
  /** The tank holds this many times what its shape says. */
  scale: number;
  /** Aboard before the first fill, by the fit. */
  startM3: number;
  points: { reading: number; shapeM3: number; filledM3: number; missM3: number }[];
}

/**
 * Fits the measured shape to fills of known litres: start + litres put in = scale * shape's volume at the reading,
 * by least squares over scale and start. At least two fills at different readings; null without.
 */
export function fitFills(
  tank: Tank,
  sender: Sender,
  attitude: Attitude,
  fills: readonly Fill[],
): FittedFills | null {
  const tilted = new TiltedTank(tank, attitude);
  const { xM, yM } = soundingOf(tank);
  const floor = floorUnder(tank, xM, yM);
  let sum = 0;
  const points = fills.map(({ addedM3, reading }) => {
    sum += addedM3;
    const depth = depthOfReading(sender, reading);
    return {
      reading,
      filledM3: sum,
      shapeM3: tilted.volumeM3(Math.min(tilted.high, tilted.offsetAt(xM, yM, floor + depth))),
    };
  });
  const n = points.length;
  const mean = (of: (one: (typeof points)[number]) => number) =>
    points.reduce((all, one) => all + of(one), 0) / n;
  const [shape, filled] = [mean(({ shapeM3 }) => shapeM3), mean(({ filledM3 }) => filledM3)];
  const spread = points.reduce((all, one) => all + (one.shapeM3 - shape) ** 2, 0);
  if (n < 2 || !(spread > 0)) return null;
  const scale =
    points.reduce((all, one) => all + (one.shapeM3 - shape) * (one.filledM3 - filled), 0) / spread;
  const startM3 = scale * shape - filled;
  return {
    scale,
    startM3,
    points: points.map((one) => ({ ...one, missM3: startM3 + one.filledM3 - scale * one.shapeM3 })),
  };
}
