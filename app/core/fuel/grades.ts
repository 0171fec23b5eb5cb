import type { DensityProduct } from "./density";
import type { ViscosityPoint } from "./viscosity";

export const gradeIds = [
  "en590",
  "d975no1",
  "d975no2",
  "dma",
  "fame",
  "paraffinic",
  "kerosene",
  "petrol",
] as const;
export type GradeId = (typeof gradeIds)[number];

/** Limits of a published standard and the typical figures used as preset. Limits are from memory of the published text. */
export interface Grade {
  readonly id: GradeId;
  readonly standard: string;
  readonly densityLimitsKgM3: readonly [number, number];
  readonly typicalDensity15KgM3: number;
  readonly viscosityLimits40Mm2S: readonly [number, number] | null;
  readonly typicalViscosity: readonly [ViscosityPoint, ViscosityPoint];
  readonly product: DensityProduct;
  readonly leastFlashC: number | null;
  readonly typicalCloudC: number | null;
  readonly reidPa: number | null;
}

const points = (at15: number, at40: number): [ViscosityPoint, ViscosityPoint] => [
  { tempC: 40, mm2S: at40 },
  { tempC: 15, mm2S: at15 },
];

/** Most that EN 590 lets into a kilogram of fuel. From memory. */
export const EN590_MOST = { waterMgPerKg: 200, dirtMgPerKg: 24 };

export const grades: Readonly<Record<GradeId, Grade>> = {
  en590: {
    id: "en590",
    standard: "EN 590",
    densityLimitsKgM3: [820, 845],
    typicalDensity15KgM3: 835,
    viscosityLimits40Mm2S: [2, 4.5],
    typicalViscosity: points(5, 2.7),
    product: "jet",
    leastFlashC: 55,
    typicalCloudC: -5,
    reidPa: null,
  },
  d975no1: {
    id: "d975no1",
    standard: "ASTM D975 No. 1-D",
    densityLimitsKgM3: [790, 840],
    typicalDensity15KgM3: 815,
    viscosityLimits40Mm2S: [1.3, 2.4],
    typicalViscosity: points(2.9, 1.7),
    product: "jet",
    leastFlashC: 38,
    typicalCloudC: -30,
    reidPa: null,
  },
  d975no2: {
    id: "d975no2",
    standard: "ASTM D975 No. 2-D",
    densityLimitsKgM3: [820, 876],
    typicalDensity15KgM3: 845,
    viscosityLimits40Mm2S: [1.9, 4.1],
    typicalViscosity: points(5.1, 2.7),
    product: "fuelOil",
    leastFlashC: 52,
    typicalCloudC: -8,
    reidPa: null,
  },
  dma: {
    id: "dma",
    standard: "ISO 8217 DMA",
    densityLimitsKgM3: [820, 890],
    typicalDensity15KgM3: 860,
    viscosityLimits40Mm2S: [2, 6],
    typicalViscosity: points(7.4, 3.6),
    product: "fuelOil",
    leastFlashC: 60,
    typicalCloudC: -3,
    reidPa: null,
  },
  fame: {
    id: "fame",
    standard: "EN 14214",
    densityLimitsKgM3: [860, 900],
    typicalDensity15KgM3: 883,
    viscosityLimits40Mm2S: [3.5, 5],
    typicalViscosity: points(8.1, 4.4),
    product: "fuelOil",
    leastFlashC: 101,
    typicalCloudC: 0,
    reidPa: null,
  },
  paraffinic: {
    id: "paraffinic",
    standard: "EN 15940",
    densityLimitsKgM3: [765, 800],
    typicalDensity15KgM3: 780,
    viscosityLimits40Mm2S: [2, 4.5],
    typicalViscosity: points(5.2, 2.9),
    product: "jet",
    leastFlashC: 55,
    typicalCloudC: -20,
    reidPa: null,
  },
  kerosene: {
    id: "kerosene",
    standard: "heating kerosene",
    densityLimitsKgM3: [775, 840],
    typicalDensity15KgM3: 800,
    viscosityLimits40Mm2S: [1, 2],
    typicalViscosity: points(1.9, 1.3),
    product: "jet",
    leastFlashC: 38,
    typicalCloudC: -40,
    reidPa: null,
  },
  petrol: {
    id: "petrol",
    standard: "EN 228",
    densityLimitsKgM3: [720, 775],
    typicalDensity15KgM3: 745,
    viscosityLimits40Mm2S: null,
    typicalViscosity: [
      { tempC: 20, mm2S: 0.6 },
      { tempC: 40, mm2S: 0.5 },
    ],
    product: "petrol",
    leastFlashC: null,
    typicalCloudC: null,
    reidPa: 70000,
  },
};

/** Fuel whose vapour burns at any temperature that it is used at: it has a Reid pressure, and is bled, cut and drained otherwise. */
export const isPetrol = ({ grade }: { grade: keyof typeof grades }): boolean => grades[grade].reidPa !== null;
