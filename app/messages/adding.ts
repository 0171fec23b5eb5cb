/** What can be added to a plan, with the words that the trade seeks it by. */
import type { Group, Thing } from "~/core/edit/adding";
import type { Engine } from "~/core/kinds/index";
import type { NewPartKind } from "~/core/plan/blank";
import type { WayOfHose } from "~/core/plan/joining";
import type { Fitting } from "~/core/tanks/fitting";
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

/** What a hose to a port would be. */
export const wayNames: Record<WayOfHose, string> = {
  feed: "Feeds",
  return: "Returns",
  either: "Either way",
};

export const fittingNames: Record<Fitting, string> = {
  tube: "Pickup tube from the top",
  standpipe: "Standpipe, above a reserve",
  side: "Side outlet",
  sump: "Sump with its outlet",
  stripping: "Stripping tube, to the lowest point",
  return: "Return",
};
/** What a tank is given is sought by these too. */
export const fittingWords: Record<Fitting, string> = {
  tube: "dip tube suction draw outlet top",
  standpipe: "heater take-off reserve outlet",
  side: "spigot tapping gravity outlet low",
  sump: "drain well water trap bottom outlet",
  stripping: "water sludge drain dip tube outlet",
  return: "spill back in",
};

const grouped = (group: Group, name: string, sought: string): Addable => ({
  id: group,
  name,
  words: sought,
  thing: { kind: "group", group },
});
const burning = (consumer: Engine["kind"], name: string, sought: string): Addable => ({
  id: consumer,
  name,
  words: sought,
  thing: { kind: "consumer", consumer },
});
const tank = (id: string, name: string, called: string, sought: string): Addable => ({
  id,
  name,
  words: sought,
  thing: { kind: "tank", name: called },
});

/** Everything, what is added most first; a tank without a name is numbered. */
export const addables: readonly Addable[] = [
  ...newPartKinds.map(
    ({ id, name }): Addable => ({ id, name, words: words[id] ?? "", thing: { kind: "part", part: id } }),
  ),
  grouped("duplex", "Duplex pair of filters", "twin separators stand-by changeover two filters"),
  grouped("twinPort", "Twin-port separator", "outboard spin-on dual two in two out water filter head"),
  grouped("pumpWithBypass", "Lift pump with bypass", "check valve round the pump priming"),
  grouped("teeWithTap", "Tee with a shut-off", "branch heater take-off tap"),
  tank("tank", "Tank", "", "main wing saddle sump keel"),
  tank("dayTank", "Day tank", "Day tank", "header gravity auxiliary"),
  burning("engine", "Engine", "motor main outboard"),
  burning("generator", "Generator", "genset auxiliary"),
  burning("heater", "Heater", "air heater cooker stove"),
];
