/**
 * What the system stands in, as bodies to draw: a hull, a truck or a van from a few sizes. Its ground is what heights are
 * told over; nothing else is worked out from it. Proportions within a form are by eye.
 */
import type { Position } from "../kinds/record";
import { partsOf } from "../plan/ports";
import type { Job, Outline, Plan, SectionPoint } from "../plan/types";
import {
  boxFaces,
  type Face,
  laidAlong,
  movedBy,
  roundFaces,
  ruledFaces,
  type Station,
} from "../tanks/faces";
import { bodyBox } from "./bodies";
import { tankSolids } from "./tanks";

export type Sized = Required<Outline>;
export type OutlineSize = Exclude<keyof Outline, "form">;

/** Sizes that a form has, in the order in which they are asked. */
export const sizesOfForm: Readonly<Record<Sized["form"], readonly OutlineSize[]>> = {
  hull: ["lengthM", "widthM", "heightM", "draughtM", "frontXM", "groundZM"],
  truck: ["lengthM", "widthM", "heightM", "wheelbaseM", "frontXM", "groundZM"],
  van: ["lengthM", "widthM", "heightM", "wheelbaseM", "frontXM", "groundZM"],
  none: ["groundZM"],
};

const usualForm: Readonly<Record<Job["kind"], Sized["form"]>> = {
  boat: "hull",
  truck: "truck",
  heater: "van",
  other: "none",
};

/** The box round everything that has a place: tanks, parts and consumers; one of its own where nothing has. */
function spanOf(job: Job, plan: Plan): { low: Position; high: Position } {
  const corners = [
    ...job.tanks.flatMap(tankSolids).flat(),
    ...partsOf(job, plan).flatMap((part) => bodyBox(part, plan)),
  ];
  const [first = [-1, -0.5, 0.3]] = corners;
  const [low, high]: [number[], number[]] = [[...first], corners.length > 0 ? [...first] : [1, 0.5, 1]];
  // One by one: a plan has more corners than a call takes arguments.
  for (const corner of corners)
    corner.forEach((value, axis) => {
      low[axis] = Math.min(low[axis] as number, value);
      high[axis] = Math.max(high[axis] as number, value);
    });
  const position = ([xM, yM, zM]: number[]) => ({ xM, yM, zM }) as Position;
  return { low: position(low), high: position(high) };
}

const most = Math.max;

/** Sizes as they are drawn: those that were typed, the others so that all parts find room. Common practice, no source. */
export function outlineOf(job: Job, plan: Plan): Sized {
  const typed = job.outline ?? {};
  const form = typed.form ?? usualForm[job.kind];
  const { low, high } = spanOf(job, plan);
  const groundZM = typed.groundZM ?? (low.zM >= 0 ? 0 : low.zM - 0.3);
  const half = most(high.yM, -low.yM);
  const tallM = high.zM - groundZM;
  const sizes = (own: Pick<Sized, "lengthM" | "widthM" | "heightM">, foreM: number): Sized => {
    const widthM = typed.widthM ?? own.widthM;
    const heightM = typed.heightM ?? own.heightM;
    const lengthM = typed.lengthM ?? own.lengthM;
    return {
      form,
      lengthM,
      widthM,
      heightM,
      groundZM,
      frontXM: typed.frontXM ?? foreM,
      draughtM: typed.draughtM ?? 0.3 * heightM,
      wheelbaseM: typed.wheelbaseM ?? (form === "van" ? 0.6 : 0.58) * lengthM,
    };
  };
  switch (form) {
    case "hull": {
      const widthM = most(1.8, 2 * half + 0.4);
      const lengthM = most(3.1 * widthM, (high.xM - low.xM) / 0.6);
      const sternXM = low.xM - 0.08 * lengthM;
      const length = typed.lengthM ?? lengthM;
      return sizes({ lengthM, widthM, heightM: most(0.16 * lengthM, tallM + 0.35) }, sternXM + length);
    }
    case "truck": {
      const foreM = high.xM + 0.7;
      return sizes(
        {
          lengthM: most(6, foreM - low.xM + 1.2),
          widthM: most(2.3, 2 * half + 0.1),
          heightM: most(2.7, tallM + 0.3),
        },
        foreM,
      );
    }
    case "van": {
      const lengthM = most(5.6, high.xM - low.xM + 3.2);
      const tailXM = low.xM - 0.5;
      return sizes(
        { lengthM, widthM: most(1.9, 2 * half + 0.1), heightM: most(2.5, tallM + 0.2) },
        tailXM + (typed.lengthM ?? lengthM),
      );
    }
    case "none":
      return sizes({ lengthM: 1, widthM: 1, heightM: 1 }, high.xM);
  }
}

/** Which of its sizes nobody typed. */
export const assumedOf = ({ outline = {} }: Pick<Job, "outline">, form: Sized["form"]): OutlineSize[] =>
  sizesOfForm[form].filter((size) => outline[size] === undefined);

export interface OutlineBody {
  is: "shell" | "frame" | "wheel";
  faces: Face[];
}

const HULL_STATIONS = 16;
/** Corners of half a hull's section. */
const HALF_SECTION = 7;

/** From the stern to the stem: a flat stern, full amidships, the stem drawn up and forward. */
function hullStations({ lengthM, widthM, heightM, frontXM, groundZM }: Sized): Station[] {
  return Array.from({ length: HULL_STATIONS + 1 }, (_, i) => {
    const along = i / HULL_STATIONS;
    const fore = most(0, (along - 0.45) / 0.55);
    const half = (widthM / 2) * most(0.01, along < 0.45 ? 0.9 + 0.22 * along : 1 - fore ** 2.2);
    const foot = groundZM + heightM * 0.62 * most(0, (along - 0.62) / 0.38) ** 2;
    const rail = groundZM + heightM * (0.8 + 0.2 * along ** 2);
    const side = Array.from({ length: HALF_SECTION }, (_, k): SectionPoint => {
      const up = k / (HALF_SECTION - 1);
      return [half * up ** 0.42, foot + (rail - foot) * up];
    });
    return {
      xM: frontXM - lengthM * (1 - along),
      polygon: [
        ...side,
        ...side
          .slice(1)
          .toReversed()
          .map(([y, z]): SectionPoint => [-y, z]),
      ],
    };
  });
}

const section = (half: number, low: number, high: number): SectionPoint[] => [
  [-half, low],
  [half, low],
  [half, high],
  [-half, high],
];

function wheels(
  { frontXM, groundZM, widthM, wheelbaseM }: Sized,
  radiusM: number,
  overhangM: number,
): OutlineBody[] {
  const thickM = 0.3 * radiusM + 0.1;
  const wheel = movedBy(laidAlong(roundFaces(radiusM, thickM), "y"), [0, 0, groundZM + radiusM]);
  const front = frontXM - overhangM;
  return [front, front - wheelbaseM].flatMap((xM) =>
    [widthM / 2 - thickM, -widthM / 2].map((yM) => ({
      is: "wheel" as const,
      faces: movedBy(wheel, [xM, yM, 0]),
    })),
  );
}

/** Bodies of a truck: cab, frame, floor of its bed, wheels. */
function truckBodies(size: Sized): OutlineBody[] {
  const { lengthM, widthM, heightM, frontXM, groundZM } = size;
  const radius = Math.min(0.18 * heightM, 0.13 * lengthM);
  const cabM = Math.min(2, 0.28 * lengthM);
  const tail = frontXM - lengthM;
  const railFoot = groundZM + 1.6 * radius;
  const bedFoot = groundZM + 0.42 * heightM;
  const rail = (yM: number) =>
    boxFaces([tail, yM - 0.04, railFoot], [frontXM - 0.5, yM + 0.04, railFoot + 0.09 * heightM]);
  const cab: Station[] = [
    { xM: frontXM - cabM, polygon: section(widthM / 2, groundZM + 1.5 * radius, groundZM + heightM) },
    { xM: frontXM - 0.3 * cabM, polygon: section(widthM / 2, groundZM + 1.5 * radius, groundZM + heightM) },
    {
      xM: frontXM - 0.06 * cabM,
      polygon: section(widthM / 2, groundZM + 0.9 * radius, groundZM + 0.62 * heightM),
    },
    { xM: frontXM, polygon: section(widthM / 2, groundZM + 0.9 * radius, groundZM + 0.55 * heightM) },
  ];
  return [
    { is: "shell", faces: ruledFaces(cab) },
    { is: "frame", faces: rail(0.17 * widthM) },
    { is: "frame", faces: rail(-0.17 * widthM) },
    {
      is: "frame",
      faces: boxFaces(
        [tail, -widthM / 2, bedFoot],
        [frontXM - cabM - 0.1, widthM / 2, bedFoot + 0.04 * heightM],
      ),
    },
    ...wheels(size, radius, 0.62 * cabM),
  ];
}

function vanBodies(size: Sized): OutlineBody[] {
  const { lengthM, widthM, heightM, frontXM, groundZM } = size;
  const radius = Math.min(0.14 * heightM, 0.12 * lengthM);
  const half = widthM / 2;
  const at = (backM: number, low: number, high: number): Station => ({
    xM: frontXM - backM,
    polygon: section(half, groundZM + low * heightM, groundZM + high * heightM),
  });
  const body = [
    at(lengthM, 0.16, 0.97),
    at(0.3 * lengthM, 0.13, 1),
    at(0.22 * lengthM, 0.13, 0.97),
    at(0.13 * lengthM, 0.13, 0.55),
    at(0.01 * lengthM, 0.13, 0.42),
    at(0, 0.16, 0.36),
  ];
  return [{ is: "shell", faces: ruledFaces(body) }, ...wheels(size, radius, 0.16 * lengthM)];
}

/** What is drawn of the vehicle, job frame. */
export function outlineBodies(size: Sized): OutlineBody[] {
  switch (size.form) {
    case "hull":
      return [{ is: "shell", faces: ruledFaces(hullStations(size)) }];
    case "truck":
      return truckBodies(size);
    case "van":
      return vanBodies(size);
    case "none":
      return [];
  }
}

/** Height of the water that a hull floats in; null for what stands on the ground. */
export const waterZM = ({ form, groundZM, draughtM }: Sized): number | null =>
  form === "hull" ? groundZM + draughtM : null;
