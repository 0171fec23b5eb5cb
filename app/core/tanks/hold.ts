/** What holds a tank down against heel, slam and braking: its weight full, the forces, and straps for them. */
import type { Job, Tank } from "../plan/types";
import { GRAVITY_M_S2 } from "../units/factors";
import { boundsOf } from "./shape";
import { capacityM3 } from "./tank";

/** Densities of walls, kg/m3: handbook values, from memory. */
const wallsKgM3 = { aluminium: 2700, steel: 7850, stainless: 7900, plastic: 950, rubber: 1100 } as const;
/** Of a tank whose wall nobody gave, m. Common practice, no source. */
const COMMON_WALL_M = { aluminium: 0.003, steel: 0.002, stainless: 0.0015, plastic: 0.006, rubber: 0.002 };
/** Heel, trim and throw where the site says nothing. Common practice, no source. */
const COMMON = { rollDeg: 15, pitchDeg: 10, g: 2 };
/** A strap each so far of length, two at the least: one lets it turn. Common practice, no source. */
const STRAP_EVERY_M = 0.6;

export interface Hold {
  fullKg: number;
  fuelKg: number;
  emptyKg: number;
  /** Weighed or by its maker, else from size, wall and material. */
  emptyIs: "given" | "estimated";
  loadN: { up: number; down: number; along: number; across: number };
  straps: { count: number; eachN: number };
}

/** By the box round its shape: a little more than a round one weighs. */
export function emptyKg({ shape, material = "plastic", wallM }: Tank): number {
  const spans = Object.values(boundsOf(shape)).map(([low, high]) => high - low) as [number, number, number];
  const [a, b, c] = spans;
  return 2 * (a * b + b * c + a * c) * (wallM ?? COMMON_WALL_M[material]) * wallsKgM3[material];
}

/** @param densityKgM3 of the fuel, at its coldest and heaviest */
export function holdOf({ site }: Job, tank: Tank, densityKgM3: number): Hold {
  const fuelKg = capacityM3(tank) * densityKgM3;
  const own = tank.emptyKg ?? emptyKg(tank);
  const fullKg = fuelKg + own;
  const weightN = fullKg * GRAVITY_M_S2;
  const g = site.accelerationG ?? COMMON.g;
  const lean = (deg: number) => weightN * Math.sin((deg * Math.PI) / 180);
  const up = weightN * g;
  const { x, y } = boundsOf(tank.shape);
  const count = Math.max(2, Math.ceil(Math.max(x[1] - x[0], y[1] - y[0]) / STRAP_EVERY_M));
  return {
    fullKg,
    fuelKg,
    emptyKg: own,
    emptyIs: tank.emptyKg === undefined ? "estimated" : "given",
    loadN: {
      up,
      down: weightN + up,
      along: lean(site.envelope?.pitchDeg ?? COMMON.pitchDeg),
      across: lean(site.envelope?.rollDeg ?? COMMON.rollDeg),
    },
    straps: { count, eachN: up / count },
  };
}
