/** The drawing of every kind of part, once. */
import type { Part, PartKind, PartOf } from "~/core/kinds/index";
import { engine, generator, heater } from "./consumers";
import type { Drawing } from "./drawing";
import { filter, pumpFilterUnit } from "./filters";
import { gauge } from "./gauge";
import {
  antiSiphon,
  bleedScrew,
  block,
  bulb,
  bulkhead,
  check,
  cooler,
  flowMeter,
  fuelHeater,
  regulator,
  relief,
  samplingTap,
  strainer,
  waterSensor,
} from "./inline";
import { dosingPump, inTankPump, liftPump, primingPump, transferPump } from "./pumps";
import { bank, selector, tee, twoWay } from "./valves";
import { breatherValve, jetPump, swirlPot } from "./vessels";

const drawings = {
  twoWay,
  selector,
  bank,
  tee,
  check,
  antiSiphon,
  strainer,
  filter,
  pumpFilterUnit,
  block,
  waterSensor,
  liftPump,
  inTankPump,
  primingPump,
  transferPump,
  dosingPump,
  bulb,
  jetPump,
  swirlPot,
  regulator,
  relief,
  cooler,
  fuelHeater,
  flowMeter,
  gauge,
  samplingTap,
  bleedScrew,
  bulkhead,
  breatherValve,
  engine,
  generator,
  heater,
} satisfies { [K in PartKind]: Drawing<PartOf<K>> };

/** The drawing of a part's kind, for that part. */
export const drawingOf = (part: Part): Drawing<Part> => drawings[part.kind] as unknown as Drawing<Part>;
