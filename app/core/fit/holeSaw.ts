/** The saw for what must pass: the next of a series. */
import { INCH_M } from "../units/factors";

export type SawSeries = "inch" | "metric";

/** Hole saws go by sixteenths of an inch from 9/16 to 6 in. Common practice, no source. */
const FIRST_SIXTEENTH = 9;
const LAST_SIXTEENTH = 96;
/** Metric saws as they are sold, mm. Common practice, no source. */
const METRIC_MM = [
  14, 15, 16, 17, 18, 19, 20, 21, 22, 24, 25, 27, 29, 30, 32, 33, 35, 37, 38, 40, 41, 43, 44, 46, 48, 51, 52,
  54, 57, 59, 60, 64, 65, 67, 68, 70, 73, 76, 79, 83, 86, 89, 92, 95, 98, 102, 105, 108, 111, 114, 121, 127,
  133, 140, 146, 152,
];

export interface Saw {
  diameterM: number;
  name: string;
}

const common = (top: number, bottom: number): string => {
  let [a, b] = [top, bottom];
  while (a % 2 === 0 && b > 1) [a, b] = [a / 2, b / 2];
  return b === 1 ? String(a) : `${a}/${b}`;
};

function inchSaw(sixteenths: number): Saw {
  const [whole, part] = [Math.floor(sixteenths / 16), sixteenths % 16];
  const name = [whole > 0 ? String(whole) : "", part > 0 ? common(part, 16) : ""].filter(Boolean).join(" ");
  return { diameterM: (sixteenths * INCH_M) / 16, name: `${name} in` };
}

const series: Record<SawSeries, readonly Saw[]> = {
  inch: Array.from({ length: LAST_SIXTEENTH - FIRST_SIXTEENTH + 1 }, (_, i) => inchSaw(FIRST_SIXTEENTH + i)),
  metric: METRIC_MM.map((mm) => ({ diameterM: mm / 1000, name: `${mm} mm` })),
};

const ROUNDING_M = 1e-9;

/** The smallest saw of a series that is not under a diameter; null beyond the series. */
export const nextSaw = (needM: number, of: SawSeries): Saw | null =>
  series[of].find(({ diameterM }) => diameterM >= needM - ROUNDING_M) ?? null;

export interface HoleSaw {
  needM: number;
  saw: Saw | null;
  /** Hole less what passes. */
  looseM: number | null;
  /** Whether the flange covers it; true where no flange is named. */
  fits: boolean;
}

export function holeSawFor(passM: number, clearanceM: number, of: SawSeries, mostM = Infinity): HoleSaw {
  const needM = passM + clearanceM;
  const saw = nextSaw(needM, of);
  return {
    needM,
    saw,
    looseM: saw && saw.diameterM - passM,
    fits: saw !== null && saw.diameterM <= mostM + ROUNDING_M,
  };
}
