/**
 * Every conversion factor of the application. Exact by definition unless noted
 * (NIST SP 811, appendix B; from memory). SI value = entered * factor + offset.
 */
export const INCH_M = 0.0254;
export const GALLON_US_M3 = 231 * INCH_M ** 3;
export const GALLON_IMPERIAL_M3 = 4.54609e-3;
/** Conventional inch of mercury, 0 degC, standard gravity. */
export const INCH_MERCURY_PA = 3386.389;
export const GRAVITY_M_S2 = 9.80665;
export const POUND_KG = 0.45359237;
export const POUND_FORCE_PER_SQUARE_INCH_PA = (POUND_KG * GRAVITY_M_S2) / INCH_M ** 2;
export const KILOPASCAL_PA = 1000;
export const STANDARD_ATMOSPHERE_PA = 101325;
export const LITRE_M3 = 1e-3;
export const HOUR_S = 3600;
export const MINUTE_S = 60;
export const LITRE_PER_HOUR_M3_S = LITRE_M3 / HOUR_S;
export const MM2_S_IN_M2_S = 1e-6;
export const ZERO_CELSIUS_K = 273.15;
export const DEGREE_RAD = Math.PI / 180;

export const dimensions = {
  length: {
    si: "m",
    units: {
      m: { factor: 1, names: ["m", "metre", "metres", "meter", "meters"] },
      cm: { factor: 0.01, names: ["cm"] },
      mm: { factor: 1e-3, names: ["mm"] },
      in: { factor: INCH_M, names: ["in", "inch", "inches", '"', "''", "″", "”"] },
      ft: { factor: 12 * INCH_M, names: ["ft", "foot", "feet", "'", "′", "’"] },
    },
  },
  volume: {
    si: "m3",
    units: {
      m3: { factor: 1, names: ["m3", "m³"] },
      L: { factor: LITRE_M3, names: ["l", "litre", "litres", "liter", "liters"] },
      mL: { factor: 1e-6, names: ["ml", "cc", "cm3"] },
      gal: { factor: GALLON_US_M3, names: ["gal", "gallon", "gallons", "us gal"] },
      impgal: { factor: GALLON_IMPERIAL_M3, names: ["impgal", "imp gal", "uk gal"] },
      qt: { factor: GALLON_US_M3 / 4, names: ["qt", "quart", "quarts"] },
      floz: { factor: GALLON_US_M3 / 128, names: ["fl oz", "floz", "fluid ounces"] },
    },
  },
  flow: {
    si: "m3/s",
    units: {
      "m3/s": { factor: 1, names: ["m3/s"] },
      "L/h": { factor: LITRE_PER_HOUR_M3_S, names: ["l/h", "lph", "l/hr"] },
      "L/min": { factor: LITRE_M3 / 60, names: ["l/min", "lpm"] },
      gph: { factor: GALLON_US_M3 / HOUR_S, names: ["gph", "gal/h", "gal/hr", "us gph"] },
      gpm: { factor: GALLON_US_M3 / 60, names: ["gpm", "gal/min"] },
    },
  },
  pressure: {
    si: "Pa",
    units: {
      Pa: { factor: 1, names: ["pa"] },
      kPa: { factor: 1000, names: ["kpa"] },
      mbar: { factor: 100, names: ["mbar", "hpa"] },
      bar: { factor: 1e5, names: ["bar"] },
      psi: { factor: POUND_FORCE_PER_SQUARE_INCH_PA, names: ["psi", "psig", "lb/in2"] },
      inHg: { factor: INCH_MERCURY_PA, names: ["inhg", "in hg", '"hg', "in.hg"] },
      mmHg: { factor: STANDARD_ATMOSPHERE_PA / 760, names: ["mmhg"] },
    },
  },
  temperature: {
    si: "degC",
    units: {
      C: { factor: 1, names: ["c", "°c", "degc", "deg c", "celsius"] },
      F: { factor: 5 / 9, offset: -160 / 9, names: ["f", "°f", "degf", "deg f", "fahrenheit"] },
      K: { factor: 1, offset: -ZERO_CELSIUS_K, names: ["k"] },
    },
  },
  viscosity: { si: "mm2/s", units: { "mm2/s": { factor: 1, names: ["mm2/s", "mm²/s", "cst"] } } },
  density: {
    si: "kg/m3",
    units: {
      "kg/m3": { factor: 1, names: ["kg/m3", "kg/m³"] },
      "kg/L": { factor: 1000, names: ["kg/l", "g/ml", "g/cm3"] },
    },
  },
  mass: {
    si: "kg",
    units: {
      kg: { factor: 1, names: ["kg"] },
      lb: { factor: POUND_KG, names: ["lb", "lbs", "pound", "pounds"] },
    },
  },
  speed: {
    si: "m/s",
    units: {
      "m/s": { factor: 1, names: ["m/s"] },
      "ft/s": { factor: 12 * INCH_M, names: ["ft/s"] },
    },
  },
  moment: {
    si: "N m",
    units: {
      "N m": { factor: 1, names: ["n m", "nm"] },
      "lb ft": { factor: POUND_KG * GRAVITY_M_S2 * 12 * INCH_M, names: ["lb ft", "ft lb"] },
    },
  },
  angle: { si: "deg", units: { deg: { factor: 1, names: ["deg", "°", "degrees"] } } },
  current: { si: "A", units: { A: { factor: 1, names: ["a", "amp", "amps"] } } },
  voltage: { si: "V", units: { V: { factor: 1, names: ["v", "volt", "volts"] } } },
  frequency: { si: "Hz", units: { Hz: { factor: 1, names: ["hz", "/s"] } } },
  area: {
    si: "m2",
    units: { m2: { factor: 1, names: ["m2", "m²"] }, mm2: { factor: 1e-6, names: ["mm2", "mm²", "sq"] } },
  },
  time: { si: "s", units: { s: { factor: 1, names: ["s"] }, ms: { factor: 1e-3, names: ["ms"] } } },
  hours: {
    si: "h",
    units: { h: { factor: 1, names: ["h", "hour", "hours"] }, min: { factor: 1 / 60, names: ["min"] } },
  },
  power: { si: "W", units: { W: { factor: 1, names: ["w"] }, kW: { factor: 1000, names: ["kw"] } } },
  ratio: { si: "", units: { "": { factor: 1, names: ["x"] }, "%": { factor: 0.01, names: ["%"] } } },
} as const satisfies Record<
  string,
  { si: string; units: Record<string, { factor: number; offset?: number; names: readonly string[] }> }
>;

export type Dimension = keyof typeof dimensions;
export type UnitOf<D extends Dimension> = keyof (typeof dimensions)[D]["units"] & string;

interface Unit {
  readonly factor: number;
  readonly offset?: number;
  readonly names: readonly string[];
}

export function unitsOf(dimension: Dimension): Readonly<Record<string, Unit>> {
  return dimensions[dimension].units;
}

function unitNamed(dimension: Dimension, name: string): Unit {
  const unit = unitsOf(dimension)[name];
  if (!unit) throw new Error(`no unit ${name} of ${dimension}`);
  return unit;
}

/** From a number in `unit` to SI (temperature: degC, viscosity: mm2/s). Throws on a unit of another dimension. */
export function toSi(dimension: Dimension, value: number, unit: string): number {
  const { factor, offset = 0 } = unitNamed(dimension, unit);
  return value * factor + offset;
}

/** From SI to a number in `unit`. */
export function fromSi(dimension: Dimension, si: number, unit: string): number {
  const { factor, offset = 0 } = unitNamed(dimension, unit);
  return (si - offset) / factor;
}
