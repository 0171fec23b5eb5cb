/** How large each kind of part is drawn, where hoses meet it and where its name stands. Lengths in px of the drawing. */
import type { Filtering } from "../kinds/families";
import type { Part, PartKind, PartOf } from "../kinds/index";

export interface BodySize<P extends Part = Part> {
  width: number;
  height: number;
  /** The middle of its ports, from its top. */
  portY: number;
  /** Do its ports stand over one another where a side has several? Else it has one on each side. */
  pitch: number | null;
  /** Several of a side hang from the middle down, and do not stand round it. */
  hangs?: boolean;
  /** From its top to the foot of its name's first line at natural size; null where it is named otherwise. */
  nameY: number | null;
  /** The longest that is ever set under its name. */
  longest?(part: P): string;
}

/** Room for a manifold's name over its rail. */
export const BANK_HEAD_PX = 38;
/** Between two ports of one side: wide enough for a finger each. */
const PITCH_PX = 24;
const BRANCH_PITCH_PX = 48;

const inline: BodySize = { width: 48, height: 76, portY: 16, pitch: null, nameY: 46 };
const wide: BodySize = { ...inline, width: 60 };
const pump: BodySize = {
  width: 72,
  height: 96,
  portY: 22,
  pitch: null,
  nameY: 60,
  longest: () => "+0 kPa",
};
const filtering: BodySize<Filtering> = {
  width: 72,
  height: 140,
  portY: 16,
  pitch: PITCH_PX,
  nameY: 92,
  longest: ({ micron }) => `${micron}\u00a0µm, stand-by`,
};
const consumer: BodySize = { width: 132, height: 128, portY: 64, pitch: 72, nameY: null };

const bodies: { [K in PartKind]: BodySize<PartOf<K>> } = {
  antiSiphon: inline,
  bleedScrew: inline,
  block: inline,
  bulkhead: inline,
  check: { ...inline, nameY: 44 },
  flowMeter: inline,
  regulator: inline,
  relief: inline,
  samplingTap: inline,
  strainer: inline,
  thermometer: inline,
  waterSensor: inline,
  breatherValve: inline,
  bulb: wide,
  cooler: wide,
  fuelHeater: wide,
  liftPump: pump,
  transferPump: pump,
  primingPump: pump,
  inTankPump: pump,
  dosingPump: { ...pump, height: 84 },
  filter: { ...filtering, hangs: true },
  pumpFilterUnit: { ...filtering, width: 96 },
  gauge: { ...inline, width: 60, portY: 74, nameY: null },
  twoWay: { ...inline, height: 74, portY: 14, nameY: 40 },
  selector: {
    width: 60,
    height: 112,
    portY: 29,
    pitch: PITCH_PX,
    nameY: 70,
    longest: ({ positions }) =>
      positions.reduce((longest, { name }) => (name.length > longest.length ? name : longest), "not set"),
  },
  bank: { width: 60, height: 100, portY: BANK_HEAD_PX + 22, pitch: BRANCH_PITCH_PX, nameY: null },
  tee: { width: 0, height: 0, portY: 0, pitch: 0, nameY: null },
  jetPump: { width: 72, height: 84, portY: 22, pitch: PITCH_PX, nameY: 56 },
  swirlPot: { width: 72, height: 116, portY: 38, pitch: PITCH_PX, nameY: 88 },
  engine: consumer,
  generator: consumer,
  heater: { ...consumer, height: 104, portY: 40, pitch: null },
};

export const bodyOf = (part: Part): BodySize => bodies[part.kind] as unknown as BodySize;
