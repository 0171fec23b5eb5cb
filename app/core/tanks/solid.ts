/**
 * What every solid of a tank answers: how much of it lies under a tilted free surface, and where.
 *
 * A surface is the plane up . p = offset, `up` the true vertical in the tank's axes. A solid that has been tilted
 * keeps what the attitude fixes, so that many surfaces at one attitude cost little.
 */
import type { Up } from "./attitude";

export interface VolumeBelow {
  volumeM3: number;
  /** Growth of volume per metre that the surface rises along the vertical: the free surface's area, m2. */
  surfaceM2: number;
}

/** Sums over the part under the surface; the moments are of volume about the tank's origin. */
export interface Below extends VolumeBelow {
  xM4: number;
  yM4: number;
  zM4: number;
  /** Wall under the surface, m2, ends included. */
  wettedM2: number;
}

export const nothingBelow = (): Below => ({
  volumeM3: 0,
  xM4: 0,
  yM4: 0,
  zM4: 0,
  surfaceM2: 0,
  wettedM2: 0,
});

export interface Tilted {
  /** Lowest and highest offset: the solid's extremes along the vertical. */
  readonly low: number;
  readonly high: number;
  /** Adds to `into` what lies under the surface, `sign` times (-1 for what displaces fuel). */
  addBelow(offset: number, sign: 1 | -1, into: Below): void;
  /** The same for volume and surface alone, where that is quicker. */
  addVolume?(offset: number, sign: 1 | -1, into: Below): void;
}

export interface Solid {
  tilt(up: Up): Tilted;
}
