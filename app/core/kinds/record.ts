/** What every record of a job is made of: ids, where a figure comes from, places. */

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

export interface Recorded {
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

/** Across, up and out of the wall that it hangs on. */
export interface BodySize {
  widthM: number;
  heightM: number;
  depthM: number;
}

/** A circuit that ends in a part: its sensor, heater, motor. */
export interface Plug {
  id: Id;
  name: string;
}

/** What every part of a plan has, whatever its kind. */
export interface PartBase extends Recorded {
  position: Position;
  /** Bore of the ports and the way through, unless a port has its own. */
  boreM: number;
  /** Where a port differs from its part: its place, its bore, what it is called. */
  ports?: Record<string, { offset?: Position; boreM?: number; name?: string }>;
  /** Hung or joined for the time being: to be done properly before hand-over. */
  provisional?: boolean;
  /** How it is known which way fuel goes through it. Default: its arrow. */
  flowBasis?: "arrow" | "maker" | "outerSide" | "guess";
  /** Its body as it was measured, standing as it is built to stand. Default: generic by kind. */
  size?: BodySize;
  /** The maker's sheet that its figures are from, and where it is kept. */
  sheet?: string;
  /** Made in the shop, and whether it was proof tested. */
  shopMade?: { tested: boolean };
  /** What is plugged into it. Default: one for what is powered and one for a water sensor. */
  plugs?: Plug[];
}
