/** Jobs and parts with generic figures, to start from. Every figure set here is an assumption until the user gives theirs. */

import { presetFuel } from "../fuel/fuel";
import { blankOf } from "../kinds/fields";
import { newId } from "../kinds/ids";
import { type Engine, kinds, type Part, type PartKind, type PlanPart } from "../kinds/index";
import type { Kind } from "../kinds/kind";
import type { Id, Position } from "../kinds/record";
import { metricUnits } from "../units/format";
import { goesByRoad } from "./road";
import type { Board, Conditions, HoseProduct, Job, Limits, LineUp, Plan, Run, Tank } from "./types";

/** Common practice, no source: 3, 6 and 10 inHg; air is said to come out at 1 %. */
export const commonLimits: Limits = {
  suctionCleanPa: 10000,
  suctionChangePa: 20000,
  suctionNeverPa: 34000,
  freeAirFraction: 0.01,
};

/** Common practice, no source: extra at barbs that grow to the hose. */
export const COMMON_SERVICE_ALLOWANCE_M = 0.15;
/** Drawn tubing and smooth rubber, handbook order of magnitude (Moody 1944, from memory). */
export const SMOOTH_ROUGHNESS_M = 1.5e-6;

/**
 * Low-permeation hose, in a boat fire-tested for engine rooms, on a road vehicle by the vehicles' standard (SAE J30, from
 * memory); sizes typical of the kind.
 */
export const genericHose = (boreM: number, kind: Job["kind"] = "boat"): HoseProduct => ({
  marking: goesByRoad(kind) ? "SAE J30 R9" : "ISO 7840 A1",
  outerDiameterM: boreM + 0.008,
  leastRadiusM: boreM * 8,
});

/** A board as small as its first parts need, behind a hatch of the same size less its frame; all of it assumed. */
export const newBoard = (id: Id, name: string): Board => ({
  id,
  name,
  corner: { xM: 1, yM: 0.3, zM: 0.5 },
  facing: "aft",
  widthM: 0.6,
  heightM: 0.5,
  opening: { xM: 0.03, zM: 0.03, widthM: 0.54, heightM: 0.44, lidM: 0.25 },
  beyondM: 0.08,
  obstacles: [],
});

const COMMON_BORE_M = 0.0095;

export type NewPartKind = PlanPart["kind"];

/** A part of a kind with generic figures, marked as assumed by having no entries. */
export const newPart = (kind: NewPartKind, id: Id, position: Position): PlanPart =>
  blankPart(kind, id, kinds[kind].title, position) as PlanPart;

export const newEngine = (
  id: Id,
  name: string,
  position: Position,
  kind: Engine["kind"] = "engine",
): Engine => blankPart(kind, id, name, position) as Engine;

function blankPart(kind: PartKind, id: Id, name: string, position: Position): Part {
  const { boreM = COMMON_BORE_M, blankPorts, fields } = kinds[kind] as unknown as Kind;
  return {
    id,
    name,
    kind,
    position,
    boreM,
    ...(blankPorts ? { ports: structuredClone(blankPorts) } : {}),
    ...blankOf<object>(fields),
  } as Part;
}

export function newTank(id: Id, name: string, at: Position): Tank {
  return {
    id,
    name,
    origin: at,
    yawDeg: 0,
    shape: { kind: "box", lengthM: 1, widthM: 0.5, heightM: 0.4 },
    ports: [
      {
        id: "supply",
        name: "supply",
        role: "outlet",
        mouth: { xM: 0.1, yM: 0.25, zM: 0.025 },
        outside: { xM: 0.1, yM: 0.25, zM: 0.43 },
        boreM: COMMON_BORE_M,
      },
      {
        id: "return",
        name: "return",
        role: "return",
        mouth: { xM: 0.8, yM: 0.25, zM: 0.35 },
        outside: { xM: 0.8, yM: 0.25, zM: 0.43 },
        boreM: 0.0079,
      },
    ],
  };
}

export function newRun(
  id: Id,
  from: Run["from"],
  to: Run["to"],
  lengthM: number,
  boreM = COMMON_BORE_M,
  kind: Job["kind"] = "boat",
): Run {
  return {
    id,
    from,
    to,
    boreM,
    roughnessM: SMOOTH_ROUGHNESS_M,
    product: genericHose(boreM, kind),
    route: { kind: "measured", lengthM, bends: [], extremes: [] },
  };
}

export function newLineUp(id: Id, name: string): LineUp {
  return { id, name, purpose: "run", valves: {}, pumps: {}, consumers: {}, intendedTransfer: false };
}

export const newConditions = (): Conditions => ({ fuelC: 15, aboardM3: {}, loading: {}, load: {} });

export function newPlan(id: Id, name: string): Plan {
  return {
    id,
    name,
    parts: [],
    runs: [],
    joints: [],
    lineUps: [],
    conditions: newConditions(),
    limits: { ...commonLimits },
    serviceAllowanceM: COMMON_SERVICE_ALLOWANCE_M,
  };
}

export function newJob(id: Id, name: string): Job {
  const plan = newPlan(newId(), "A");
  return {
    id,
    name,
    kind: "boat",
    note: "",
    units: { ...metricUnits },
    schools: { shutOff: "abycH33" },
    site: { altitudeM: 0, ambientLowC: -5, ambientHighC: 35 },
    fuel: presetFuel("en590"),
    tanks: [],
    consumers: [],
    plans: [plan],
    currentPlanId: plan.id,
  };
}
