/** What can be added to a plan, with the words that the trade seeks it by. */
import type { Thing } from "~/core/edit/adding";
import type { NewPartKind } from "~/core/plan/blank";
import { newPartKinds } from "./kinds";

export interface Addable {
  id: string;
  name: string;
  /** Other words for it. */
  words: string;
  thing: Thing;
}

/** Common words of the trade for what is called otherwise here. */
const words: Partial<Record<NewPartKind, string>> = {
  twoWay: "shut-off stop cock ball lever tap isolator",
  selector: "three-way diverter changeover",
  bank: "manifold distribution rail valve block",
  tee: "branch T piece junction",
  check: "non-return one-way",
  antiSiphon: "siphon break anti-siphon",
  filter: "separator primary secondary fine water bowl element",
  strainer: "pre-filter screen mesh gauze",
  pumpFilterUnit: "lift pump with filter, pump unit, frame pump",
  block: "filter delete bypass head plate",
  liftPump: "feed electric supply",
  primingPump: "hand primer",
  transferPump: "fill day tank polishing",
  inTankPump: "sump module submerged",
  dosingPump: "heater metering pulse",
  bulb: "primer squeeze outboard hand",
  jetPump: "venturi eductor",
  swirlPot: "surge collector catch",
  gauge: "vacuum pressure manometer tee",
  flowMeter: "consumption flowmeter",
  cooler: "return cooler heat exchanger",
  fuelHeater: "winter warm",
  thermometer: "temperature sender",
  samplingTap: "drain sample",
  bleedScrew: "vent nipple air",
  bulkhead: "through wall fitting",
  breatherValve: "vent tank breather",
  regulator: "pressure spill",
  relief: "safety overpressure",
  waterSensor: "water in fuel alarm probe",
};

/** Everything, what is added most first. */
export const addables: readonly Addable[] = [
  ...newPartKinds.map(
    ({ id, name }): Addable => ({ id, name, words: words[id] ?? "", thing: { kind: "part", part: id } }),
  ),
  {
    id: "duplex",
    name: "Duplex pair of filters",
    words: "twin separators stand-by changeover two filters",
    thing: { kind: "group", group: "duplex" },
  },
  {
    id: "pumpWithBypass",
    name: "Lift pump with bypass",
    words: "check valve round the pump priming",
    thing: { kind: "group", group: "pumpWithBypass" },
  },
  {
    id: "teeWithTap",
    name: "Tee with a shut-off",
    words: "branch heater take-off tap",
    thing: { kind: "group", group: "teeWithTap" },
  },
  { id: "tank", name: "Tank", words: "main wing saddle sump keel", thing: { kind: "tank", name: "" } },
  {
    id: "dayTank",
    name: "Day tank",
    words: "header gravity auxiliary",
    thing: { kind: "tank", name: "Day tank" },
  },
  {
    id: "engine",
    name: "Engine",
    words: "motor main outboard",
    thing: { kind: "consumer", consumer: "engine" },
  },
  {
    id: "generator",
    name: "Generator",
    words: "genset auxiliary",
    thing: { kind: "consumer", consumer: "generator" },
  },
  {
    id: "heater",
    name: "Heater",
    words: "air heater cooker stove",
    thing: { kind: "consumer", consumer: "heater" },
  },
];
