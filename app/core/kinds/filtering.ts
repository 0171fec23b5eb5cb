/** A medium in a housing, as a maker's sheet rates it. */

import { TYPICAL_VISCOUS_SHARE } from "../laws/filterDrop";
import { LITRE_M3, LITRE_PER_HOUR_M3_S } from "../units/factors";
import {
  atLeastZero,
  choice,
  density,
  type FieldsOf,
  flow,
  optional,
  panVolume,
  positive,
  ratio,
  share,
  toggle,
  vacuum,
  viscosity,
  volume,
} from "./fields";
import { newId } from "./ids";
import type { Body } from "./kind";
import type { Id } from "./record";

/** A second medium in the same housing, behind the first; both are changed together and load alike. */
export interface SecondMedium {
  micron: number;
  ratedFlowM3S: number;
  ratedDropPa: number;
}

export interface FilterHead {
  /** Room over the outlet, of its height. */
  share: number;
  /** A screw in the lid lets air out without lifting it. */
  hasScrew: boolean;
}

/** Room of a filter's head over its outlet, as a share of its volume. Common practice, no source; assumed. */
export const HEAD_SHARE = 0.08;
/** Air is let out of its lid by a screw, without lifting it. */
export const hasHeadScrew = ({ head }: { head?: FilterHead }): boolean => head?.hasScrew === true;
/** One that holds no more than this, and of which no lid is told, is thrown away whole. Common practice, no source. */
const SEALED_M3 = 50e-6;
/** An in-line filter without a lid: nothing of it is opened, and nothing is poured into it. */
export const isSealed = ({
  housing,
  head,
  volumeM3,
}: Pick<FilterBody, "housing" | "head" | "volumeM3">): boolean =>
  housing === undefined && head === undefined && volumeM3 <= SEALED_M3;

export interface FilterBody {
  micron: number;
  ratedFlowM3S: number;
  /** Drop of a clean element at the rated flow, with fuel of the two properties below. */
  ratedDropPa: number;
  ratedDynamicPaS: number;
  ratedDensityKgM3: number;
  viscousShare: number;
  /** Loading at which the element is changed: the drop as a multiple of the clean one. */
  changeLoading: number;
  volumeM3: number;
  element: { id: Id; fittedOn?: string } | null;
  /** Water that its bowl holds before the sensor in it warns; absent without a sensor. */
  sensorHeldM3?: number;
  second?: SecondMedium;
  /** Of its head, where air gathers. Default: {@link HEAD_SHARE}, and a lid without a screw. */
  head?: FilterHead;
  /** How its element comes out: spun off from below, or lifted out under a lid. Default: spun off. */
  housing?: "spinOn" | "lid";
  /** Under its element hangs a bowl with a drain. Default: {@link hasBowl}. */
  bowl?: boolean;
  /** Turns that the element is spun on by from where its seal touches, as its maker prints. */
  turns?: number;
}

/**
 * Whether a bowl hangs under the element: as said; else where a sensor needs one, and under a separator afloat, where a
 * bowl is the rule. Common practice, no source.
 */
export const hasBowl = (
  part: FilterBody & { medium?: "separator" | "secondary" },
  isRoad: boolean,
): boolean => part.bowl ?? (part.sensorHeldM3 !== undefined || (!isRoad && part.medium !== "secondary"));

/** Of its head, over its outlet, a share of its volume; a sealed one is swept from end to end and has none. */
export const headShareOf = (part: Pick<FilterBody, "housing" | "head" | "volumeM3">): number =>
  part.head?.share ?? (isSealed(part) ? 0 : HEAD_SHARE);

/** The finest that passes it, micron: of two media the finer. */
export const finestMicron = ({ micron, second }: FilterBody): number =>
  Math.min(micron, second?.micron ?? Number.POSITIVE_INFINITY);

/** What its media are all rated for, m3/s: of two the smaller. */
export const ratedForM3S = ({ ratedFlowM3S, second }: FilterBody): number =>
  Math.min(ratedFlowM3S, second?.ratedFlowM3S ?? Number.POSITIVE_INFINITY);

const secondFields: FieldsOf<SecondMedium> = {
  micron: ratio("maker", positive, { blank: 2 }),
  ratedFlowM3S: flow("maker", positive, { blank: 227 * LITRE_PER_HOUR_M3_S }),
  ratedDropPa: vacuum("maker", positive, { blank: 3500 }),
};

const headFields: FieldsOf<FilterHead> = {
  share: ratio("measured", { least: 0, most: 0.6 }, { blank: HEAD_SHARE }),
  hasScrew: toggle({ blank: true }),
};

export const filterFields: FieldsOf<FilterBody> = {
  ratedFlowM3S: flow("maker", positive, { blank: 227 * LITRE_PER_HOUR_M3_S, isNeeded: true, tells: true }),
  ratedDropPa: vacuum("maker", positive, { blank: 2500, isNeeded: true }),
  micron: ratio("maker", positive, { blank: 10, tells: true }),
  changeLoading: ratio("maker", { least: 1, most: 100 }, { blank: 4 }),
  volumeM3: volume("maker", atLeastZero, { blank: 0.8 * LITRE_M3 }),
  sensorHeldM3: panVolume("maker", positive, optional),
  ratedDynamicPaS: viscosity("maker", { least: 1e-5, most: 10 }, { blank: 0.0026, fold: "quiet" }),
  ratedDensityKgM3: density("maker", { least: 400, most: 1500 }, { blank: 830, fold: "quiet" }),
  viscousShare: ratio("maker", share, { blank: TYPICAL_VISCOUS_SHARE, fold: "quiet" }),
  element: { form: "element", blank: () => ({ id: newId() }) },
  housing: choice(["spinOn", "lid"], { isOptional: true, fold: "quiet" }),
  bowl: toggle({ isOptional: true, fold: "quiet" }),
  turns: ratio("maker", { least: 0.1, most: 3 }, { isOptional: true, fold: "quiet" }),
  head: { form: "group", fields: headFields, fold: "bleeding", isOptional: true },
  second: { form: "group", fields: secondFields, fold: "second", isOptional: true },
};

/** A spin-on or cartridge under a head: its bowl drops, or its lid lifts. */
export const filterHousing: Body = {
  widthM: 0.12,
  heightM: 0.28,
  depthM: 0.13,
  massKg: 2.2,
  isUpright: true,
  faces: {
    in: { side: "left", at: 0.87 },
    out: { side: "right", at: 0.87 },
    in2: { side: "left", at: 0.75 },
    out2: { side: "right", at: 0.75 },
    back: { side: "top", at: 0.25 },
  },
  room: [
    { use: "bowlDrop", clearM: 0.1 },
    { use: "lidLift", clearM: 0.02 },
    { use: "drainCup", clearM: 0.12 },
  ],
};
