import type { End } from "../ends/ends";
import type { Fuel } from "../fuel/fuel";
import type { Engine, PlanPart } from "../kinds/index";
import type { GivenByField, Id, Position, Recorded } from "../kinds/record";
import type { UnitChoice } from "../units/format";

export type SectionPoint = [yM: number, zM: number];

export type TankShape =
  | { kind: "box"; lengthM: number; widthM: number; heightM: number }
  | { kind: "prism"; section: SectionPoint[]; lengthM: number }
  /** From the origin along its axis; lying it touches z = 0, standing it stands on it, in the square 0 to its diameter. */
  | { kind: "cylinder"; diameterM: number; lengthM: number; axis: "x" | "y" | "z"; endDepthM?: number }
  /** Polygons with the same number of corners; between two sections each corner runs along a straight line. */
  | { kind: "loft"; sections: LoftSection[] };

export interface LoftSection {
  xM: number;
  polygon: SectionPoint[];
}

/** A box inside the tank that takes room from the fuel. Tank frame. */
export interface Internal {
  id: Id;
  name: string;
  low: Position;
  high: Position;
}

/** A plate across the tank at a place along x, or along it at a place in y; fuel passes its holes. */
export interface Baffle {
  id: Id;
  across: "x" | "y";
  atM: number;
}

/** A box open at the top round the pickup, with holes at its foot. */
export interface Well {
  low: Position;
  high: Position;
  holeBoreM: number;
  holes: number;
}

/** A round pot hung under the floor: what is cut, and how far it hangs. */
export interface Sump {
  xM: number;
  yM: number;
  diameterM: number;
  depthM: number;
  holeM: number;
  /** Largest hole that the maker's flange covers. */
  mostHoleM?: number;
  /** From the ground to the tank's floor. */
  floorOverGroundM?: number;
}

/** Sender: the reading at its ends of travel, and the depths they stand at over the sounding point. */
export interface Sender {
  kind: "ohm240to33" | "ohm10to180" | "ohm0to90" | "volt0to5" | "own";
  emptyReading: number;
  fullReading: number;
  lowM: number;
  highM: number;
}

/** What lets fuel in and air out. */
export interface Filling {
  fillBoreM: number;
  fillHoseBoreM: number;
  ventBoreM: number;
  ventLengthM: number;
  /** Highest point of the vent line, and the lip of the fill over which fuel would spill. Tank frame. */
  ventTop: Position;
  spill: Position;
  /** Absent until somebody has looked. */
  hasDip?: boolean;
  hasArrester?: boolean;
  /** Pressure the tank is rated for. */
  ratedPa: number;
}

/** How a pickup is cut and hung; the depth runs from the plate's face to the bottom. */
export interface PickupFit {
  portId: Id;
  mouth: "square" | "bevelled";
  depthM: number;
  /** How far the floor sinks when the tank is full and hung as in service. */
  sagM: number;
  /** How far an in-tank unit's carrier is pressed together. */
  carrierM: number;
  /** The depth was taken on the free unit, its carrier not pressed, or as it is fitted. Default: free where one is pressed. */
  taken?: "free" | "fitted";
  clearanceM: number;
}

export type HoleUse = "sender" | "pickup" | "return" | "vent" | "spare" | "sampling";

/** A hole in the tank's plate; measured from the plate's two datum edges, seen from outside. */
export interface PlateHole {
  id: Id;
  use: HoleUse;
  /** The pickup or return that goes through it: hole and port then have one place. */
  portId?: Id;
  aM: number;
  bM: number;
  diameterM: number;
  /** Largest hole that the fitting's flange covers; the flange's own diameter. */
  mostM: number;
  flangeM: number;
  /** What hangs under it: reach of a float's swing about the hole, and length of the part. */
  swingM: number;
  partLengthM: number;
}

export interface Opening {
  aM: number;
  bM: number;
  /** Low corner of the plate over the tank's top, tank frame. */
  at: Position;
  holes: PlateHole[];
  roomAboveM: number;
  /** A cleaning opening that a sender's adapter has taken. */
  cleaningTaken?: boolean;
  warnedBy: "nothing" | "whistle" | "sightGlass" | "gauge";
}

export type Look = "sound" | "worn" | "bad";

/** What was found when it was looked at. */
export interface Condition {
  cleanedFirst: boolean;
  seams: Look | "unseen";
  feet: Look | "unseen";
  fittings: Look | "unseen";
  drains: "drains" | "holdsWater" | "foam" | "unseen";
  testedPa?: number;
  testHeld?: boolean;
}

/** `mouth` is where fuel enters or leaves inside the tank, `outside` where the hose goes on. Tank frame. */
export interface TankPort {
  id: Id;
  name: string;
  role: "outlet" | "return";
  /** What it is made as. Default: a tube from the top. */
  fitting?: "tube" | "standpipe" | "sump" | "side";
  mouth: Position;
  outside: Position;
  boreM: number;
}

export interface Tank extends Recorded {
  origin: Position;
  yawDeg: number;
  shape: TankShape;
  ports: TankPort[];
  /** Set where the sizes were taken outside: the thickness of the wall that they include. */
  wallM?: number;
  carried?: "fixed" | "portable" | "bladder";
  /** Whether it is a heater's own, and not the vehicle's; asked where a heater draws from it. */
  heatersOwn?: boolean;
  material?: "aluminium" | "steel" | "stainless" | "plastic" | "rubber";
  emptyKg?: number;
  /** What it is to be dropped with. */
  droppedBy?: "hands" | "twoPeople" | "cradleAndJack";
  /** Capacity on its plate. */
  plateM3?: number;
  internals?: Internal[];
  baffles?: Baffle[];
  well?: Well;
  sump?: Sump;
  /** Where it is sounded. Default: the middle. */
  sounding?: { xM: number; yM: number };
  sender?: Sender;
  filling?: Filling;
  pickupFit?: PickupFit;
  cooler?: { effectiveness: number; coolantC: number };
  opening?: Opening;
  condition?: Condition;
  /** How it stands as fitted, against the vehicle. */
  installed?: { pitchDeg: number; rollDeg: number };
}

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
  /** Its bends are of one radius, to the centre line of the hose. */
  | { kind: "traced"; points: Position[]; radiusM: number };

export interface HoseProduct {
  marking: string;
  outerDiameterM: number;
  /** Least radius as on its sheet, to the inside of the bend. */
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
  survey?: HoseSurvey;
  neighbours?: Neighbour[];
  /** Distance between its supports. */
  supportEveryM?: number;
  /** Mark on it: from which tank, to which part. */
  mark?: string;
  /** Metal or rigid tube, or hose. Default: hose. */
  make?: "hose" | "rigid";
  provisional?: boolean;
  given?: GivenByField;
}

/** Something near a run, by its distance from the start and its least distance from it. */
export interface Neighbour {
  id: Id;
  kind: "hot" | "moving" | "sharp" | "line" | "battery";
  name: string;
  atM: number;
  apartM: number;
  /** Shielded, tied together or through a grommet. */
  guarded: boolean;
}

/** What is printed on a hose found on board, and how it looks and feels. */
export interface HoseSurvey {
  printed: string;
  place: "engineRoom" | "outside";
  feel: "sound" | "stiff" | "soft" | "oily" | "cracked";
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

/** Something on a board, or before it, that is no part of the plan; seen from the front, from its low left corner. */
export interface BoardObstacle {
  id: Id;
  name: string;
  xM: number;
  zM: number;
  widthM: number;
  heightM: number;
  /** From the board out. */
  fromM: number;
  toM: number;
}

/** A hole that hoses, pipes or wires pass, and where it is cut. */
export interface Passage {
  id: Id;
  name: string;
  through: "floor" | "bulkhead" | "stringer" | "board" | "body";
  made: "wood" | "cored" | "metal" | "plastic";
  wallM: number;
  /** Hoses and tubes that pass it. */
  runs: Id[];
  /** Something else that passes it, such as wires; over all. */
  alsoM?: number;
  /** Wall of the grommet or sleeve in it; none where it is absent. */
  grommetM?: number;
  /** Length of the sleeve. */
  sleeveM?: number;
  /** Its middle from two edges that can be reached from both sides. */
  fromEdgeM?: [number, number];
  /** What lies behind it. Absent until somebody has looked. */
  behind?: "free" | "chassis" | "stringer" | "tank" | "wires";
}

export type Facing = "forward" | "aft" | "port" | "starboard";

/** A board that parts hang on. Seen from the front: x to the right, z up, from its low left corner. */
export interface Board extends Recorded {
  /** Its low left corner in the vehicle, and which way its front looks. */
  corner: Position;
  facing: Facing;
  widthM: number;
  heightM: number;
  /** The hole that hands reach through, and how far out its lid is when it is shut. */
  opening: { xM: number; zM: number; widthM: number; heightM: number; lidM: number };
  /** How far hoses may run beyond its edge, behind the frame. */
  beyondM: number;
  obstacles: BoardObstacle[];
}

/** Quarter turns, anticlockwise seen from the front. */
export type QuarterTurn = 0 | 1 | 2 | 3;

export interface Mounted {
  boardId: Id;
  turn: QuarterTurn;
  pinned?: boolean;
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
  /** Parts and hoses that are ordered and have not come. */
  awaited?: Id[];
  boards?: Board[];
  /** Which parts hang on a board; where they hang is their own position: the middle of their body. */
  mounted?: Record<Id, Mounted>;
  /** Where the user nudged a part on the drawing, in drawing units from where it was laid. */
  nudges: Record<Id, { dx: number; dy: number }>;
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

export type AntiSiphonSchool = "abycH33" | "iso10088";

/** Where practice is divided; the first of each is the default. */
export const schoolChoices = {
  returnMouth: ["away", "jetOrSwirl"],
  liftPump: ["frame", "inTank"],
  priming: ["keyCycles", "relayJumper", "tankLifted", "loosenedOutlet"],
  waterSensor: ["firstBowl", "factoryFilter"],
  filterFill: ["finalDry", "primaryByHand", "bothByHand"],
  finest: ["afterPump", "beforePump", "allAfterPump"],
  factoryFilter: ["kept", "removed", "adapter"],
  takeOff: ["byKind", "drawStraw", "inTankModule", "bottomWithShutOff"],
  heaterFuel: ["ownTank", "vehicleAboveReserve", "vehicleAll"],
  primer: ["bulb", "electricBypass", "liftLever"],
  joints: ["flareAndBarb", "pushOnBarb", "pushToConnect"],
  torque: ["makers", "lowerBySixth"],
  dirtyTank: ["stripWipePolish", "polishOnly", "discard"],
  support: ["close", "wide"],
} as const;
export type SchoolMatter = keyof typeof schoolChoices;
export type SchoolChoice<M extends SchoolMatter> = (typeof schoolChoices)[M][number];

export type Schools = { shutOff: AntiSiphonSchool } & { [M in SchoolMatter]?: SchoolChoice<M> };

export const schoolOf = <M extends SchoolMatter>(schools: Schools, matter: M): SchoolChoice<M> =>
  (schools[matter] as SchoolChoice<M> | undefined) ?? (schoolChoices[matter][0] as SchoolChoice<M>);

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
}
