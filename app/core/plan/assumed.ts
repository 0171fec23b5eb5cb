/** Figures that nobody measured and no maker gave: what is still to be measured. */
import { portKey, portsOf } from "./ports";
import type { GivenByField, Id, Job, Part, Plan, TankShape } from "./types";

export interface AssumedFigure {
  id: Id;
  field: string;
}

function fieldsOf(part: Part): string[] {
  switch (part.kind) {
    case "filter":
      return ["ratedFlowM3S", "ratedDropPa", "position"];
    case "liftPump":
    case "transferPump":
    case "primingPump":
    case "inTankPump":
      return ["curve", "position"];
    case "dosingPump":
      return ["strokeM3", "mostHz", "position"];
    case "pumpFilterUnit":
      return ["curve", "reliefPa", "ratedFlowM3S", "ratedDropPa", "position"];
    case "check":
    case "antiSiphon":
      return ["crackingPa", "position"];
    case "bulb":
    case "cooler":
    case "flowMeter":
    case "fuelHeater":
      return ["ratedFlowM3S", "ratedDropPa", "position"];
    case "relief":
    case "regulator":
      return ["setPa", "position"];
    case "jetPump":
      return ["nozzleM", "throatM", "position"];
    case "engine":
    case "generator":
    case "heater":
      return ["loads", "position"];
    case "bleedScrew":
    case "samplingTap":
    case "waterSensor":
    case "bulkhead":
    case "swirlPot":
    case "twoWay":
    case "selector":
    case "bank":
    case "tee":
    case "gauge":
      return ["position"];
  }
}

/** The sizes that a tank's shape hangs on. */
function sizesOf(shape: TankShape): string[] {
  switch (shape.kind) {
    case "box":
      return ["lengthM", "widthM", "heightM"];
    case "prism":
      return ["lengthM", "section"];
    case "cylinder":
      return ["lengthM", "diameterM"];
    case "loft":
      return ["section"];
  }
}

const isKnown = (given: GivenByField | undefined, field: string) => {
  const basis = given?.[field]?.basis;
  return basis === "measured" || basis === "maker";
};

export function assumedFigures(job: Job, plan: Plan): AssumedFigure[] {
  const used = new Set(
    [...plan.runs, ...plan.joints].flatMap(({ from, to }) => [portKey(from), portKey(to)]),
  );
  const list = (id: Id, given: GivenByField | undefined, fields: string[]) =>
    fields.filter((field) => !isKnown(given, field)).map((field) => ({ id, field }));
  return [
    ...job.tanks.flatMap(({ id, given, shape }) => list(id, given, sizesOf(shape))),
    ...[...plan.parts, ...job.consumers]
      .filter((part) => portsOf(part).some((port) => used.has(`${part.id}.${port.id}`)))
      .flatMap((part) => list(part.id, part.given, fieldsOf(part))),
    ...plan.runs.flatMap(({ id, given, route }) =>
      list(id, given, route.kind === "measured" ? ["lengthM", "boreM"] : ["boreM"]),
    ),
  ];
}
