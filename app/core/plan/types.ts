/** What a job is, and a plan in it. */
import type { End } from "../ends/ends";
import type { Fuel } from "../fuel/fuel";
import type { Engine, PlanPart } from "../kinds/index";
import type { GivenByField, Id } from "../kinds/record";
import type { UnitChoice } from "../units/format";
import type { Board, Mounted } from "./boardTypes";
import type { ChosenChain, Cover, Delivery, JointLook, Passage, PortRef, Run, TankLine } from "./runTypes";
import type { Schools } from "./schools";
import type { Tank } from "./tankTypes";

export type * from "./boardTypes";
export * from "./runTypes";
export * from "./schools";
export type * from "./tankTypes";

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
  /** How the vehicle stands; level without it. */
  trim?: { pitchDeg: number; rollDeg: number };
}

/** A stretch of a run over time. */
export interface DutyStep {
  id: Id;
  hours: number;
  lineUpId: Id;
  /** Of every consumer that runs in the line-up, 0..1. */
  load: number;
  pitchDeg: number;
  rollDeg: number;
}

/** Limits the user may set in place of common practice; see findings. */
export interface Limits {
  suctionCleanPa: number;
  suctionChangePa: number;
  suctionNeverPa: number;
  freeAirFraction: number;
}

/** A point of the drawing's grid, columns to the right and rows down. */
export interface Cell {
  x: number;
  y: number;
  /** A hand put it here: laid out anew, it stays. */
  byHand?: true;
}
/** Ids of ports on the left and on the right of a part, from its top down. */
export interface PortSides {
  west: Id[];
  east: Id[];
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
  duty?: DutyStep[];
  limits: Limits;
  serviceAllowanceM: number;
  /** What ports and hoses end in, by part, tank or run, then by port; of a run by 'from' and 'to'. Absent is not known. */
  ends?: Record<Id, Record<Id, End>>;
  passages?: Passage[];
  tankLines?: TankLine[];
  /** Tanks that come down for the work. */
  tanksDown?: Id[];
  covers?: Cover[];
  /** Parts and hoses that are ordered and have not come. */
  awaited?: Id[];
  /** Of what is awaited, by its id. */
  deliveries?: Record<Id, Delivery>;
  /** By joint: the port of a part or tank that it is at, as `part.port`. */
  jointLooks?: Record<string, JointLook>;
  chains?: Record<string, ChosenChain>;
  boards?: Board[];
  /** Which parts hang on a board; where they hang is their own position: the middle of their body. */
  mounted?: Record<Id, Mounted>;
  /** Where tanks, parts and engines stand on the drawing; laid out fresh where it is absent. */
  places?: Record<Id, Cell>;
  /** Which side of a part its ports are drawn on, by part. */
  sides?: Record<Id, PortSides>;
}

export interface Site {
  altitudeM: number;
  ambientLowC: number;
  ambientHighC: number;
  /** Most pitch and roll it must feed at. Default by kind of job, assumed. */
  envelope?: { pitchDeg: number; rollDeg: number };
  /** Most it is thrown about, in g: what straps and fixings must hold. */
  accelerationG?: number;
  /** Electric supply: running volts, and the most a regulator gives in short peaks. */
  supply?: { volts: number; regulatorPeakW?: number };
  given?: GivenByField;
}

/** Both nought: it is not asked for. */
export interface ServiceInterval {
  months?: number;
  hours?: number;
  basis: "common" | "maker" | "own";
  /** Of an item of the shop's own. */
  name?: string;
}

export interface HandOver {
  vessel?: string;
  engine?: string;
  owner?: string;
  fitter?: string;
  signedBy?: string;
  /** Day, as YYYY-MM-DD. */
  on?: string;
}

/** A few sizes of what the system stands in, for drawing alone; what is not there is worked out round the parts. */
export interface Outline {
  form?: "hull" | "truck" | "van" | "none";
  lengthM?: number;
  widthM?: number;
  /** Of a hull from its foot to the rail at the bow; of a truck or van over the ground. */
  heightM?: number;
  /** Its foremost point. */
  frontXM?: number;
  /** Height of the ground, or of a hull's foot. */
  groundZM?: number;
  /** Of a hull: how deep it floats. */
  draughtM?: number;
  wheelbaseM?: number;
}

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
  /** Whom it is handed to, by whom and when: printed, asked nowhere else. */
  handOver?: HandOver;
  /** Intervals of service by what is due, or by its kind, and items of the shop's own, whose ids begin with `own:`. */
  service?: Record<string, ServiceInterval>;
  /** What the pan that catches fuel holds. */
  panM3?: number;
  outline?: Outline;
  /** The user's own price of a line to buy, each or a metre, by its key; in whatever money. */
  prices?: Record<string, number>;
}
