import type { Fuel } from "../fuel/fuel";
import type { PumpPoint } from "../laws/pumpCurve";
import type { UnitChoice } from "../units/format";

/** Short (at most 14 characters), opaque, never reused, kept across alternatives. */
export type Id = string;

export type Basis = "measured" | "maker" | "assumed";

/** What stands beside a number that a person entered: their text, its spread, and what it is worth. */
export interface Given {
  entered?: string;
  plusMinus?: number;
  basis?: Basis;
}

/** By field name of the record it stands in. A number without an entry was set by the application: assumed. */
export type GivenByField = Record<string, Given>;

interface Recorded {
  id: Id;
  name: string;
  given?: GivenByField;
}

/** Job frame: x forward, y to port, z up, metres. In a tank: its own frame. */
export interface Position {
  xM: number;
  yM: number;
  zM: number;
}

export type SectionPoint = [yM: number, zM: number];

export type TankShape =
  | { kind: "box"; lengthM: number; widthM: number; heightM: number }
  | { kind: "prism"; section: SectionPoint[]; lengthM: number };

/** `mouth` is where fuel enters or leaves inside the tank, `outside` where the hose goes on. Tank frame. */
export interface TankPort {
  id: Id;
  name: string;
  role: "outlet" | "return";
  mouth: Position;
  outside: Position;
  boreM: number;
}

export interface Tank extends Recorded {
  origin: Position;
  yawDeg: number;
  shape: TankShape;
  ports: TankPort[];
}

interface PartBase extends Recorded {
  position: Position;
  /** Bore of the ports and the way through, unless a port has its own. */
  boreM: number;
  ports?: Record<string, { offset?: Position; boreM?: number }>;
}

export interface TwoWayValve extends PartBase {
  kind: "twoWay";
}

export interface SelectorPosition {
  id: Id;
  name: string;
  /** Groups of ports that this position joins; ports in no group are shut. */
  joins: string[][];
}

/** Ports: `c` common, `w1`..`wn` ways. Positions stand in the order the handle passes them. */
export interface SelectorValve extends PartBase {
  kind: "selector";
  ways: number;
  positions: SelectorPosition[];
  makesBeforeBreaks: boolean;
}

/** Through `a`-`b`, branch `c`. */
export interface Tee extends PartBase {
  kind: "tee";
}

/** A row of two-way valves on one common rail. Ports: `c` common, and one a branch. */
export interface ManifoldBank extends PartBase {
  kind: "bank";
  branches: { id: Id; name: string }[];
}

export interface Filter extends PartBase {
  kind: "filter";
  medium: "separator" | "secondary";
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
}

export interface LiftPump extends PartBase {
  kind: "liftPump";
  curve: PumpPoint[];
  reliefPa?: number;
  /** Passes fuel when unpowered; the drop is at the free flow of the curve. */
  off: { kind: "free"; dropPa: number } | { kind: "blocked" };
  /** Most vacuum it can draw, from the maker. */
  mostSuctionPa?: number;
  /** Vacuum the maker allows at its inlet in service. */
  suctionLimitPa?: number;
}

export interface CheckValve extends PartBase {
  kind: "check";
  crackingPa: number;
}

/** In the line, `a`-`b`, without loss; `b` is blank on a dead-ended gauge. */
export interface Gauge extends PartBase {
  kind: "gauge";
  measures: "vacuum" | "pressure";
}

export interface EngineLoad {
  load: number;
  feedM3S: number;
  burnM3S: number;
}

export interface Engine extends PartBase {
  kind: "engine";
  powerW: number;
  /** Feed and burn by load (0..1), ascending; straight between. */
  loads: EngineLoad[];
  suctionLimitPa?: number;
}

export type PlanPart =
  | TwoWayValve
  | SelectorValve
  | Tee
  | ManifoldBank
  | Filter
  | LiftPump
  | CheckValve
  | Gauge;
export type Part = PlanPart | Engine;
export type PartKind = Part["kind"];

export interface PortRef {
  part: Id;
  port: Id;
}

export type Route =
  | {
      kind: "measured";
      lengthM: number;
      bends: { deg: 45 | 90; count: number }[];
      /** High and low points by distance from `from`, job frame. */
      extremes: { atM: number; zM: number }[];
    }
  | { kind: "traced"; points: Position[]; radiusM: number };

export interface HoseProduct {
  marking: string;
  outerDiameterM: number;
  leastRadiusM: number;
}

export interface Run {
  id: Id;
  from: PortRef;
  to: PortRef;
  boreM: number;
  /** Bore of the barb or adapter at each end; the hose's own where none is narrower. */
  endBoreM?: [number, number];
  roughnessM: number;
  product: HoseProduct;
  route: Route;
  given?: GivenByField;
}

/** Two ports screwed together, without a hose. */
export interface Joint {
  id: Id;
  from: PortRef;
  to: PortRef;
}

export type ValveSetting =
  | { kind: "position"; position: Id }
  | { kind: "branches"; open: Id[] }
  | { kind: "unset" };

export type Purpose = "run" | "transfer" | "polish" | "prime";

export interface LineUp {
  id: Id;
  name: string;
  purpose: Purpose;
  valves: Record<Id, ValveSetting>;
  pumps: Record<Id, "on" | "off">;
  consumers: Record<Id, "running" | "stopped">;
  /** Fuel is meant to end in another tank than it came from. */
  intendedTransfer: boolean;
}

/** What a solve is done at. Fuel aboard is a volume, never a level. */
export interface Conditions {
  fuelC: number;
  aboardM3: Record<Id, number>;
  /** By filter element: 1 is clean. */
  loading: Record<Id, number>;
  /** By consumer, 0..1. */
  load: Record<Id, number>;
}

/** Limits the user may set in place of common practice; see findings. */
export interface Limits {
  suctionCleanPa: number;
  suctionChangePa: number;
  suctionNeverPa: number;
  freeAirFraction: number;
}

export interface Plan {
  id: Id;
  name: string;
  basedOn?: Id;
  parts: PlanPart[];
  runs: Run[];
  joints: Joint[];
  lineUps: LineUp[];
  conditions: Conditions;
  limits: Limits;
  serviceAllowanceM: number;
  /** Where the user nudged a part on the drawing, in drawing units from where it was laid. */
  nudges: Record<Id, { dx: number; dy: number }>;
}

export interface Site {
  altitudeM: number;
  ambientLowC: number;
  ambientHighC: number;
  given?: GivenByField;
}

export type AntiSiphonSchool = "abycH33" | "iso10088";

export interface Schools {
  shutOff: AntiSiphonSchool;
}

export interface VacuumReading {
  kind: "vacuum";
  id: Id;
  at: string;
  planId: Id;
  revision: number;
  gaugeId: Id;
  lineUpId: Id;
  vacuumPa: number;
  conditions: Conditions;
  note: string;
}

export interface LeakCheck {
  kind: "leakCheck";
  id: Id;
  at: string;
  planId: Id;
  revision: number;
  lineUpId: Id;
  /** Port at which the joint is. */
  joint: PortRef;
  result: "dry" | "wet";
}

export interface SetAside {
  kind: "setAside";
  id: Id;
  at: string;
  planId: Id;
  revision: number;
  rule: string;
  ids: Id[];
  lineUpId: Id | null;
  reason: string;
  /** Figure of the finding when it was set aside; it comes back when it gets worse. */
  figure: number | null;
}

export type BookEntry = VacuumReading | LeakCheck | SetAside;

export interface Job {
  id: Id;
  name: string;
  kind: "boat" | "truck" | "heater" | "other";
  note: string;
  units: UnitChoice;
  schools: Schools;
  site: Site;
  fuel: Fuel;
  tanks: Tank[];
  consumers: Engine[];
  plans: Plan[];
  currentPlanId: Id;
  /** Plans as they were when the book cites them. */
  keptRevisions: { planId: Id; revision: number; plan: Plan }[];
  book: BookEntry[];
}
