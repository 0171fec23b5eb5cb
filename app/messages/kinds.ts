/** Words of every kind of part: its name, what its figures are called, how it is found. */

import { isConsumerKind, isLetIn } from "~/core/kinds/families";
import type { Field, Own, UnitKey } from "~/core/kinds/fields";
import { kinds, type Part, type PartKind, type PartOf } from "~/core/kinds/index";
import type { PartLine } from "~/core/parts/partsList";
import type { NewPartKind } from "~/core/plan/blank";
import type { UnitChoice } from "~/core/units/format";
import { fieldText, gaugeUnit, panUnit, tradeIn, vacuumUnit, wireUnit } from "~/core/units/trade";

type Choice<T extends string> = { label: string; options: Record<T, string> };
type WordsOf<T> = [T] extends [number | boolean]
  ? string
  : [T] extends [string]
    ? Choice<T>
    : [T] extends [readonly unknown[] | { kind: string }]
      ? never
      : [T] extends [object]
        ? { label: string; fields: FieldWords<T> }
        : never;
/** A label for every figure, switch, choice and group of a record: one that is missing does not compile. */
type FieldWords<R> = {
  [K in keyof R as null extends R[K]
    ? never
    : [WordsOf<NonNullable<R[K]>>] extends [never]
      ? never
      : K]-?: WordsOf<NonNullable<R[K]>>;
};

interface KindWords<P extends Part> {
  /** In a sentence. */
  name: string;
  /** In the list of what can be added, where it is called otherwise. */
  adds?: string;
  fields: FieldWords<Own<P>>;
}

const rated = { ratedFlowM3S: "Rated flow", ratedDropPa: "Drop at rated flow" };
const suction = { suctionLimitPa: "Suction limit, maker's", mostSuctionPa: "Most it can draw" };
const circuit = {
  label: "Its circuit",
  fields: {
    runA: "Runs at",
    peakA: "Peak",
    wireLengthM: "Wire there and back",
    wireAreaM2: "Copper",
    fuseA: "Fuse",
    triggerA: "Rating of what switches it",
    hasRelay: "Over a relay, with a fused supply of its own",
  },
};
const dry = {
  label: "On air, for bleeding",
  fields: { liftM: "Lifts so high when dry, maker's", mostS: "May run dry for, maker's" },
};
const pump = { reliefPa: "Relief opens at", ...suction, circuit, dry };
const filter = {
  ...rated,
  micron: "Micron",
  changeLoading: "Changed at (clean is 1)",
  volumeM3: "Holds",
  sensorHeldM3: "Water before its sensor warns",
  ratedDynamicPaS: "Viscosity it was rated with",
  ratedDensityKgM3: "Density it was rated with",
  viscousShare: "Share of its drop that goes with viscosity",
  bowl: "A bowl hangs under its element",
  turns: "Turns after its seal touches",
  housing: {
    label: "Its element",
    options: { spinOn: "is spun off from below", lid: "is lifted out under a lid" },
  },
  head: {
    label: "Its head, for bleeding",
    fields: { share: "Room over its outlet, of its height", hasScrew: "Bleed screw in its lid" },
  },
  second: {
    label: "Second medium behind it",
    fields: { micron: "Its micron", ratedFlowM3S: "Its rated flow", ratedDropPa: "Its drop at that" },
  },
};
const opensBy = { setPa: "Set at", droopPa: "Over that at rated flow", ratedFlowM3S: "Rated flow" };
const burning = {
  powerW: "Power",
  suctionLimitPa: "Suction limit, maker's",
  leastFeedPa: "Least feed pressure",
  mostFeedPa: "Most feed pressure",
  galleryM3: "Its gallery holds",
  galleryOpensPa: "Its gallery overflows at",
  returnC: "Return leaves at",
  fuelLubricated: "Its pump is lubricated by fuel alone",
  noReturn: "No return: it burns all it is fed",
  metersItself: "It meters for itself: a pot burner with a regulator",
  circuit,
  heater: {
    label: "How it stands",
    fields: {
      hasCoAlarm: "Carbon monoxide alarm in the space",
      exhaustBendDeg: "Bends of its exhaust, in all",
      exhaustFalls: "Exhaust falls to its end",
      drainAtLowest: "Silencer drains at its lowest point",
      outletClear: "Exhaust away from intake, doors and windows",
      airFacesRear: "Combustion air is clean and faces rearward",
      airWayClear: "Warm air in and out is clear",
      clearanceM: "Clearance round it",
      switchCutsRunDown: "Its switch can cut the run-down",
      leastV: "Least supply",
      mostV: "Most supply",
    },
  },
};

const words: { [K in PartKind]: KindWords<PartOf<K>> } = {
  twoWay: { name: "two-way valve", fields: {} },
  selector: {
    name: "selector valve",

    fields: { ways: "Ways", makesBeforeBreaks: "Joins the next way before it leaves the last" },
  },
  bank: { name: "manifold bank", fields: {} },
  tee: { name: "tee", fields: {} },
  check: { name: "check valve", fields: { crackingPa: "Opens at" } },
  antiSiphon: { name: "anti-siphon valve", fields: { crackingPa: "Opens at" } },
  strainer: {
    name: "strainer",

    fields: { ...rated, micron: "Micron", volumeM3: "Holds" },
  },
  filter: {
    name: "filter",
    adds: "Filter or separator",

    fields: {
      ...filter,
      medium: { label: "It is", options: { separator: "water separator", secondary: "secondary filter" } },
      isTwin: "Two of each port on its head",
      sparePorts: {
        label: "Spare ports of its head",
        fields: { count: "How many", plugged: "All of them plugged" },
      },
    },
  },
  pumpFilterUnit: {
    name: "pump and filter unit",

    fields: { ...filter, ...pump, reliefPa: "Relief opens at" },
  },
  block: {
    name: "block",

    fields: {
      carriesOn: {
        label: "What it leads on of the filter it replaces",
        fields: {
          heater: "Its heater",
          waterSensor: "Its water sensor",
          pressureSensor: "Its pressure or temperature sensor",
          returnWay: "Its return",
        },
      },
    },
  },
  waterSensor: { name: "water sensor", fields: { heldM3: "Water before it warns" } },
  liftPump: { name: "lift pump", fields: pump },
  inTankPump: { name: "in-tank pump", fields: pump },
  primingPump: {
    name: "priming pump",
    adds: "Priming pump with bypass",

    fields: pump,
  },
  transferPump: { name: "transfer pump", fields: pump },
  dosingPump: {
    name: "dosing pump",

    fields: {
      strokeM3: "A stroke gives",
      mostHz: "Most strokes a second",
      strokeS: "A stroke takes",
      mostRisePa: "Most lift of pressure",
      tiltDeg: "Slope, outlet up",
      mostBeforeM: "Most line before it",
      mostAfterM: "Most line after it",
      mostLiftM: "Most lift",
      ...suction,
      rubberMounted: "Hung in rubber",
      circuit,
      dry,
    },
  },
  bulb: {
    name: "primer bulb",

    fields: {
      ...rated,
      crackingPa: "Opens at",
      strokeM3: "A squeeze gives",
      forDiesel: "Rated for diesel",
    },
  },
  jetPump: {
    name: "jet pump",

    fields: { nozzleM: "Nozzle", throatM: "Throat" },
  },
  swirlPot: { name: "swirl pot", fields: { volumeM3: "Holds" } },
  regulator: {
    name: "pressure regulator",

    fields: {
      holds: {
        label: "Holds the pressure",
        options: { before: "before it, spilling", after: "after it, throttling" },
      },
      ...opensBy,
    },
  },
  relief: { name: "relief valve", fields: opensBy },
  cooler: {
    name: "fuel cooler",

    fields: { ...rated, effectiveness: "Effectiveness", coolantC: "Coolant at" },
  },
  fuelHeater: {
    name: "fuel heater",

    fields: { ...rated, powerW: "Power", circuit },
  },
  flowMeter: { name: "flow meter", fields: rated },
  gauge: {
    name: "gauge",
    adds: "Vacuum gauge",

    fields: {
      measures: { label: "It reads", options: { vacuum: "vacuum", pressure: "pressure" } },
      changeAtPa: "Change the element at",
    },
  },
  thermometer: { name: "thermometer", fields: {} },
  samplingTap: { name: "sampling tap", fields: {} },
  bleedScrew: { name: "bleed screw", fields: {} },
  bulkhead: {
    name: "bulkhead fitting",

    fields: { wallM: "Wall it passes", reachM: "Wall it is long enough for" },
  },
  breatherValve: {
    name: "breather valve",

    fields: { opensInPa: "Lets air in at a vacuum of", opensOutPa: "Lets air out at" },
  },
  engine: { name: "engine", fields: burning },
  generator: { name: "generator", fields: burning },
  heater: { name: "heater", fields: burning },
};

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

export const partKindName = (kind: PartKind | "tank"): string => (kind === "tank" ? kind : words[kind].name);

/** Kinds of part that can be added to a plan, in the order of the flow. */
export const newPartKinds = (Object.keys(kinds) as PartKind[])
  .filter((kind): kind is NewPartKind => !isConsumerKind(kind))
  .map((id) => {
    const { name, adds = capital(name) } = words[id];
    return { id, name: adds };
  });

/** Those that can be let into a hose, or put in the place of another. */
export const letInKinds = newPartKinds.filter(({ id }) => isLetIn(id));

interface AnyWords {
  label: string;
  options?: Record<string, string>;
  fields?: Record<string, string>;
}

/** What a field of a part is called, by its path: `circuit.fuseA`. */
export function fieldLabel(kind: PartKind, path: string): string {
  const [top = "", inner] = path.split(".");
  const said = (words[kind].fields as Record<string, string | AnyWords>)[top];
  if (said === undefined) return "";
  if (typeof said === "string") return said;
  return inner === undefined ? said.label : (said.fields?.[inner] ?? "");
}

/** The options of a choice, named. */
export function optionNames(kind: PartKind, key: string): { id: string; name: string }[] {
  const said = (words[kind].fields as Record<string, string | AnyWords>)[key];
  if (said === undefined || typeof said === "string") return [];
  return Object.entries(said.options ?? {}).map(([id, name]) => ({ id, name }));
}

/** The unit that a figure is shown in. */
export function unitOf(key: UnitKey, units: UnitChoice): string {
  switch (key) {
    case "gauge":
      return gaugeUnit(units, 1);
    case "vacuum":
      return vacuumUnit(units);
    case "pan":
      return panUnit(units);
    case "wire":
      return wireUnit(units);
    case "ratio":
      return "";
    default:
      return key in units ? units[key as keyof UnitChoice] : key;
  }
}

/** What tells a line of the parts list from others of its kind: 'water separator, micron 10, rated flow 227 L/h'. */
export function detailText({ kind, detail }: PartLine, units: UnitChoice): string {
  const fields = kinds[kind].fields as Readonly<Record<string, Field>>;
  return Object.entries(detail)
    .map(([key, value]) => {
      if (key === "freeFlowM3S") return `${tradeIn(units).flow(Number(value))} free`;
      if (key === "ways") return `${value} ways`;
      const field = fields[key];
      if (field?.form === "choice")
        return optionNames(kind, key).find(({ id }) => id === value)?.name ?? String(value);
      if (field?.form === "switch") return fieldLabel(kind, key).toLowerCase();
      if (field?.form !== "quantity") return String(value);
      const said = fieldText(field.dimension, Number(value), unitOf(field.unit, units));
      return `${fieldLabel(kind, key).toLowerCase()} ${said}`;
    })
    .join(", ");
}
