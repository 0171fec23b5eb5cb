/** How a number came about: the formula in words, its inputs, its source. */
import { figuresAt, figuresOf } from "~/core/hydraulics/derive";
import type { Suction } from "~/core/hydraulics/limits";
import type { FuelWay, Leg } from "~/core/hydraulics/route";
import type { SolvedLineUp } from "~/core/hydraulics/solve";
import type { Filtering, Pushing } from "~/core/kinds/families";
import type { Run, Tank } from "~/core/plan/types";
import { capacityM3 } from "~/core/tanks/tank";
import { formatNumber, formatQuantity, percentText, type UnitChoice } from "~/core/units/format";
import { tradeIn } from "~/core/units/trade";

export interface Explanation {
  title: string;
  formula: string;
  inputs: [string, string][];
  source: string;
}

export function explainVacuum(
  solved: SolvedLineUp,
  way: FuelWay,
  suction: Suction,
  units: UnitChoice,
  name: (id: string) => string,
): Explanation {
  const say = tradeIn(units);
  const tank = way.stations[0];
  const pump = way.stations.find(({ id }) => id === suction.id);
  const strokePa = (pump?.beforePa ?? 0) + suction.vacuumPa;
  const lifted = (pump?.zM ?? 0) - (solved.settings.surfaceM.get(tank?.id ?? "") ?? 0);
  return {
    title: "Vacuum at the first pump",
    formula:
      "Height of the pump over the fuel, as a column of fuel, plus everything the hoses and parts between take.",
    inputs: [
      ["Fuel surface to pump", say.length(lifted)],
      [
        "Fuel",
        `${formatNumber(solved.settings.fuel.densityKgM3, 4)} kg/m³, ${formatNumber(solved.settings.fuel.kinematicM2S * 1e6)} mm²/s at ${say.temperature(solved.settings.fuel.tempC)}`,
      ],
      ...(strokePa > 1 && suction.vacuumPa > 0
        ? [["While it draws, over the mean", say.vacuum(strokePa)] satisfies [string, string]]
        : []),
      ...way.suctionLosses
        .filter(({ share }) => share > 0.01)
        .slice(0, 8)
        .map(({ id, lossPa, share }): [string, string] => [
          name(id),
          `${say.vacuum(lossPa)} (${percentText(share)})`,
        ]),
    ],
    source:
      "All flows and pressures at once (Todini and Pilati 1988); friction: Churchill 1977; fittings: Hooper 1981.",
  };
}

export function explainRun(solved: SolvedLineUp, leg: Leg, run: Run, units: UnitChoice): Explanation {
  const say = tradeIn(units);
  const index = solved.network.linkOf.get(run.id) ?? -1;
  const { velocityMS, reynolds } = figuresOf(solved, index);
  return {
    title: "Drop over this hose",
    formula:
      "Friction factor × length ÷ bore × velocity head (Darcy-Weisbach), plus bends and narrower ends as multiples of the velocity head.",
    inputs: [
      ["Flow", say.flow(leg.flowM3S)],
      ["Bore", say.bore(run.boreM)],
      ["Length", say.run(leg.lengthM)],
      ["Velocity", say.speed(Math.abs(velocityMS))],
      [
        "Reynolds number",
        `${formatNumber(reynolds)}${reynolds < 2000 ? ", laminar" : reynolds > 4000 ? ", turbulent" : ", between the two: shown as a range"}`,
      ],
      ...(leg.range
        ? ([
            ["Laminar to turbulent", `${say.vacuum(leg.range.lowPa)} to ${say.vacuum(leg.range.highPa)}`],
          ] as [string, string][])
        : []),
    ],
    source:
      "64/Re below Re 1500, Churchill 1977 above; Hooper 1981 for bends; Borda-Carnot for ends. From memory of the published text.",
  };
}

export function explainFilter(filter: Filtering, loading: number, units: UnitChoice): Explanation {
  const say = tradeIn(units);
  return {
    title: "Drop over this filter",
    formula:
      "The rated drop, its medium's part scaled by viscosity, flow and clogging, the rest (ports and head, which do not clog) by density and flow squared.",
    inputs: [
      ["Rated", `${say.vacuum(filter.ratedDropPa)} at ${say.flow(filter.ratedFlowM3S)}`],
      ...(filter.second
        ? [
            [
              "Second medium, added",
              `${say.vacuum(filter.second.ratedDropPa)} at ${say.flow(filter.second.ratedFlowM3S)}`,
            ] as [string, string],
          ]
        : []),
      ["Medium's part", percentText(filter.viscousShare)],
      ["Clogging of the medium", `${formatNumber(loading)} (clean is 1)`],
      ["Rated basis", filter.given?.ratedDropPa?.basis === "maker" ? "maker's figure" : "assumed"],
    ],
    source:
      "Darcy's law for the medium; the share of 80 % where none is given is common practice, no source.",
  };
}

export function explainPump(pump: Pushing, units: UnitChoice): Explanation {
  const say = tradeIn(units);
  return {
    title: "Lift of this pump",
    formula: "Read off its curve at the flow through it, straight between the points, held to the relief.",
    inputs: [
      ...pump.curve.map(({ flowM3S, risePa }): [string, string] => [say.flow(flowM3S), say.gauge(risePa)]),
      ["Relief", pump.reliefPa === undefined ? "none" : say.gauge(pump.reliefPa)],
      ["Curve's basis", pump.given?.curve?.basis === "maker" ? "maker's figure" : "assumed"],
    ],
    source: "The points as entered.",
  };
}

export function explainTank(tank: Tank, aboardM3: number, units: UnitChoice): Explanation {
  const say = tradeIn(units);
  return {
    title: "Fuel in this tank",
    formula: "What of the inside lies below the fuel's surface. The level is found from the volume.",
    inputs: [
      ["Shape", shapeText(tank.shape)],
      ["Capacity", say.volume(capacityM3(tank))],
      ["Aboard", say.volume(aboardM3)],
    ],
    source: "Green's theorem side by side, segments of circles for round tanks; the tank stands level.",
  };
}

function shapeText(shape: Tank["shape"]): string {
  switch (shape.kind) {
    case "box":
      return "box";
    case "prism":
      return `section of ${shape.section.length} points drawn out`;
    case "cylinder":
      return shape.axis === "z" ? "standing cylinder" : "lying cylinder";
    case "loft":
      return `through ${shape.sections.length} sections`;
  }
}

export function explainFreeAir(solved: SolvedLineUp, gaugePa: number, units: UnitChoice): Explanation {
  const { fuel, atmospherePa } = solved.settings;
  const { absolutePa, freeAir } = figuresAt(solved, gaugePa);
  return {
    title: "Air that comes out of the fuel",
    formula:
      "Dissolved air × (air pressure − pressure here) ÷ (pressure here − vapour pressure), as a share of the fuel's volume.",
    inputs: [
      ["Dissolved air (Ostwald)", formatNumber(fuel.ostwaldAir)],
      ["Air pressure", formatQuantity("pressure", atmospherePa, units.pressure, 4)],
      ["Pressure here, absolute", formatQuantity("pressure", absolutePa, units.pressure, 4)],
      ["Result", freeAir === null ? "boils" : percentText(freeAir)],
    ],
    source:
      "Form of ASTM D2779 and Henry's law (from memory), at rest: a short vacuum gives off less. 1 % is said to be seen; what harms is what diesel gives off at the suction at which filters are changed. Common practice.",
  };
}
