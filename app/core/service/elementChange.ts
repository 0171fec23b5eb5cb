/**
 * What it takes to change a filter's element, from the plan: steps with seconds and millilitres, one person, kit laid
 * out. Predetermined seconds a step, common practice, no source: the shop's own timings go first.
 */

import type { Filter } from "../kinds/filter";
import type { Body } from "../kinds/kind";
import type { PumpFilterUnit } from "../kinds/pumpFilterUnit";
import type { BodySize } from "../kinds/record";

export type ServiceStepId =
  | "openHatch"
  | "layOut"
  | "switchOver"
  | "stopConsumer"
  | "shutValve"
  | "holdBack"
  | "cupUnder"
  | "openVent"
  | "drainBowl"
  | "unplugSensor"
  | "spinOff"
  | "liftLid"
  | "liftElement"
  | "cleanSeat"
  | "moveBowl"
  | "newSeal"
  | "spinOn"
  | "openValve"
  | "handFill"
  | "setLid"
  | "plugSensor"
  | "shutDrain"
  | "prime"
  | "shutVent"
  | "wipeLook"
  | "idle"
  | "writeDown"
  | "closeHatch";

type Room = Body["room"][number]["use"];

const ML_M3 = 1e-6;
/** A 6 mm drain with its vent open. */
const DRAINS_ML_S = 15;
const POURS_ML_S = 20;
/** Of what the housing holds the drain leaves this, and no less than ten millilitres. */
const LEFT_SHARE = 0.05;
const LEAST_LEFT_ML = 10;
/** A cup is full at this share: what is carried brimful is spilled. */
const CUP_SHARE = 0.8;
/** Where the room for a step is taken or out of reach it takes twice as long. */
const BLOCKED_FACTOR = 2;
/** Turns from where its seal touches, until the element's own print is typed. Common practice, no source. */
export const TURNS_AFTER_CONTACT = 0.75;
/** Under this without spilling is what a system is laid out for. Common practice, no source. */
export const GOOD_CHANGE_S = 15 * 60;

interface Element {
  seconds: number | ((mL: number, pumpMlS: number) => number);
  /** Into the cup, by what the housing holds. */
  mL?: (held: number) => number;
  /** The room that the hand needs for it. */
  room?: Room;
}

const elements: Readonly<Record<ServiceStepId, Element>> = {
  openHatch: { seconds: 60 },
  layOut: { seconds: 60 },
  switchOver: { seconds: 10 },
  stopConsumer: { seconds: 60 },
  shutValve: { seconds: 5 },
  holdBack: { seconds: 30 },
  cupUnder: { seconds: 15, room: "drainCup" },
  openVent: { seconds: 15, room: "driver" },
  drainBowl: { seconds: (mL) => 5 + mL / DRAINS_ML_S, mL: (held) => held },
  unplugSensor: { seconds: 15 },
  spinOff: { seconds: 30, mL: (held) => Math.max(LEAST_LEFT_ML, LEFT_SHARE * held), room: "bowlDrop" },
  liftLid: { seconds: 40, room: "lidLift" },
  liftElement: { seconds: 20, mL: () => 5 },
  cleanSeat: { seconds: 30 },
  moveBowl: { seconds: 60 },
  newSeal: { seconds: 20 },
  spinOn: { seconds: 45 },
  openValve: { seconds: 5 },
  handFill: { seconds: (mL) => 20 + mL / POURS_ML_S },
  setLid: { seconds: 60 },
  plugSensor: { seconds: 15 },
  shutDrain: { seconds: 10 },
  prime: { seconds: (mL, pumpMlS) => 10 + mL / pumpMlS },
  shutVent: { seconds: 15, mL: () => 10 },
  wipeLook: { seconds: 60 },
  idle: { seconds: 120 },
  writeDown: { seconds: 30 },
  closeHatch: { seconds: 60 },
};

export interface ChangeTask {
  heldM3: number;
  housing: "spinOn" | "lid";
  hasSensor: boolean;
  /** Under it hangs a bowl with a drain, which goes over to the new element. */
  hasBowl: boolean;
  /** Another filter feeds meanwhile. */
  isDuplex: boolean;
  /** It is behind a hatch. */
  hasHatch: boolean;
  /** What keeps the tank from running out of it: a valve before it, a hose that is pinched; nothing where it stands over the fuel. */
  heldBy: "valve" | "pinch" | "height";
  /** Free flow of a pump that fills it, m3/s; null where it is filled by hand. */
  pumpM3S: number | null;
  /** Rooms that are taken by another part or lie outside of the opening. */
  blocked: ReadonlySet<Room>;
  /** What the cup under it can hold to its brim, m3; null where nothing limits it. */
  cupM3: number | null;
}

export interface ChangeStep {
  id: ServiceStepId;
  seconds: number;
  cupM3: number;
  isBlocked: boolean;
}

export interface Change {
  steps: readonly ChangeStep[];
  seconds: number;
  /** Into the cup, and beside it. */
  cupM3: number;
  spilledM3: number;
}

function recipe({
  housing,
  hasSensor,
  hasBowl,
  hasHatch,
  heldBy,
  isDuplex,
  pumpM3S,
}: ChangeTask): ServiceStepId[] {
  const where = (holds: boolean, ...steps: ServiceStepId[]) => (holds ? steps : []);
  const isHeldBy = (what: ChangeTask["heldBy"]) => !isDuplex && heldBy === what;
  const isByPump = pumpM3S !== null;
  const isSpun = housing === "spinOn";
  return [
    ...where(hasHatch, "openHatch"),
    "layOut",
    isDuplex ? "switchOver" : "stopConsumer",
    ...where(isHeldBy("valve"), "shutValve"),
    ...where(isHeldBy("pinch"), "holdBack"),
    "cupUnder",
    ...where(hasBowl, "openVent", "drainBowl"),
    ...where(hasSensor, "unplugSensor"),
    ...where(isSpun, "spinOff", "cleanSeat"),
    ...where(isSpun && hasBowl, "moveBowl", "newSeal"),
    ...where(isSpun, "newSeal", "spinOn"),
    ...where(!isSpun, "liftLid", "liftElement", "cleanSeat", "newSeal"),
    ...where(!isSpun && isByPump, "setLid"),
    ...where(!isSpun && !isByPump, "handFill", "setLid"),
    ...where(hasSensor, "plugSensor"),
    ...where(hasBowl, "shutDrain"),
    ...where(isHeldBy("valve"), "openValve"),
    ...where(isByPump, "prime"),
    ...where(isSpun && !isByPump, "handFill"),
    ...where(hasBowl, "shutVent"),
    "wipeLook",
    "idle",
    "writeDown",
    ...where(hasHatch, "closeHatch"),
  ];
}

/** What a step takes where nothing is in the hand's way; of what is poured or drained, by its volume. */
export function stepSeconds(id: ServiceStepId, m3 = 0): number {
  const { seconds } = elements[id];
  return typeof seconds === "number" ? seconds : seconds(m3 / ML_M3, Number.POSITIVE_INFINITY);
}

export function elementChange(task: ChangeTask): Change {
  const heldMl = task.heldM3 / ML_M3;
  const pumpMlS = (task.pumpM3S ?? 1) / ML_M3;
  let cupMl = 0;
  let spilledMl = 0;
  const brimMl = task.cupM3 === null ? Number.POSITIVE_INFINITY : (task.cupM3 / ML_M3) * CUP_SHARE;
  const steps = recipe(task).map((id): ChangeStep => {
    const { seconds, mL, room } = elements[id];
    const isBlocked = room !== undefined && task.blocked.has(room);
    const takes = typeof seconds === "number" ? seconds : seconds(heldMl, pumpMlS);
    const comes = mL?.(heldMl) ?? 0;
    const fits = Math.max(0, Math.min(comes, brimMl - cupMl));
    cupMl += fits;
    spilledMl += comes - fits;
    return { id, seconds: takes * (isBlocked ? BLOCKED_FACTOR : 1), cupM3: comes * ML_M3, isBlocked };
  });
  return {
    steps,
    seconds: steps.reduce((sum, step) => sum + step.seconds, 0),
    cupM3: cupMl * ML_M3,
    spilledM3: spilledMl * ML_M3,
  };
}

/** The largest round cup that stands in a room, m3. */
export function cupFor({ widthM, depthM }: BodySize, clearM: number): number {
  const across = Math.min(widthM, depthM) * CUP_SHARE;
  return (Math.PI / 4) * across ** 2 * clearM;
}

export type Served = Filter | PumpFilterUnit;
