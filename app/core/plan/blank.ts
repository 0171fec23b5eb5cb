/** Jobs and parts with generic figures, to start from. Every figure set here is an assumption until the user gives theirs. */
import { presetFuel } from "../fuel/fuel";
import { TYPICAL_VISCOUS_SHARE } from "../laws/filterDrop";
import { LITRE_M3, LITRE_PER_HOUR_M3_S } from "../units/factors";
import { metricUnits } from "../units/format";
import { newId } from "./ids";
import type {
  Circuit,
  Conditions,
  Engine,
  FilterBody,
  HoseProduct,
  Id,
  Job,
  Limits,
  LineUp,
  Plan,
  PlanPart,
  Position,
  PumpBody,
  Run,
  Tank,
} from "./types";

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
      return { ...base, kind, name: "Separator", medium: "separator", ...genericFilter() };
    case "liftPump":
      return {
        ...base,
        kind,
        name: "Lift pump",
        ...pumpBody(400, 50000),
        off: { kind: "free", dropPa: 8000 },
      };
    case "transferPump":
      return { ...base, kind, name: "Transfer pump", ...pumpBody(900, 70000), off: { kind: "blocked" } };
    case "primingPump":
      return {
        ...base,
        kind,
        name: "Priming pump",
        ...pumpBody(130, 40000),
        off: { kind: "bypass", opensPa: 700, dropPa: 2500 },
      };
    case "inTankPump":
      return {
        ...base,
        kind,
        name: "In-tank pump",
        ...pumpBody(250, 90000),
        reliefPa: 80000,
        off: { kind: "blocked" },
      };
    case "dosingPump":
      return {
        ...base,
        boreM: HEATER_BORE_M,
        kind,
        name: "Dosing pump",
        strokeM3: 0.023e-6,
        mostHz: 6.5,
        drawShare: 0.25,
        mostRisePa: 50000,
        tiltDeg: 25,
        rubberMounted: true,
      };
    case "pumpFilterUnit":
      return {
        ...base,
        kind,
        name: "Pump and filter unit",
        ...genericFilter(),
        ...pumpBody(500, 90000),
        reliefPa: 60000,
        off: { kind: "bypass", opensPa: 700, dropPa: 4000 },
      };
    case "check":
      return { ...base, kind, name: "Check valve", crackingPa: 1000 };
    case "antiSiphon":
      return { ...base, kind, name: "Anti-siphon valve", crackingPa: 3000 };
    case "bulb":
      return {
        ...base,
        kind,
        name: "Primer bulb",
        crackingPa: 500,
        ratedFlowM3S: 100 * LITRE_PER_HOUR_M3_S,
        ratedDropPa: 1500,
        strokeM3: 0.04 * LITRE_M3,
        forDiesel: false,
      };
    case "relief":
      return { ...base, kind, name: "Relief valve", setPa: 50000, droopPa: 5000, ratedFlowM3S: RATED_M3_S };
    case "regulator":
      return {
        ...base,
        kind,
        name: "Pressure regulator",
        holds: "after",
        setPa: 30000,
        droopPa: 2000,
        ratedFlowM3S: RATED_M3_S,
      };
    case "cooler":
      return {
        ...base,
        kind,
        name: "Fuel cooler",
        ratedFlowM3S: RATED_M3_S,
        ratedDropPa: 3000,
        effectiveness: 0.5,
        coolantC: 30,
      };
    case "flowMeter":
      return { ...base, kind, name: "Flow meter", ratedFlowM3S: RATED_M3_S, ratedDropPa: 4000 };
    case "fuelHeater":
      return {
        ...base,
        kind,
        name: "Fuel heater",
        ratedFlowM3S: RATED_M3_S,
        ratedDropPa: 1000,
        powerW: 150,
        circuit: { ...genericCircuit(), runA: 12.5, peakA: 15, fuseA: 20 },
      };
    case "jetPump":
      return { ...base, kind, name: "Jet pump", nozzleM: 0.0022, throatM: 0.0045 };
    case "swirlPot":
      return { ...base, kind, name: "Swirl pot", volumeM3: 1.5 * LITRE_M3 };
    case "bleedScrew":
      return { ...base, kind, name: "Bleed screw" };
    case "samplingTap":
      return { ...base, kind, name: "Sampling tap" };
    case "waterSensor":
      return { ...base, kind, name: "Water sensor", heldM3: 0.1 * LITRE_M3 };
    case "bulkhead":
      return { ...base, kind, name: "Bulkhead fitting", wallM: 0.006, reachM: 0.02 };
    case "gauge":
      return { ...base, kind, name: "Vacuum gauge", measures: "vacuum" };
  }
}

const RATED_M3_S = 200 * LITRE_PER_HOUR_M3_S;
/** Line of an air heater's kit. Common practice, no source; kits differ. */
export const HEATER_BORE_M = 0.002;

const pumpBody = (freeLitresAnHour: number, deadHeadPa: number): Pick<PumpBody, "curve" | "circuit"> => ({
  curve: [
    { flowM3S: 0, risePa: deadHeadPa },
    { flowM3S: freeLitresAnHour * LITRE_PER_HOUR_M3_S, risePa: 0 },
  ],
});

/** 2.5 mm2 of copper, three metres there and back, a common blade fuse. */
export const genericCircuit = (): Circuit => ({
  runA: 4,
  peakA: 8,
  wireLengthM: 6,
  wireAreaM2: 2.5e-6,
  fuseA: 10,
  hasRelay: false,
});

const genericFilter = (): FilterBody => ({
  micron: 10,
  ratedFlowM3S: 227 * LITRE_PER_HOUR_M3_S,
  ratedDropPa: 2500,
  ratedDynamicPaS: 0.0026,
  ratedDensityKgM3: 830,
  viscousShare: TYPICAL_VISCOUS_SHARE,
  changeLoading: 4,
  volumeM3: 0.8 * LITRE_M3,
  element: { id: newId() },
});

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

export function newEngine(id: Id, name: string, at: Position, kind: Engine["kind"] = "engine"): Engine {
  const litres = (load: number, feed: number, burn: number) => ({
    load,
    feedM3S: feed * LITRE_PER_HOUR_M3_S,
    burnM3S: burn * LITRE_PER_HOUR_M3_S,
  });
  const base = { id, name, position: at };
  if (kind === "heater") {
    return {
      ...base,
      kind,
      boreM: HEATER_BORE_M,
      powerW: 4000,
      loads: [litres(0, 0.13, 0.13), litres(1, 0.5, 0.5)],
      circuit: { ...genericCircuit(), runA: 3.5, peakA: 12, fuseA: 15, wireAreaM2: 4e-6 },
      heater: {
        hasCoAlarm: false,
        exhaustBendDeg: 90,
        exhaustFalls: true,
        drainAtLowest: true,
        outletClear: true,
        airFacesRear: true,
        airWayClear: true,
        clearanceM: 0.1,
        switchCutsRunDown: false,
      },
    };
  }
  return {
    ...base,
    kind,
    boreM: COMMON_BORE_M,
    ports: { feed: { offset: { xM: 0, yM: 0, zM: 0.1 } }, return: { boreM: 0.0079 } },
    powerW: kind === "generator" ? 8000 : 60000,
    loads:
      kind === "generator" ? [litres(0, 25, 0.7), litres(1, 30, 3)] : [litres(0, 40, 2), litres(1, 80, 16)],
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
  };
}
