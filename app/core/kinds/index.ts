/** Every kind of part, once: the union of their records and the table of their descriptors. */
import { type AntiSiphonValve, antiSiphon } from "./antiSiphon";
import { bank, type ManifoldBank } from "./bank";
import { type BleedScrew, bleedScrew } from "./bleedScrew";
import { type Block, block } from "./block";
import { type BreatherValve, breatherValve } from "./breatherValve";
import { type Bulb, bulb } from "./bulb";
import { type Bulkhead, bulkhead } from "./bulkhead";
import { type CheckValve, check } from "./check";
import { type Cooler, cooler } from "./cooler";
import { type DosingPump, dosingPump } from "./dosingPump";
import { type EnginePart, engine } from "./engine";
import { type Filter, filter } from "./filter";
import { type FlowMeter, flowMeter } from "./flowMeter";
import { type FuelHeater, fuelHeater } from "./fuelHeater";
import { type Gauge, gauge } from "./gauge";
import { type GeneratorPart, generator } from "./generator";
import { type HeaterPart, heater } from "./heater";
import { type InTankPump, inTankPump } from "./inTankPump";
import { type JetPump, jetPump } from "./jetPump";
import type { Kind } from "./kind";
import { type LiftPump, liftPump } from "./liftPump";
import { type PrimingPump, primingPump } from "./primingPump";
import { type PumpFilterUnit, pumpFilterUnit } from "./pumpFilterUnit";
import { type Regulator, regulator } from "./regulator";
import { type ReliefValve, relief } from "./relief";
import { type SamplingTap, samplingTap } from "./samplingTap";
import { type SelectorValve, selector } from "./selector";
import { type Strainer, strainer } from "./strainer";
import { type SwirlPot, swirlPot } from "./swirlPot";
import { type Tee, tee } from "./tee";
import { type Thermometer, thermometer } from "./thermometer";
import { type TransferPump, transferPump } from "./transferPump";
import { type TwoWayValve, twoWay } from "./twoWay";
import { type WaterSensor, waterSensor } from "./waterSensor";

export type PlanPart =
  | TwoWayValve
  | SelectorValve
  | ManifoldBank
  | Tee
  | CheckValve
  | AntiSiphonValve
  | Strainer
  | Filter
  | PumpFilterUnit
  | Block
  | WaterSensor
  | LiftPump
  | InTankPump
  | PrimingPump
  | TransferPump
  | DosingPump
  | Bulb
  | JetPump
  | SwirlPot
  | Regulator
  | ReliefValve
  | Cooler
  | FuelHeater
  | FlowMeter
  | Gauge
  | SamplingTap
  | Thermometer
  | BleedScrew
  | Bulkhead
  | BreatherValve;
/** What burns fuel. */
export type Engine = EnginePart | GeneratorPart | HeaterPart;
export type Part = PlanPart | Engine;
export type PartKind = Part["kind"];
export type PartOf<K extends PartKind> = Extract<Part, { kind: K }>;

/** In the order of the flow: what shuts, what cleans, what pushes, what holds, what tells; then what burns. */
export const kinds = {
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
  thermometer,
  bleedScrew,
  bulkhead,
  breatherValve,
  engine,
  generator,
  heater,
} satisfies { [K in PartKind]: Kind<PartOf<K>> };

export const partKinds = Object.keys(kinds) as PartKind[];

/** The descriptor of a part's kind, for that part. */
export const kindOf = (part: Part): Kind<Part> => kinds[part.kind] as unknown as Kind<Part>;
