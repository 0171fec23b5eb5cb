/** How a number came about: the formula in words, its inputs, its source. */
import { figuresAt, figuresOf } from "~/core/hydraulics/derive";
import type { Suction } from "~/core/hydraulics/limits";
import type { FuelWay, Leg } from "~/core/hydraulics/route";
import type { SolvedLineUp } from "~/core/hydraulics/solve";
import type { Filtering, Pushing } from "~/core/kinds/families";
import type { Run, Tank } from "~/core/plan/types";
import { capacityM3 } from "~/core/tanks/tank";
import { formatNumber, formatQuantity, type UnitChoice } from "~/core/units/format";

export interface Explanation {
  title: string;
  formula: string;
  inputs: [string, string][];
  source: string;
}

const percent = (share: number) => `${formatNumber(share * 100, 2)} %`;

export function explainVacuum(
  solved: SolvedLineUp,
  way: FuelWay,
  suction: Suction,
  units: UnitChoice,
  name: (id: string) => string,
): Explanation {
  const tank = way.stations[0];
  const pump = way.stations.find(({ id }) => id === suction.id);
  const strokePa = (pump?.beforePa ?? 0) + suction.vacuumPa;
  const lifted = (pump?.zM ?? 0) - (solved.settings.surfaceM.get(tank?.id ?? "") ?? 0);
  return {
    title: "Vacuum at the first pump",
    formula:
      "Height of the pump over the fuel, as a column of fuel, plus everything the hoses and parts between take.",
    inputs: [
      ["Fuel surface to pump", `${formatNumber(lifted * 1000)} mm`],
      [
        "Fuel",
        `${formatNumber(solved.settings.fuel.densityKgM3, 4)} kg/m³, ${formatNumber(solved.settings.fuel.kinematicM2S * 1e6)} mm²/s at ${formatQuantity("temperature", solved.settings.fuel.tempC, units.temperature)}`,
      ],
      ...(strokePa > 1 && suction.vacuumPa > 0
        ? [
            [
              "While it draws, over the mean",
              formatQuantity("pressure", strokePa, units.pressure),
            ] satisfies [string, string],
          ]
        : []),
      ...way.suctionLosses
        .filter(({ share }) => share > 0.01)
        .slice(0, 8)
        .map(({ id, lossPa, share }): [string, string] => [
          name(id),
          `${formatQuantity("pressure", lossPa, units.pressure)} (${percent(share)})`,
        ]),
    ],
    source:
      "All flows and pressures at once (Todini and Pilati 1988); friction: Churchill 1977; fittings: Hooper 1981.",
  };
}

export function explainRun(solved: SolvedLineUp, leg: Leg, run: Run, units: UnitChoice): Explanation {
  const index = solved.network.linkOf.get(run.id) ?? -1;
  const { velocityMS, reynolds } = figuresOf(solved, index);
  return {
    title: "Drop over this hose",
    formula:
      "Friction factor × length ÷ bore × velocity head (Darcy-Weisbach), plus bends and narrower ends as multiples of the velocity head.",
    inputs: [
      ["Flow", formatQuantity("flow", leg.flowM3S, units.flow)],
      ["Bore", formatQuantity("length", run.boreM, units.bore)],
      ["Length", `${formatNumber(leg.lengthM)} m`],
      ["Velocity", `${formatNumber(Math.abs(velocityMS))} m/s`],
      [
        "Reynolds number",
        `${formatNumber(reynolds)}${reynolds < 2000 ? ", laminar" : reynolds > 4000 ? ", turbulent" : ", between the two: shown as a range"}`,
      ],
      ...(leg.range
        ? ([
            [
              "Laminar to turbulent",
              `${formatQuantity("pressure", leg.range.lowPa, units.pressure)} to ${formatQuantity("pressure", leg.range.highPa, units.pressure)}`,
            ],
          ] as [string, string][])
        : []),
    ],
    source:
      "64/Re below Re 1500, Churchill 1977 above; Hooper 1981 for bends; Borda-Carnot for ends. From memory of the published text.",
  };
}

export function explainFilter(filter: Filtering, loading: number, units: UnitChoice): Explanation {
  return {
    title: "Drop over this filter",
    formula:
      "The rated drop, its medium's part scaled by viscosity, flow and loading, the rest by density and flow squared.",
    inputs: [
      [
        "Rated",
        `${formatQuantity("pressure", filter.ratedDropPa, units.pressure)} at ${formatQuantity("flow", filter.ratedFlowM3S, units.flow)}`,
      ],
      ...(filter.second
        ? [
            [
              "Second medium, added",
              `${formatQuantity("pressure", filter.second.ratedDropPa, units.pressure)} at ${formatQuantity("flow", filter.second.ratedFlowM3S, units.flow)}`,
            ] as [string, string],
          ]
        : []),
      ["Medium's part", percent(filter.viscousShare)],
      ["Loading", `${formatNumber(loading)} × clean`],
      ["Rated basis", filter.given?.ratedDropPa?.basis === "maker" ? "maker's figure" : "assumed"],
    ],
    source:
      "Darcy's law for the medium; the share of 80 % where none is given is common practice, no source.",
  };
}

export function explainPump(pump: Pushing, units: UnitChoice): Explanation {
  return {
    title: "Lift of this pump",
    formula: "Read off its curve at the flow through it, straight between the points, held to the relief.",
    inputs: [
      ...pump.curve.map(({ flowM3S, risePa }): [string, string] => [
        formatQuantity("flow", flowM3S, units.flow),
        formatQuantity("pressure", risePa, units.pressure),
      ]),
      [
        "Relief",
        pump.reliefPa === undefined ? "none" : formatQuantity("pressure", pump.reliefPa, units.pressure),
      ],
      ["Curve's basis", pump.given?.curve?.basis === "maker" ? "maker's figure" : "assumed"],
    ],
    source: "The points as entered.",
  };
}

export function explainTank(tank: Tank, aboardM3: number, units: UnitChoice): Explanation {
  return {
    title: "Fuel in this tank",
    formula: "What of the inside lies below the fuel's surface. The level is found from the volume.",
    inputs: [
      ["Shape", shapeText(tank.shape)],
      ["Capacity", formatQuantity("volume", capacityM3(tank), units.volume)],
      ["Aboard", formatQuantity("volume", aboardM3, units.volume)],
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
      ["Result", freeAir === null ? "boils" : percent(freeAir)],
    ],
    source: "Form of ASTM D2779 and Henry's law (from memory); 1 % as the limit is common practice.",
  };
}
