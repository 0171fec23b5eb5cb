/** What the wire of a pump or heater loses and bears, and what its fuse and relay must be. */

import type { Circuit } from "../kinds/circuit";
import { isConsumer } from "../kinds/families";
import type { Part } from "../kinds/index";
import type { Id } from "../kinds/record";
import { wireDrop } from "../laws/wire";
import type { Job, Plan } from "../plan/types";
import { ampere, celsius, metre, squareMetre } from "../units/brands";

/**
 * Current that a single copper conductor bears continuously with 70 degC insulation at 30 degC outside an engine room.
 * Source: ISO 10133 annex, small craft direct-current systems (from memory). mm2 and A.
 */
const bears: readonly (readonly [mm2: number, amperes: number])[] = [
  [0.75, 10],
  [1, 14],
  [1.5, 18],
  [2.5, 25],
  [4, 35],
  [6, 45],
  [10, 65],
  [16, 90],
  [25, 120],
  [35, 160],
  [50, 210],
];

/** What wire in a vehicle is warmed to when it is asked for its worst. Common practice, no source. */
const WARM_WIRE_C = 40;

const MM2_M2 = 1e-6;

/** The largest listed size that is not larger than the wire; 0 for thinner than any. */
export const wireBearsA = (areaM2: number): number =>
  bears.findLast(([mm2]) => mm2 <= (areaM2 / MM2_M2) * (1 + 1e-9))?.[1] ?? 0;

/** Common practice: heaters fault at 3 %, pumps bear 10 %. */
export const allowedDrop = { heater: 0.03, other: 0.1 } as const;

/** 12 V until it is said, whatever the vehicle: assumed, and to be asked of a truck, which may carry 24. */
export const supplyVolts = ({ site }: Pick<Job, "site">): number => site.supply?.volts ?? 12;

export interface CircuitFigures {
  dropV: number;
  peakDropV: number;
  /** Of the supply, at the running current; a heater's at its peak. */
  dropShare: number;
  allowedShare: number;
  wireBearsA: number;
  /** Smallest listed wire that holds the drop and the fuse; null where none does. */
  leastAreaM2: number | null;
}

export function circuitFigures(circuit: Circuit, volts: number, isHeater: boolean): CircuitFigures {
  const { runA, peakA, wireLengthM, wireAreaM2, fuseA } = circuit;
  const drop = (amperes: number, areaM2: number) =>
    wireDrop(ampere(amperes), metre(wireLengthM / 2), squareMetre(areaM2), celsius(WARM_WIRE_C));
  const judgedA = isHeater ? peakA : runA;
  const allowedShare = isHeater ? allowedDrop.heater : allowedDrop.other;
  const least = bears.find(
    ([mm2, amperes]) =>
      amperes >= Math.max(fuseA, peakA) && drop(judgedA, mm2 * MM2_M2) <= allowedShare * volts,
  );
  return {
    dropV: drop(runA, wireAreaM2),
    peakDropV: drop(peakA, wireAreaM2),
    dropShare: drop(judgedA, wireAreaM2) / volts,
    allowedShare,
    wireBearsA: wireBearsA(wireAreaM2),
    leastAreaM2: least ? least[0] * MM2_M2 : null,
  };
}

export interface WiringLine extends CircuitFigures {
  partId: Id;
  name: string;
  circuit: Circuit;
}

export const circuitOf = (part: Part): Circuit | undefined => ("circuit" in part ? part.circuit : undefined);

/** Every circuit of the plan and its consumers. */
export function wiringList(job: Job, plan: Plan): WiringLine[] {
  const volts = supplyVolts(job);
  return [...plan.parts, ...job.consumers].flatMap((part) => {
    const circuit = circuitOf(part);
    if (!circuit) return [];
    const isHeater = isConsumer(part) && part.kind === "heater";
    return [{ partId: part.id, name: part.name, circuit, ...circuitFigures(circuit, volts, isHeater) }];
  });
}
