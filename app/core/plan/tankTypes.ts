/** A tank as it was surveyed: its shape, what stands in it, what goes through its plate, and how it was found. */
import type { Id, Position, Recorded } from "../kinds/record";

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

/** A connector and an earth strap are reached once the tank is a hand's breadth down; the others while it hangs. */
export interface Attachment {
  id: Id;
  kind: "strap" | "filler" | "vent" | "connector" | "earth" | "other";
  name: string;
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
  /** What is fast to it beside its hoses and its traced lines. */
  attachments?: Attachment[];
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
  /** The hatch or gap that it must pass to come out of the vehicle. */
  wayOut?: { widthM: number; heightM: number };
  condition?: Condition;
  /** How it stands as fitted, against the vehicle. */
  installed?: { pitchDeg: number; rollDeg: number };
}
