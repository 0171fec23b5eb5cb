/** Weight and centre of tanks, and the moment they put on a boat. Moments only: nothing is said of stability. */

import type { Id, Position } from "../kinds/record";
import { fromTank } from "../plan/ports";
import type { Job, Tank } from "../plan/types";
import { GRAVITY_M_S2 } from "../units/factors";
import { boundsOf } from "./shape";
import { levelOfVolumeM, standingLevel } from "./tank";

export interface TankWeight {
  tankId: Id;
  fuelKg: number;
  allKg: number;
  /** Centre of fuel and tank together, job frame. */
  centre: Position;
  /** N m about the datum: list to port positive, trim by the bow positive. */
  listNm: number;
  trimNm: number;
}

function centreOf(tank: Tank, fuelKg: number, aboardM3: number): Position {
  const { x, y, z } = boundsOf(tank.shape);
  const middle = { xM: (x[0] + x[1]) / 2, yM: (y[0] + y[1]) / 2, zM: (z[0] + z[1]) / 2 };
  const emptyKg = tank.emptyKg ?? 0;
  const all = fuelKg + emptyKg;
  const below = standingLevel(tank).below(levelOfVolumeM(tank, aboardM3));
  if (!(all > 0) || !(below.volumeM3 > 0)) return fromTank(tank, middle);
  const share = fuelKg / all;
  const mix = (fuel: number, shell: number) => share * fuel + (1 - share) * shell;
  return fromTank(tank, {
    xM: mix(below.xM4 / below.volumeM3, middle.xM),
    yM: mix(below.yM4 / below.volumeM3, middle.yM),
    zM: mix(below.zM4 / below.volumeM3, middle.zM),
  });
}

export function tankWeight(tank: Tank, aboardM3: number, densityKgM3: number): TankWeight {
  const fuelKg = aboardM3 * densityKgM3;
  const allKg = fuelKg + (tank.emptyKg ?? 0);
  const centre = centreOf(tank, fuelKg, aboardM3);
  return {
    tankId: tank.id,
    fuelKg,
    allKg,
    centre,
    listNm: allKg * GRAVITY_M_S2 * centre.yM,
    trimNm: allKg * GRAVITY_M_S2 * centre.xM,
  };
}

export interface AllTanks {
  tanks: TankWeight[];
  allKg: number;
  centre: Position | null;
  listNm: number;
  trimNm: number;
}

export function allTanks(job: Job, aboardM3: Readonly<Record<Id, number>>, densityKgM3: number): AllTanks {
  const tanks = job.tanks.map((tank) => tankWeight(tank, aboardM3[tank.id] ?? 0, densityKgM3));
  const allKg = tanks.reduce((sum, one) => sum + one.allKg, 0);
  const sum = (of: (one: TankWeight) => number) => tanks.reduce((all, one) => all + of(one), 0);
  const centreAlong = (axis: keyof Position) => sum((one) => one.allKg * one.centre[axis]) / allKg;
  return {
    tanks,
    allKg,
    centre: allKg > 0 ? { xM: centreAlong("xM"), yM: centreAlong("yM"), zM: centreAlong("zM") } : null,
    listNm: sum(({ listNm }) => listNm),
    trimNm: sum(({ trimNm }) => trimNm),
  };
}

/** Fuel to drain before a lifting means can take the tank, m3: at most what is in it. */
export const drainFirstM3 = ({ fuelKg, allKg }: TankWeight, mostKg: number, densityKgM3: number): number =>
  Math.max(0, Math.min(fuelKg, allKg - mostKg)) / densityKgM3;

/** What a lifting means is good for when a tank is dropped. Common practice, no source. */
export const liftingKg = { hands: 25, twoPeople: 50, cradleAndJack: 150 } as const;
