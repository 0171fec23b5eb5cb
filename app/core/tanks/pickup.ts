/** Pickups: what a mouth leaves behind, over attitudes, and the length it is cut to. */

import type { Position } from "../kinds/record";
import type { PickupFit, Tank, TankPort } from "../plan/types";
import { areaM2 } from "../units/bore";
import { GRAVITY_M_S2 } from "../units/factors";
import { type Attitude, fittedAttitude, heightAlong, LEVEL, tankAttitude, upOf } from "./attitude";
import { floorUnder } from "./floor";
import { boundsOf } from "./shape";
import { type TankForm, TiltedTank } from "./tank";

/**
 * Fuel left when the last of the mouths comes clear, m3. A mouth draws air as soon as the surface is at it:
 * common practice leaves some more over it for the dimple (core/hydraulics/worst).
 */
export function deadFuelM3(form: TankForm, mouths: readonly Position[], attitude: Attitude): number {
  const tilted = new TiltedTank(form, attitude);
  const lowest = Math.min(...mouths.map((mouth) => heightAlong(tilted.up, mouth)));
  return tilted.volumeM3(Math.min(lowest, tilted.high));
}

export interface AttitudeMap {
  readonly pitchesDeg: readonly number[];
  readonly rollsDeg: readonly number[];
  /** By pitch, then roll: `deadM3[i * rolls + j]`. */
  readonly deadM3: Float64Array;
}

const steps = (reach: number, count: number) =>
  Array.from({ length: count }, (_, i) => -reach + (2 * reach * i) / (count - 1));

/** Dead fuel over pitch and roll from -reach to +reach, `count` by `count`. */
export function deadFuelMap(
  form: TankForm,
  mouths: readonly Position[],
  reach: { pitchDeg: number; rollDeg: number },
  count = 41,
): AttitudeMap {
  const [pitchesDeg, rollsDeg] = [steps(reach.pitchDeg, count), steps(reach.rollDeg, count)];
  const deadM3 = new Float64Array(count * count);
  pitchesDeg.forEach((pitchDeg, i) => {
    rollsDeg.forEach((rollDeg, j) => {
      deadM3[i * count + j] = deadFuelM3(form, mouths, { pitchDeg, rollDeg });
    });
  });
  return { pitchesDeg, rollsDeg, deadM3 };
}

/** Volumes over pitch, roll and `levels` surface heights from lowest to highest point: by pitch, roll, then level. */
export function volumeMap(
  form: TankForm,
  reach: { pitchDeg: number; rollDeg: number },
  count: number,
  levels: number,
): Float64Array {
  const volumes = new Float64Array(count * count * levels);
  let at = 0;
  for (const pitchDeg of steps(reach.pitchDeg, count)) {
    for (const rollDeg of steps(reach.rollDeg, count)) {
      const tilted = new TiltedTank(form, { pitchDeg, rollDeg });
      for (let k = 0; k < levels; k++)
        volumes[at++] = tilted.volumeM3(tilted.low + ((tilted.high - tilted.low) * k) / (levels - 1));
    }
  }
  return volumes;
}

export interface Envelope {
  pitchDeg: number;
  rollDeg: number;
}

/** The attitude of the envelope's rim and middle that leaves the most behind. Dead fuel is worst at a corner or a side. */
export function worstDeadFuel(
  form: TankForm,
  mouths: readonly Position[],
  { pitchDeg, rollDeg }: Envelope,
): { attitude: Attitude; deadM3: number } {
  const fitted = fittedAttitude(form);
  let worst = { attitude: fitted, deadM3: deadFuelM3(form, mouths, fitted) };
  for (const p of [-1, -0.5, 0, 0.5, 1])
    for (const r of [-1, -0.5, 0, 0.5, 1]) {
      const attitude = tankAttitude(form, { pitchDeg: p * pitchDeg, rollDeg: r * rollDeg });
      const deadM3 = deadFuelM3(form, mouths, attitude);
      if (deadM3 > worst.deadM3) worst = { attitude, deadM3 };
    }
  return worst;
}

/** Clearance of a mouth over the floor. Common practice, no source (practice 20). */
export const LEAST_CLEARANCE_M = { bevelled: 0.003, dirt: 0.02, heaterSide: 0.025 } as const;
/** A square mouth needs a quarter of its bore, or the rim throttles: pi d h = pi d^2 / 4. */
export const leastClearanceM = (mouth: PickupFit["mouth"], boreM: number): number =>
  mouth === "square" ? Math.max(LEAST_CLEARANCE_M.bevelled, boreM / 4) : LEAST_CLEARANCE_M.bevelled;

export interface PickupOption {
  kind: "asFound" | "deeper" | "sump" | "second";
  levelM3: number;
  worstM3: number;
}

/** A sump that would be tried: 100 mm across, 80 mm deep. Common practice, no source. */
const TRIED_SUMP = { diameterM: 0.1, depthM: 0.08 };

/** What other pickups would leave, side by side, over the envelope. */
export function pickupOptions(tank: Tank, port: TankPort, envelope: Envelope): PickupOption[] {
  const { xM, yM, zM } = port.mouth;
  const judge = (kind: PickupOption["kind"], form: TankForm, mouths: Position[]): PickupOption => ({
    kind,
    levelM3: deadFuelM3(form, mouths, fittedAttitude(form)),
    worstM3: worstDeadFuel(form, mouths, envelope).deadM3,
  });
  const options = [judge("asFound", tank, [port.mouth])];
  const deep = floorUnder(tank, xM, yM) + leastClearanceM("bevelled", port.boreM);
  if (deep < zM - 1e-4) options.push(judge("deeper", tank, [{ xM, yM, zM: deep }]));
  if (!tank.sump) {
    const sump = { xM, yM, ...TRIED_SUMP, holeM: TRIED_SUMP.diameterM };
    const mouth = { xM, yM, zM: floorUnder({ ...tank, sump }, xM, yM) + LEAST_CLEARANCE_M.dirt };
    options.push(judge("sump", { ...tank, sump }, [mouth]));
  }
  const { x } = boundsOf(tank.shape);
  const other = { xM: x[0] + x[1] - xM, yM, zM };
  if (Math.abs(other.xM - xM) > 0.1) options.push(judge("second", tank, [port.mouth, other]));
  return options;
}

/** Whether a place of the tank's frame stands in its well. */
export const isInWell = ({ well }: Tank, { xM, yM }: Position): boolean =>
  well !== undefined && xM >= well.low.xM && xM <= well.high.xM && yM >= well.low.yM && yM <= well.high.yM;

/** Discharge coefficient of a sharp-edged hole. Handbook value (from memory: 0.60 to 0.62). */
const HOLE_DISCHARGE = 0.61;

/**
 * Seconds that a well feeds on when the fuel round it has run to the other side: what it holds over the mouth,
 * against the feed and what its own holes let out (each falling with the root of depth; summed in 200 slices).
 */
export function wellHoldsS(tank: Tank, mouth: Position, feedM3S: number): number | null {
  const { well } = tank;
  if (!well) return null;
  const area = (well.high.xM - well.low.xM) * (well.high.yM - well.low.yM);
  const holes = well.holes * areaM2(well.holeBoreM);
  const depth = well.high.zM - mouth.zM;
  if (!(depth > 0)) return 0;
  const SLICES = 200;
  let seconds = 0;
  for (let i = 0; i < SLICES; i++) {
    const over = mouth.zM - well.low.zM + (depth * (i + 0.5)) / SLICES;
    const out = feedM3S + HOLE_DISCHARGE * holes * Math.sqrt(2 * GRAVITY_M_S2 * Math.max(0, over));
    if (!(out > 0)) return null;
    seconds += (area * depth) / SLICES / out;
  }
  return seconds;
}

/** How the depth was taken: on the free unit where a carrier is pressed and nothing else is said. */
export const depthTaken = ({ taken, carrierM }: PickupFit): "free" | "fitted" =>
  taken ?? (carrierM > 0 ? "free" : "fitted");

/** Depth as the unit is fitted: a free one is shorter by what its carrier is pressed together. */
export const fittedDepthM = (fit: PickupFit): number =>
  fit.depthM - (depthTaken(fit) === "free" ? fit.carrierM : 0);

/**
 * Length to mark on the tube, from the plate's face to the mouth, as it is fitted: more by what the floor sinks under a
 * full tank, less the clearance.
 */
export const cutLengthM = (fit: PickupFit): number => fittedDepthM(fit) + fit.sagM - fit.clearanceM;

/** Clearance left when a tube was cut with the tank empty and the sag forgotten. */
export const clearanceFullM = ({ clearanceM, sagM }: PickupFit): number => clearanceM + sagM;

/** Capacity that cannot be filled and fuel that cannot be drawn because the tank is fitted at a tilt. */
export function installedTilt(
  tank: Tank,
  mouths: readonly Position[],
  fillLip: Position | null,
): { capacityLostM3: number; deadGainedM3: number } {
  const attitude = fittedAttitude(tank);
  const tilted = new TiltedTank(tank, attitude);
  const brim = fillLip ? Math.min(tilted.high, heightAlong(upOf(attitude), fillLip)) : tilted.high;
  return {
    capacityLostM3: tilted.capacityM3 - tilted.volumeM3(brim),
    deadGainedM3:
      mouths.length === 0 ? 0 : deadFuelM3(tank, mouths, attitude) - deadFuelM3(tank, mouths, LEVEL),
  };
}
