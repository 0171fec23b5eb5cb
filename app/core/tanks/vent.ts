/** Filling and venting: how fast air leaves, room to grow, and where fuel would spill. */

import type { Position } from "../kinds/record";
import { churchill } from "../laws/friction";
import type { Filling, Tank } from "../plan/types";
import { areaM2 } from "../units/bore";
import { GRAVITY_M_S2, INCH_M } from "../units/factors";
import { heightAlong, upOf } from "./attitude";
import type { Envelope } from "./pickup";

/** Air at 15 degC and sea level: density, and viscosity (Sutherland). ISO 2533 (from memory). */
const AIR_KG_M3 = 1.225;
const AIR_PA_S = 1.79e-5;
/** Loss at the vent's ends and bends over its velocity head: entrance 0.5, exit 1, two bends at 0.4. */
const VENT_ENDS = 2.3;
/** Share of its rating that filling may reach (33 CFR 183.520 kind, from memory). */
export const FILL_PRESSURE_SHARE = 0.8;

/** Pressure that an air flow needs through the vent, Pa. */
function ventDropPa({ ventBoreM, ventLengthM }: Filling, flowM3S: number): number {
  const velocity = flowM3S / areaM2(ventBoreM);
  const out = { factor: 0, logSlope: 0 };
  churchill.evaluate((AIR_KG_M3 * velocity * ventBoreM) / AIR_PA_S, 1e-4, out);
  return 0.5 * AIR_KG_M3 * velocity ** 2 * ((out.factor * ventLengthM) / ventBoreM + VENT_ENDS);
}

/**
 * Fastest fill that the vent lets out, m3/s: the air flow at which the tank stands at its allowed pressure.
 * Air is taken as of one density, within 5 % below 10 kPa.
 */
export function fillRateM3S(filling: Filling): number {
  const allowed = FILL_PRESSURE_SHARE * filling.ratedPa;
  let [low, high] = [0, 1];
  for (let step = 0; step < 60; step++) {
    const middle = (low + high) / 2;
    if (ventDropPa(filling, middle) < allowed) low = middle;
    else high = middle;
  }
  return low;
}

/** Room that a full tank needs to grow from the fill's temperature to the hottest, m3. */
export const growthM3 = (volumeM3: number, coldKgM3: number, hotKgM3: number): number =>
  volumeM3 * (coldKgM3 / hotKgM3 - 1);

export interface SpillAtHeel {
  /** Least height of the vent's top over the fill's lip, over the envelope, m: negative spills from the vent first. */
  ventOverFillM: number;
  attitude: { pitchDeg: number; rollDeg: number };
}

/** How the vent's top stands against the fill's lip at the corners of the envelope. */
export function spillAtHeel({ filling }: Pick<Tank, "filling">, envelope: Envelope): SpillAtHeel | null {
  if (!filling) return null;
  let worst: SpillAtHeel | null = null;
  for (const p of [-1, 0, 1])
    for (const r of [-1, 0, 1]) {
      const attitude = { pitchDeg: p * envelope.pitchDeg, rollDeg: r * envelope.rollDeg };
      const up = upOf(attitude);
      const ventOverFillM = heightAlong(up, filling.ventTop) - heightAlong(up, filling.spill);
      if (!worst || ventOverFillM < worst.ventOverFillM) worst = { ventOverFillM, attitude };
    }
  return worst;
}

/** Pressure at the tank's floor when fuel stands to the fill's lip, Pa. */
export const brimPressurePa = (densityKgM3: number, spill: Position, floorM: number): number =>
  densityKgM3 * GRAVITY_M_S2 * Math.max(0, spill.zM - floorM);

/** Least bores: fill pipe 1 1/4 in inside with 1 1/2 in hose, vent 7/16 in (ABYC, ISO 10088; from memory). */
export const LEAST_FILL_BORE_M = 1.25 * INCH_M;
export const LEAST_FILL_HOSE_M = 1.5 * INCH_M;
export const LEAST_VENT_BORE_M = (7 / 16) * INCH_M;
