/** A run of hose or tube: its route, what it is made of, what lies near it, and what it passes. */
import type { GivenByField, Id, Position } from "../kinds/record";

export interface PortRef {
  part: Id;
  port: Id;
}

/** Colour of the band on a hose, and on its label; the words on it tell the same. */
export const markColours = ["yellow", "orange", "red", "violet", "blue", "green", "brown", "black"] as const;
export type MarkColour = (typeof markColours)[number];

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
  colour?: MarkColour;
  /** Kept in it for a part to come: what it is, and its length. */
  slack?: { name: string; lengthM: number };
  /** Metal or rigid tube, or hose. Default: hose. */
  make?: "hose" | "rigid";
  provisional?: boolean;
  given?: GivenByField;
}

/** What a tank is filled, vented or drained by. It feeds nothing, and lies, is clipped, cut and bought as a run is. */
export interface TankLine {
  id: Id;
  tank: Id;
  use: "fill" | "vent" | "drain";
  boreM: number;
  product: HoseProduct;
  /** From the tank's fitting to its outer end: the fill's lip, the vent's top, the drain's mouth. Job frame. */
  points: Position[];
  /** Of its bends, to the centre line. */
  radiusM: number;
  supportEveryM?: number;
  neighbours?: Neighbour[];
  mark?: string;
  colour?: MarkColour;
  make?: "hose" | "rigid";
  /** Two clamps at each end of its hose. Absent until somebody has looked. */
  isDoubleClamped?: boolean;
  survey?: HoseSurvey;
  /** By figure; `points` for its way, `outerDiameterM` and `leastRadiusM` for its hose. */
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

/** What a person has looked at of a joint; absent until somebody has. */
export interface JointLook {
  newWashers?: boolean;
  antiSeize?: boolean;
  /** Behind the bead or over the barb's ridges, clear of the hose's end. */
  clampPlaced?: boolean;
  /** A taper thread, tight, leaves handles and hoses where they can go. */
  clocked?: boolean;
  /** No hand or spanner gets there, to open it for a bleed. */
  outOfReach?: boolean;
}

/** Adapters chosen for a joint, from the plan's port on, what can leak of them, and the narrowest bore through them. */
export interface ChosenChain {
  parts: string[];
  leakPoints: number;
  boreM?: number;
}

/** Of something ordered: by whom it comes and when; what was wrong with it when it was checked in, and set apart. */
export interface Delivery {
  from?: string;
  due?: string;
  wrong?: string;
}

/** What is printed on a hose found on board, and how it looks and feels. */
export interface HoseSurvey {
  printed: string;
  place: "engineRoom" | "outside";
  feel: "sound" | "stiff" | "soft" | "oily" | "cracked";
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

/**
 * What must come away before the things behind it are reached. An engine that comes out, and a tank that comes down,
 * are windows of the same sort: `of` says which; the others are only opened.
 */
export type Cover = {
  id: Id;
  name: string;
  /** Parts, tanks, consumers and hoses behind it. */
  hides: Id[];
  /** How many can work behind it at once; one where it is absent. */
  bodies?: number;
} & ({ kind: "hatch" | "floor" | "panel" } | { kind: "engineOut" | "tankDown"; of: Id });
