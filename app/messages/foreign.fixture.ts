/** What shows that a sentence holds a figure of the other system of units. */
import { metricUnits, type UnitChoice, usUnits } from "~/core/units/format";

const metricFigure = /\d ?(mm²|mm|cm|mL|L\/h|L|kPa|mbar|bar|kg|°C|m\/s|m)(?![A-Za-z/²³])/;
const usFigure = /\d ?(inHg|in|ft\/s|ft|gal|gph|psi|qt|fl oz|lb|°F|AWG|')(?![A-Za-z])/;

/** Both systems, each with the figures that must not stand in it. Density and viscosity are metric in either trade. */
export const systems: [name: string, units: UnitChoice, foreign: RegExp][] = [
  ["metric", metricUnits, usFigure],
  ["US", usUnits, metricFigure],
];
