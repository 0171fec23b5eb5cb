/** Figures as the trade writes them, by kind of figure: the job's choice of units says which system each follows. */
import { type Dimension, fromSi, GALLON_US_M3, INCH_M, LITRE_M3 } from "./factors";
import { formatNumber, formatQuantity, showQuantity, type UnitChoice } from "./format";
import { gaugeText, wireGauge } from "./wire";

const QUART_M3 = GALLON_US_M3 / 4;
/** From three feet on a length is told in feet and inches. */
const FEET_FROM_IN = 36;
/** A tape is read to a sixteenth; under an inch a rule to a thirty-second. Common practice, no source. */
const TAPE = 16;
const RULE = 32;
/** A bore this near to a sixteenth is the nominal size of its hose. */
const NOMINAL_M = 5e-5;

export const inInches = ({ length }: UnitChoice) => length === "in" || length === "ft";
const inGallons = ({ volume }: UnitChoice) => volume === "gal";

/** Above zero an inHg gauge is read in psi, below zero a psi gauge in inHg: the trade's two scales. */
export const gaugeUnit = ({ pressure }: UnitChoice, gaugePa: number): UnitChoice["pressure"] => {
  if (pressure !== "inHg" && pressure !== "psi") return pressure;
  return gaugePa < 0 ? "inHg" : "psi";
};
/** What a vacuum, and a loss that is held against one, is told in. */
export const vacuumUnit = (units: UnitChoice): UnitChoice["pressure"] => gaugeUnit(units, -1);
/** What goes into a pan. */
export const panUnit = (units: UnitChoice): "mL" | "floz" => (inGallons(units) ? "floz" : "mL");
/** What wire is sold by. */
export const wireUnit = (units: UnitChoice): "mm2" | "AWG" => (inInches(units) ? "AWG" : "mm2");
export const massUnit = (units: UnitChoice): "kg" | "lb" => (inGallons(units) ? "lb" : "kg");

/** What hose is sold by. */
export const runUnit = (units: UnitChoice): "m" | "ft" => (inInches(units) ? "ft" : "m");

/** A whole and a fraction in lowest terms of `parts` of an inch: '3 1/2', '5/16', '2'. */
function fraction(inches: number, parts: number): string {
  const all = Math.round(Math.abs(inches) * parts);
  const sign = inches < 0 && all > 0 ? "−" : "";
  const whole = Math.floor(all / parts);
  let [top, bottom] = [all % parts, parts];
  while (top > 0 && top % 2 === 0) [top, bottom] = [top / 2, bottom / 2];
  const part = top > 0 ? `${top}/${bottom}` : "";
  return sign + ([whole > 0 ? String(whole) : "", part].filter(Boolean).join(" ") || "0");
}

/** A tape's or drill's sixty-fourths: what a field keeps as a fraction. */
const DRILL = 64;
const EXACT_M = 1e-7;

/** What a field shows: as {@link formatQuantity}, but inches that were given in fractions stay fractions, and wire has its size. */
export function fieldText(dimension: Dimension, si: number, unit: string): string {
  if (dimension === "length" && unit === "in" && si > 0) {
    const drills = Math.round((si / INCH_M) * DRILL);
    if (Math.abs((drills / DRILL) * INCH_M - si) < EXACT_M) return `${fraction(drills / DRILL, DRILL)} in`;
  }
  if (unit === "AWG") {
    const gauge = wireGauge(si);
    const even = Math.round(gauge / 2) * 2;
    return Math.abs(gauge - even) < 0.5 ? gaugeText(even) : formatQuantity("area", si, "mm2");
  }
  return formatQuantity(dimension, si, unit, 4);
}

/** Inches to a sixteenth, under one to a thirty-second, from a yard on in feet and inches; nothing but 0 is told as 0. */
function inchText(m: number): string {
  const inches = m / INCH_M;
  const size = Math.abs(inches);
  if (size > 0 && size < 1 / RULE) return `${formatNumber(inches)} in`;
  const parts = size < 1 ? RULE : TAPE;
  const rounded = Math.round(size * parts) / parts;
  if (rounded < FEET_FROM_IN) return `${fraction(inches, parts)} in`;
  const feet = Math.floor(rounded / 12);
  const rest = rounded - feet * 12;
  return `${inches < 0 ? "−" : ""}${feet}'${rest > 0 ? ` ${fraction(rest, TAPE)}"` : ""}`;
}

export interface Trade {
  flow(m3S: number): string;
  volume(m3: number): string;
  /** What goes into a pan or a jar: quarts and fluid ounces, litres and millilitres. */
  pan(m3: number): string;
  length(m: number): string;
  bore(m: number): string;
  /** Along a hose or wire, by the metre or the foot. */
  run(m: number): string;
  /** Gauge pressure, of either sign. */
  gauge(pa: number): string;
  /** Of a vacuum, and of losses that are held against one. */
  vacuum(pa: number): string;
  temperature(c: number): string;
  /** A difference of temperature, K: a degree is not a degree of the other scale. */
  warmer(k: number): string;
  mass(kg: number): string;
  moment(nM: number): string;
  /** Copper as it is fitted: the size sold that is nearest. */
  wire(m2: number): string;
  /** The smallest size sold that is no thinner. */
  leastWire(m2: number): string;
  speed(mS: number): string;
}

/** The writer of a job's figures. SI in, number and unit out. */
export function tradeIn(units: UnitChoice): Trade {
  const pan = (m3: number) =>
    inGallons(units)
      ? formatQuantity("volume", m3, m3 < QUART_M3 ? "floz" : "qt")
      : formatQuantity("volume", m3, m3 < LITRE_M3 ? "mL" : "L");
  const wire = (m2: number, toEven: (half: number) => number) =>
    inInches(units) ? gaugeText(toEven(wireGauge(m2) / 2 + 1e-9) * 2) : formatQuantity("area", m2, "mm2");
  const length = (m: number) => (inInches(units) ? inchText(m) : formatQuantity("length", m, units.length));
  return {
    flow: (m3S) => formatQuantity("flow", m3S, units.flow),
    volume: (m3) =>
      m3 > 0 && m3 < (inGallons(units) ? QUART_M3 : LITRE_M3)
        ? pan(m3)
        : formatQuantity("volume", m3, units.volume),
    pan,
    length,
    bore: (m) => {
      const near = (Math.round((m / INCH_M) * TAPE) / TAPE) * INCH_M;
      const isNominal = units.bore === "in" && m > 0 && Math.abs(near - m) < NOMINAL_M;
      return isNominal ? inchText(near) : formatQuantity("length", m, units.bore);
    },
    run: (m) => (inInches(units) ? inchText(m) : formatQuantity("length", m, "m")),
    gauge: (pa) => formatQuantity("pressure", pa, gaugeUnit(units, pa)),
    vacuum: (pa) => formatQuantity("pressure", pa, vacuumUnit(units)),
    temperature: (c) => formatQuantity("temperature", c, units.temperature),
    warmer: (k) => {
      const unit = units.temperature;
      const per = fromSi("temperature", 1, unit) - fromSi("temperature", 0, unit);
      return `${formatNumber(per * k)} ${showQuantity("temperature", 0, unit).unit}`;
    },
    moment: (nM) => formatQuantity("moment", nM, inGallons(units) ? "lb ft" : "N m"),
    mass: (kg) => formatQuantity("mass", kg, massUnit(units)),
    wire: (m2) => wire(m2, Math.round),
    leastWire: (m2) => wire(m2, Math.floor),
    speed: (mS) => formatQuantity("speed", mS, inInches(units) ? "ft/s" : "m/s"),
  };
}
