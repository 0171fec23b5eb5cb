/** The fields of each kind of part, as data: what a maker's sheet gives or a tape tells. */
import type { PartKind } from "~/core/kinds/index";
import type { Dimension } from "~/core/units/factors";
import type { UnitChoice } from "~/core/units/format";

export type UnitKey = keyof UnitChoice | "mL" | "mm2" | "A" | "V" | "W" | "Hz" | "deg" | "ratio" | "C";

export type FieldSpec =
  | {
      kind: "quantity";
      /** A path into the part, `circuit.fuseA` and the like. */
      field: string;
      label: string;
      dimension: Dimension;
      unit: UnitKey;
      basis: "measured" | "maker";
      least?: "positive" | "zero";
    }
  | { kind: "switch"; field: string; label: string }
  | { kind: "choice"; field: string; label: string; options: { id: string; name: string }[] };

const quantity = (
  field: string,
  label: string,
  dimension: Dimension,
  unit: UnitKey,
  basis: "measured" | "maker" = "maker",
  least?: "positive" | "zero",
): FieldSpec => ({ kind: "quantity", field, label, dimension, unit, basis, ...(least ? { least } : {}) });
const toggle = (field: string, label: string): FieldSpec => ({ kind: "switch", field, label });

const bore = quantity("boreM", "Bore", "length", "bore", "measured", "positive");
const rated: FieldSpec[] = [
  quantity("ratedFlowM3S", "Rated flow", "flow", "flow", "maker", "positive"),
  quantity("ratedDropPa", "Drop at rated flow", "pressure", "pressure", "maker", "positive"),
];
const filtering: FieldSpec[] = [
  ...rated,
  quantity("micron", "Micron", "ratio", "ratio", "maker", "positive"),
  quantity("changeLoading", "Changed at, times clean", "ratio", "ratio", "maker", "positive"),
  quantity("sensorHeldM3", "Water before its sensor warns", "volume", "mL", "maker", "positive"),
];
const suction: FieldSpec[] = [
  quantity("suctionLimitPa", "Suction limit, maker's", "pressure", "pressure", "maker", "positive"),
  quantity("mostSuctionPa", "Most it can draw", "pressure", "pressure", "maker", "positive"),
];
const pumping: FieldSpec[] = [
  quantity("reliefPa", "Relief opens at", "pressure", "pressure", "maker", "positive"),
  ...suction,
];
const opensBy: FieldSpec[] = [
  quantity("setPa", "Set at", "pressure", "pressure", "maker", "positive"),
  quantity("droopPa", "Over that at rated flow", "pressure", "pressure", "maker", "zero"),
  quantity("ratedFlowM3S", "Rated flow", "flow", "flow", "maker", "positive"),
];
const burning: FieldSpec[] = [
  quantity("suctionLimitPa", "Suction limit, maker's", "pressure", "pressure", "maker", "positive"),
  quantity("leastFeedPa", "Least feed pressure", "pressure", "pressure"),
  quantity("mostFeedPa", "Most feed pressure", "pressure", "pressure"),
  quantity("returnC", "Return leaves at", "temperature", "temperature"),
  toggle("fuelLubricated", "Its pump is lubricated by fuel alone"),
];

export const circuitFields: readonly FieldSpec[] = [
  quantity("circuit.runA", "Runs at", "current", "A", "maker", "zero"),
  quantity("circuit.peakA", "Peak", "current", "A", "maker", "zero"),
  quantity("circuit.wireLengthM", "Wire there and back", "length", "length", "measured", "zero"),
  quantity("circuit.wireAreaM2", "Copper", "area", "mm2", "measured", "positive"),
  quantity("circuit.fuseA", "Fuse", "current", "A", "measured", "zero"),
  quantity("circuit.triggerA", "Rating of what switches it", "current", "A", "maker", "zero"),
  toggle("circuit.hasRelay", "Over a relay, with a fused supply of its own"),
];

export const heaterFields: readonly FieldSpec[] = [
  toggle("heater.hasCoAlarm", "Carbon monoxide alarm in the space"),
  quantity("heater.exhaustBendDeg", "Bends of its exhaust, in all", "angle", "deg", "measured", "zero"),
  toggle("heater.exhaustFalls", "Exhaust falls to its end"),
  toggle("heater.drainAtLowest", "Silencer drains at its lowest point"),
  toggle("heater.outletClear", "Exhaust away from intake, doors and windows"),
  toggle("heater.airFacesRear", "Combustion air is clean and faces rearward"),
  toggle("heater.airWayClear", "Warm air in and out is clear"),
  quantity("heater.clearanceM", "Clearance round it", "length", "length", "measured", "zero"),
  toggle("heater.switchCutsRunDown", "Its switch can cut the run-down"),
  quantity("heater.leastV", "Least supply", "voltage", "V"),
  quantity("heater.mostV", "Most supply", "voltage", "V"),
];

export const partFields: Readonly<Record<PartKind, readonly FieldSpec[]>> = {
  twoWay: [bore],
  selector: [bore],
  tee: [bore],
  bank: [bore],
  gauge: [bore],
  bleedScrew: [bore],
  samplingTap: [bore],
  filter: [...filtering, bore],
  pumpFilterUnit: [...filtering, ...pumping, bore],
  liftPump: [...pumping, bore],
  transferPump: [...pumping, bore],
  primingPump: [...pumping, bore],
  inTankPump: [...pumping, bore],
  dosingPump: [
    quantity("strokeM3", "A stroke gives", "volume", "mL", "maker", "positive"),
    quantity("mostHz", "Most strokes a second", "frequency", "Hz", "maker", "positive"),
    quantity("drawShare", "Share of a stroke it draws in", "ratio", "ratio", "maker", "positive"),
    quantity("mostRisePa", "Most lift of pressure", "pressure", "pressure", "maker", "positive"),
    quantity("tiltDeg", "Slope, outlet up", "angle", "deg", "measured"),
    quantity("mostBeforeM", "Most line before it", "length", "length", "maker", "positive"),
    quantity("mostAfterM", "Most line after it", "length", "length", "maker", "positive"),
    quantity("mostLiftM", "Most lift", "length", "length"),
    ...suction,
    toggle("rubberMounted", "Hung in rubber"),
    bore,
  ],
  check: [quantity("crackingPa", "Opens at", "pressure", "pressure", "maker", "zero")],
  antiSiphon: [quantity("crackingPa", "Opens at", "pressure", "pressure", "maker", "zero")],
  bulb: [
    ...rated,
    quantity("crackingPa", "Opens at", "pressure", "pressure", "maker", "zero"),
    quantity("strokeM3", "A squeeze gives", "volume", "mL", "maker", "positive"),
    toggle("forDiesel", "Rated for diesel"),
  ],
  relief: opensBy,
  regulator: [
    {
      kind: "choice",
      field: "holds",
      label: "Holds the pressure",
      options: [
        { id: "before", name: "before it, spilling" },
        { id: "after", name: "after it, throttling" },
      ],
    },
    ...opensBy,
  ],
  cooler: [
    ...rated,
    quantity("effectiveness", "Effectiveness", "ratio", "ratio"),
    quantity("coolantC", "Coolant at", "temperature", "temperature"),
  ],
  flowMeter: rated,
  fuelHeater: [...rated, quantity("powerW", "Power", "power", "W", "maker", "positive")],
  jetPump: [
    quantity("nozzleM", "Nozzle", "length", "bore", "maker", "positive"),
    quantity("throatM", "Throat", "length", "bore", "maker", "positive"),
  ],
  swirlPot: [quantity("volumeM3", "Holds", "volume", "volume", "maker", "positive")],
  waterSensor: [quantity("heldM3", "Water before it warns", "volume", "mL", "maker", "positive")],
  bulkhead: [
    quantity("wallM", "Wall it passes", "length", "bore", "measured", "zero"),
    quantity("reachM", "Wall it is long enough for", "length", "bore", "maker", "zero"),
    bore,
  ],
  engine: burning,
  generator: burning,
  heater: [quantity("suctionLimitPa", "Suction limit, maker's", "pressure", "pressure", "maker", "positive")],
};
