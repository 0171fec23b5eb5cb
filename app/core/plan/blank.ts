/** Jobs and parts with generic figures, to start from. Every figure set here is an assumption until the user gives theirs. */
import { presetFuel } from "../fuel/fuel";
import { TYPICAL_VISCOUS_SHARE } from "../laws/filterDrop";
import { LITRE_M3, LITRE_PER_HOUR_M3_S } from "../units/factors";
import { metricUnits } from "../units/format";
import { newId } from "./ids";
import type {
  Conditions,
  Engine,
  HoseProduct,
  Id,
  Job,
  Limits,
  LineUp,
  Plan,
  PlanPart,
  Position,
  Run,
  Tank,
} from "./types";

export const origin: Position = { xM: 0, yM: 0, zM: 0 };

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

/** Fire-tested, low-permeation hose for engine rooms; sizes typical of the kind. */
export const genericHose = (boreM: number): HoseProduct => ({
  marking: "ISO 7840 A1",
  outerDiameterM: boreM + 0.008,
  leastRadiusM: boreM * 8,
});

const COMMON_BORE_M = 0.0095;

export type NewPartKind = PlanPart["kind"];

/** A part of a kind with generic figures, marked as assumed by having no entries. */
export function newPart(kind: NewPartKind, id: Id, position: Position): PlanPart {
  const base = { id, position, boreM: COMMON_BORE_M };
  switch (kind) {
    case "twoWay":
      return { ...base, kind, name: "Valve" };
    case "selector":
      return {
        ...base,
        kind,
        name: "Selector",
        ways: 2,
        positions: [
          { id: "one", name: "way 1", joins: [["c", "w1"]] },
          { id: "two", name: "way 2", joins: [["c", "w2"]] },
        ],
        makesBeforeBreaks: false,
      };
    case "tee":
      return { ...base, kind, name: "Tee" };
    case "bank":
      return {
        ...base,
        kind,
        name: "Manifold",
        branches: [
          { id: "b1", name: "1" },
          { id: "b2", name: "2" },
        ],
      };
    case "filter":
      return {
        ...base,
        kind,
        name: "Separator",
        medium: "separator",
        micron: 10,
        ratedFlowM3S: 227 * LITRE_PER_HOUR_M3_S,
        ratedDropPa: 2500,
        ratedDynamicPaS: 0.0026,
        ratedDensityKgM3: 830,
        viscousShare: TYPICAL_VISCOUS_SHARE,
        changeLoading: 4,
        volumeM3: 0.8 * LITRE_M3,
        element: { id: newId() },
      };
    case "liftPump":
      return {
        ...base,
        kind,
        name: "Lift pump",
        curve: [
          { flowM3S: 0, risePa: 50000 },
          { flowM3S: 400 * LITRE_PER_HOUR_M3_S, risePa: 0 },
        ],
        off: { kind: "free", dropPa: 8000 },
      };
    case "check":
      return { ...base, kind, name: "Check valve", crackingPa: 1000 };
    case "gauge":
      return { ...base, kind, name: "Vacuum gauge", measures: "vacuum" };
  }
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

export function newEngine(id: Id, name: string, at: Position): Engine {
  return {
    id,
    name,
    kind: "engine",
    position: at,
    boreM: COMMON_BORE_M,
    ports: { feed: { offset: { xM: 0, yM: 0, zM: 0.1 } }, return: { boreM: 0.0079 } },
    powerW: 60000,
    loads: [
      { load: 0, feedM3S: 40 * LITRE_PER_HOUR_M3_S, burnM3S: 2 * LITRE_PER_HOUR_M3_S },
      { load: 1, feedM3S: 80 * LITRE_PER_HOUR_M3_S, burnM3S: 16 * LITRE_PER_HOUR_M3_S },
    ],
  };
}

export function newRun(
  id: Id,
  from: Run["from"],
  to: Run["to"],
  lengthM: number,
  boreM = COMMON_BORE_M,
): Run {
  return {
    id,
    from,
    to,
    boreM,
    roughnessM: SMOOTH_ROUGHNESS_M,
    product: genericHose(boreM),
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
    nudges: {},
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
    keptRevisions: [],
    book: [],
  };
}
