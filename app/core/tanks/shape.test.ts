import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { SectionPoint, Tank, TankShape } from "../plan/types";
import { type Attitude, LEVEL, upOf } from "./attitude";
import { shapeFaults } from "./check";
import { gaussLegendre } from "./gauss";
import { crossesItself, insetPolygon, polygonArea } from "./polygon";
import { levelOfPrismM, sectionOf } from "./shape";
import { hull, vee } from "./shapes.fixture";
import { capacityM3, TiltedTank, volumeAtLevelM3 } from "./tank";

const tilted = (shape: TankShape, attitude: Attitude) => new TiltedTank({ shape }, attitude);
const turn = (pitchDeg: number, rollDeg = 0): Attitude => ({ pitchDeg, rollDeg });

/** The number of a base written backwards behind the point: fills 0..1 evenly (J. H. Halton 1960). */
function halton(i: number, base: number): number {
  let [sum, share] = [0, 1 / base];
  for (let rest = i; rest > 0; rest = Math.floor(rest / base)) {
    sum += (rest % base) * share;
    share /= base;
  }
  return sum;
}

const POINTS = 60000;
const cloud = Array.from({ length: POINTS }, (_, i) => [
  -0.3 + 2 * halton(i + 1, 2),
  -0.6 + 1.5 * halton(i + 1, 3),
  -0.15 + 1.15 * halton(i + 1, 5),
]) as [number, number, number][];

/** Slow but sure: of points spread evenly over a box round the shape, those inside and under the surface are counted. */
function counter(shape: TankShape): (attitude: Attitude, offset: number) => number {
  const inside = insideOf(shape);
  const within = cloud.filter((at) => inside(...at));
  return (attitude, offset) => {
    const up = upOf(attitude);
    const wet = within.filter(([x, y, z]) => up[0] * x + up[1] * y + up[2] * z < offset);
    return (wet.length * 2 * 1.5 * 1.15) / POINTS;
  };
}

function insideOf(shape: TankShape): (x: number, y: number, z: number) => boolean {
  const inPolygon = (points: readonly SectionPoint[], y: number, z: number) => {
    let isIn = false;
    points.forEach(([y1, z1], i) => {
      const [y2, z2] = points[(i + 1) % points.length] as SectionPoint;
      if (z1 > z !== z2 > z && y < y1 + ((z - z1) / (z2 - z1)) * (y2 - y1)) isIn = !isIn;
    });
    return isIn;
  };
  if (shape.kind === "loft")
    return (x, y, z) => {
      const i = shape.sections.findIndex(({ xM }, k) => k > 0 && x < xM);
      const [a, b] = [shape.sections[i - 1], shape.sections[i]];
      if (!a || !b || x < a.xM) return false;
      const t = (x - a.xM) / (b.xM - a.xM);
      const between = a.polygon.map(([ya, za], k): SectionPoint => {
        const [yb, zb] = b.polygon[k] as SectionPoint;
        return [ya + t * (yb - ya), za + t * (zb - za)];
      });
      return inPolygon(between, y, z);
    };
  if (shape.kind === "cylinder") {
    const { diameterM, lengthM, axis, endDepthM = 0 } = shape;
    const r = diameterM / 2;
    return (x, y, z) => {
      const along = axis === "x" ? x : axis === "y" ? y : z;
      const across = Math.hypot(...[x, y, z].filter((_, i) => i !== "xyz".indexOf(axis)).map((v) => v - r));
      if (along >= 0 && along <= lengthM) return across <= r;
      const out = along < 0 ? -along : along - lengthM;
      return endDepthM > 0 && (out / endDepthM) ** 2 + (across / r) ** 2 <= 1;
    };
  }
  const section = sectionOf(shape);
  return (x, y, z) => x >= 0 && x <= shape.lengthM && inPolygon(section, y, z);
}

describe("closed forms", () => {
  test("a box by hand, level and pitched until the surface leaves the floor", () => {
    const box: TankShape = { kind: "box", lengthM: 1.2, widthM: 0.5, heightM: 0.4 };
    expect(capacityM3({ shape: box })).toBeCloseTo(0.24, 12);
    expect(volumeAtLevelM3({ shape: box }, 0.1)).toBeCloseTo(0.06, 12);
    // Pitched up so that fuel lies in a wedge of the back floor corner: half base times height times width.
    const pitched = tilted(box, turn(10));
    const backDepth = 0.1;
    const wedge = ((backDepth * backDepth) / Math.tan((10 * Math.PI) / 180) / 2) * 0.5;
    expect(pitched.volumeM3(pitched.offsetAt(0, 0.25, backDepth))).toBeCloseTo(wedge, 12);
  });

  test("a V section by trapezia", () => {
    const shape: TankShape = { kind: "prism", lengthM: 2, section: vee };
    expect(capacityM3({ shape })).toBeCloseTo(1.08, 12);
    expect(volumeAtLevelM3({ shape }, 0.2)).toBeCloseTo(2 * ((0.2 + 0.6) / 2) * 0.2, 12);
    expect(levelOfPrismM(shape, 2 * ((0.2 + 0.6) / 2) * 0.2)).toBeCloseTo(0.2, 12);
  });

  test("a lying cylinder by the segment of a circle; a standing one tilted by its mean height", () => {
    const [r, h] = [0.25, 0.13];
    const lying: TankShape = { kind: "cylinder", diameterM: 2 * r, lengthM: 1.2, axis: "x" };
    const segment = r * r * Math.acos((r - h) / r) - (r - h) * Math.sqrt(2 * r * h - h * h);
    expect(volumeAtLevelM3({ shape: lying }, h)).toBeCloseTo(1.2 * segment, 12);
    const standing = tilted({ kind: "cylinder", diameterM: 2 * r, lengthM: 1.2, axis: "z" }, turn(12, -9));
    expect(standing.volumeM3(standing.offsetAt(r, r, 0.5)) / (Math.PI * r * r * 0.5)).toBeCloseTo(1, 9);
  });

  test("a cylindrical hoof (handbook: 2/3 r^2 h where the surface cuts the floor along a diameter)", () => {
    const r = 0.25;
    const standing = tilted({ kind: "cylinder", diameterM: 2 * r, lengthM: 1, axis: "z" }, turn(30));
    const h = r * Math.tan((30 * Math.PI) / 180);
    expect(standing.volumeM3(standing.offsetAt(r, r, 0)) / ((2 / 3) * r * r * h)).toBeCloseTo(1, 9);
  });

  test("dished ends: a sphere at any attitude by its cap, an ellipsoid's volume, half full at any tilt", () => {
    const r = 0.3;
    const ball: TankShape = { kind: "cylinder", diameterM: 2 * r, lengthM: 1e-9, axis: "x", endDepthM: r };
    for (const attitude of [LEVEL, turn(17, 5), turn(-40, 33)]) {
      const tank = tilted(ball, attitude);
      for (const h of [0.01, 0.2, 0.3, 0.55]) {
        const cap = (Math.PI * h * h * (3 * r - h)) / 3;
        expect(tank.volumeM3(tank.low + h) / cap).toBeCloseTo(1, 6);
      }
    }
    const dished: TankShape = { kind: "cylinder", diameterM: 0.6, lengthM: 1, axis: "z", endDepthM: 0.1 };
    const whole = Math.PI * 0.09 * (1 + (4 / 3) * 0.1);
    expect(capacityM3({ shape: dished }) / whole).toBeCloseTo(1, 9);
    const tank = tilted(dished, turn(25, 10));
    expect(tank.volumeM3((tank.low + tank.high) / 2) / whole).toBeCloseTo(0.5, 9);
  });

  test("a frustum of a pyramid as a loft (Simpson's prismoidal formula is exact for it)", () => {
    const square = (half: number): SectionPoint[] => [
      [-half, -half],
      [half, -half],
      [half, half],
      [-half, half],
    ];
    const shape: TankShape = {
      kind: "loft",
      sections: [
        { xM: 0, polygon: square(0.5) },
        { xM: 1, polygon: square(0.2) },
      ],
    };
    expect(capacityM3({ shape })).toBeCloseTo((1 / 6) * (1 + 4 * 0.7 ** 2 + 0.16), 12);
  });

  test("Gauss-Legendre of two points stands at 1/2 -+ 1/sqrt(12)", () => {
    const { at, weight } = gaussLegendre(2);
    expect(at[0]).toBeCloseTo(0.5 - 1 / Math.sqrt(12), 14);
    expect(weight[1]).toBeCloseTo(0.5, 14);
  });
});

describe("against counted points, a slow but sure way", () => {
  const shapes: Record<string, TankShape> = {
    vee: { kind: "prism", lengthM: 1.5, section: vee },
    hull,
    lying: { kind: "cylinder", diameterM: 0.7, lengthM: 1.2, axis: "x", endDepthM: 0.15 },
    across: { kind: "cylinder", diameterM: 0.5, lengthM: 0.8, axis: "y" },
    standing: { kind: "cylinder", diameterM: 0.7, lengthM: 0.6, axis: "z", endDepthM: 0.1 },
  };
  test.each(Object.keys(shapes))("%s at three attitudes", (name) => {
    const shape = shapes[name] as TankShape;
    const counted = counter(shape);
    for (const attitude of [turn(4, -6), turn(-20, 15), turn(45, 0)]) {
      const tank = tilted(shape, attitude);
      for (const share of [0.15, 0.5, 0.85]) {
        const offset = tank.low + share * (tank.high - tank.low);
        const off = tank.volumeM3(offset) - counted(attitude, offset);
        expect(Math.abs(off) / tank.capacityM3).toBeLessThan(0.004);
      }
    }
  });
});

const anyShape: fc.Arbitrary<TankShape> = fc.oneof(
  fc.record({
    kind: fc.constant("prism" as const),
    lengthM: fc.double({ min: 0.2, max: 2, noNaN: true }),
    section: fc.constantFrom(vee, sectionOf(hull), [
      [0, 0],
      [0.62, 0],
      [0.62, 0.18],
      [0.31, 0.18],
      [0.31, 0.36],
      [0, 0.36],
    ] as SectionPoint[]),
  }),
  fc.constant(hull),
  fc.record({
    kind: fc.constant("cylinder" as const),
    diameterM: fc.double({ min: 0.2, max: 1, noNaN: true }),
    lengthM: fc.double({ min: 0.2, max: 2, noNaN: true }),
    axis: fc.constantFrom("x" as const, "y" as const, "z" as const),
    endDepthM: fc.constantFrom(0, 0.08),
  }),
);
const anyAttitude = fc.record({
  pitchDeg: fc.oneof(fc.constantFrom(0, 45, -45, 1e-7), fc.double({ min: -45, max: 45, noNaN: true })),
  rollDeg: fc.oneof(fc.constantFrom(0, 45, -45, 1e-7), fc.double({ min: -45, max: 45, noNaN: true })),
});
/** Nearly empty and nearly full as often as between. */
const anyShare = fc.oneof(fc.constantFrom(1e-6, 1e-3, 1 - 1e-6), fc.double({ min: 0, max: 1, noNaN: true }));
const isExact = (shape: TankShape) => shape.kind === "prism" || shape.kind === "box";

describe("over random tanks and attitudes", () => {
  test("fuel and the air over it make the capacity: the tank seen upside down holds the rest", () => {
    fc.assert(
      fc.property(anyShape, anyAttitude, anyShare, (shape, attitude, share) => {
        const tank = tilted(shape, attitude);
        const offset = tank.low + share * (tank.high - tank.low);
        // Turned over: heights are counted downward, so the same attitude serves with z and y and x changed in sign.
        const over = turnedOver(shape);
        const ullage = over.tilt(attitude);
        const sum = tank.volumeM3(offset) + ullage.volumeM3(over.offset(attitude) - offset);
        expect(Math.abs(sum / tank.capacityM3 - 1)).toBeLessThan(isExact(shape) ? 1e-9 : 1e-6);
      }),
      { numRuns: 1000 },
    );
  });

  test("a sliver of the last digit's width at the end of a nearly level tank is next to nothing", () => {
    const section = vee.map(([y, z]): SectionPoint => [-y, -z]);
    const tank = tilted({ kind: "prism", lengthM: 0.2, section }, turn(-1e-7));
    expect(tank.volumeM3(tank.low + 3e-16)).toBeLessThan(1e-15);
    expect(tank.volumeM3(tank.low + 1e-10)).toBeLessThan(1e-10);
  });

  test("volume rises with level, and the level of a volume gives it back", () => {
    fc.assert(
      fc.property(anyShape, anyAttitude, anyShare, anyShare, (shape, attitude, a, b) => {
        const tank = tilted(shape, attitude);
        const offset = tank.offsetOfVolume(a * tank.capacityM3);
        expect(Math.abs(tank.volumeM3(offset) / tank.capacityM3 - a)).toBeLessThan(1e-6);
        // Near a corner a volume of the last digit is a millionth of a metre of level: closer pairs say nothing.
        if (b - a > 1e-9) expect(offset).toBeLessThanOrEqual(tank.offsetOfVolume(b * tank.capacityM3) + 1e-8);
      }),
      { numRuns: 1000 },
    );
  });

  test("the surface is the slope of volume, and the centre the slope of its moments", () => {
    fc.assert(
      fc.property(
        anyShape,
        anyAttitude,
        fc.double({ min: 0.1, max: 0.9, noNaN: true }),
        (shape, attitude, share) => {
          const tank = tilted(shape, attitude);
          const offset = tank.low + share * (tank.high - tank.low);
          const step = 1e-5;
          const [a, b] = [tank.below(offset - step), tank.below(offset + step)];
          const { surfaceM2 } = tank.below(offset);
          const slope = (b.volumeM3 - a.volumeM3) / (2 * step);
          // A level wall at this very height is a jump; there the two need not agree.
          if (Math.abs(slope - tank.below(offset + 2 * step).surfaceM2) < 0.02 * slope)
            expect(Math.abs(surfaceM2 / slope - 1)).toBeLessThan(0.03);
          const centre = [b.xM4 / b.volumeM3, b.yM4 / b.volumeM3, b.zM4 / b.volumeM3];
          const up = upOf(attitude);
          const height = up[0] * (centre[0] ?? 0) + up[1] * (centre[1] ?? 0) + up[2] * (centre[2] ?? 0);
          expect(height).toBeGreaterThan(tank.low);
          expect(height).toBeLessThan(offset + step);
        },
      ),
      { numRuns: 200 },
    );
  });
});

/** The shape turned about its x axis by half a turn, and what two offsets of one surface add up to. */
function turnedOver(shape: TankShape): {
  tilt(attitude: Attitude): TiltedTank;
  offset(attitude: Attitude): number;
} {
  // Half a turn about x: y and z change sign. The vertical keeps its x part, so pitch changes sign with the turn.
  const tilt = ({ pitchDeg, rollDeg }: Attitude) => ({ pitchDeg: -pitchDeg, rollDeg });
  const flip = (points: readonly SectionPoint[]) => points.map(([y, z]): SectionPoint => [-y, -z]);
  if (shape.kind === "cylinder") {
    // A cylinder is its own turned form, but for where it lies.
    const d = shape.diameterM;
    const size = { x: d, y: d, z: d, [shape.axis]: shape.lengthM };
    return {
      tilt: (attitude) => tilted(shape, tilt(attitude)),
      offset: (attitude) => {
        const up = upOf(attitude);
        return up[1] * size.y + up[2] * size.z;
      },
    };
  }
  const over: TankShape =
    shape.kind === "loft"
      ? { ...shape, sections: shape.sections.map(({ xM, polygon }) => ({ xM, polygon: flip(polygon) })) }
      : { kind: "prism", lengthM: shape.lengthM, section: flip(sectionOf(shape)) };
  return { tilt: (attitude) => tilted(over, tilt(attitude)), offset: () => 0 };
}

describe("walls, sumps and what stands inside", () => {
  const form = (more: Partial<Tank>) => ({
    shape: { kind: "box", lengthM: 1, widthM: 0.5, heightM: 0.4 } as const,
    ...more,
  });
  test("outside sizes less the wall, by hand", () => {
    expect(capacityM3(form({ wallM: 0.005 }))).toBeCloseTo(0.99 * 0.49 * 0.39, 12);
    const vees = { shape: { kind: "prism", lengthM: 1, section: vee } as const, wallM: 0.01 };
    expect(capacityM3(vees) / 0.98).toBeCloseTo(polygonArea(insetPolygon(vee, 0.01)), 12);
    // Steiner: the area falls by perimeter times wall, but for corners of the order of the wall squared.
    const perimeter = vee.reduce(
      (sum, [y, z], i) =>
        sum + Math.hypot(y - (vee[(i + 1) % 6]?.[0] ?? 0), z - (vee[(i + 1) % 6]?.[1] ?? 0)),
      0,
    );
    expect(polygonArea(vee) - polygonArea(insetPolygon(vee, 0.01))).toBeCloseTo(perimeter * 0.01, 3);
  });
  test("a sump adds its cylinder, an internal takes its box", () => {
    const sump = { xM: 0.5, yM: 0.25, diameterM: 0.12, depthM: 0.08, holeM: 0.12 };
    expect(capacityM3(form({ sump }))).toBeCloseTo(0.2 + Math.PI * 0.0036 * 0.08, 9);
    const inside = {
      id: "i",
      name: "Pump",
      low: { xM: 0.2, yM: 0.1, zM: 0 },
      high: { xM: 0.3, yM: 0.2, zM: 0.2 },
    };
    expect(capacityM3(form({ internals: [inside] }))).toBeCloseTo(0.2 - 0.002, 12);
    expect(volumeAtLevelM3(form({ internals: [inside] }), 0.1)).toBeCloseTo(0.05 - 0.001, 12);
  });
});

describe("shapes that cannot be", () => {
  test.each<[string, TankShape, string, string]>([
    [
      "crossing",
      {
        kind: "prism",
        lengthM: 1,
        section: [
          [0, 0],
          [1, 1],
          [1, 0],
          [0, 1],
        ],
      },
      "shape.section",
      "crossingSection",
    ],
    ["millimetres as metres", { kind: "box", lengthM: 100, widthM: 1, heightM: 1 }, "shape", "unitSlip"],
    [
      "out of order",
      {
        kind: "loft",
        sections: [
          { xM: 1, polygon: vee },
          { xM: 0, polygon: vee },
        ],
      },
      "shape.sections[1].xM",
      "sectionsOutOfOrder",
    ],
    [
      "corners lost",
      {
        kind: "loft",
        sections: [
          { xM: 0, polygon: vee },
          { xM: 1, polygon: vee.slice(1) },
        ],
      },
      "shape.sections[1].polygon",
      "cornersDiffer",
    ],
    [
      "turned round",
      {
        kind: "loft",
        sections: [
          { xM: 0, polygon: vee },
          { xM: 1, polygon: [...vee].reverse() },
        ],
      },
      "shape.sections[1].polygon",
      "sensesDiffer",
    ],
  ])("%s: refused with its place", (_name, shape, path, code) => {
    expect(shapeFaults(shape)).toContainEqual(expect.objectContaining({ path, code }));
  });
  test("an outline that crosses itself is seen, a sound one is not blamed", () => {
    expect(
      crossesItself([
        [0, 0],
        [1, 1],
        [1, 0],
        [0, 1],
      ]),
    ).toBe(true);
    expect(crossesItself(vee)).toBe(false);
  });
});
