import { type Dimension, fromSi, type UnitOf } from "./factors";

/** What a job shows its numbers in. */
export interface UnitChoice {
  length: UnitOf<"length">;
  bore: UnitOf<"length">;
  volume: UnitOf<"volume">;
  flow: UnitOf<"flow">;
  pressure: UnitOf<"pressure">;
  temperature: UnitOf<"temperature">;
}

export const metricUnits: UnitChoice = {
  length: "mm",
  bore: "mm",
  volume: "L",
  flow: "L/h",
  pressure: "kPa",
  temperature: "C",
};

export const usUnits: UnitChoice = {
  length: "in",
  bore: "in",
  volume: "gal",
  flow: "gph",
  pressure: "inHg",
  temperature: "F",
};

/** The unit of the other system, for a number that is tapped. */
export const otherUnit: Readonly<Record<string, string>> = {
  mm: "in",
  mm2: "AWG",
  AWG: "mm2",
  m: "ft",
  cm: "in",
  in: "mm",
  ft: "m",
  L: "gal",
  mL: "floz",
  floz: "mL",
  kg: "lb",
  lb: "kg",
  gal: "L",
  "L/h": "gph",
  gph: "L/h",
  "L/min": "gpm",
  gpm: "L/min",
  kPa: "inHg",
  inHg: "kPa",
  bar: "psi",
  psi: "bar",
  mbar: "inHg",
  C: "F",
  F: "C",
};

/** Three significant figures, whole numbers left whole, no exponent, a true minus sign. */
export function formatNumber(value: number, figures = 3): string {
  if (!Number.isFinite(value)) return "–";
  const size = Math.abs(value);
  if (size < 10 ** -6) return "0";
  const decimals = Math.max(0, Math.min(6, figures - 1 - Math.floor(Math.log10(size))));
  const fixed = value.toFixed(decimals);
  const trimmed = fixed.includes(".") ? fixed.replace(/\.?0+$/, "") : fixed;
  return trimmed === "-0" ? "0" : trimmed.replace("-", "−");
}

/** A share in per cent, two significant figures. */
export const percentText = (share: number): string => `${formatNumber(share * 100, 2)} %`;

export interface Shown {
  readonly number: string;
  readonly unit: string;
}

const symbols: Readonly<Record<string, string>> = {
  C: "°C",
  F: "°F",
  deg: "°",
  floz: "fl oz",
  mm2: "mm²",
  "mm2/s": "mm²/s",
  "kg/m3": "kg/m³",
};

/** SI value to number and unit symbol, kept apart so that the unit can be drawn smaller. */
export function showQuantity(dimension: Dimension, si: number, unit: string, figures = 3): Shown {
  const value = fromSi(dimension, si, unit);
  return { number: formatNumber(value, figures), unit: symbols[unit] ?? unit };
}

/** As one string, readable by {@link parseQuantity} again. */
export function formatQuantity(dimension: Dimension, si: number, unit: string, figures = 3): string {
  const { number, unit: symbol } = showQuantity(dimension, si, unit, figures);
  return symbol === "" || symbol === "%" || symbol === "°" ? number + symbol : `${number} ${symbol}`;
}
