/** What must hold of any solid, whatever its formula: cut, moved, mirrored, scaled or described in another way. */
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { LoftSection, SectionPoint, TankShape } from "../plan/types";
import { type Attitude, upOf } from "./attitude";
import { polygonArea } from "./polygon";
import { planOf, profileAt, reachOver, sectionAt, sectionOf } from "./shape";
import { hull as hullTank } from "./shapes.fixture";
import { TiltedTank } from "./tank";

const angle = fc.double({ min: -45, max: 45, noNaN: true });
const attitude = fc.record({ pitchDeg: angle, rollDeg: angle });
const share = fc.double({ min: 0.02, max: 0.98, noNaN: true });
const size = fc.double({ min: 0.1, max: 1.5, noNaN: true });
const tilted = (shape: TankShape, held: Attitude) => new TiltedTank({ shape }, held);
const offsetIn = (tank: TiltedTank, part: number) => tank.low + part * (tank.high - tank.low);
const rectangle = (y: number, z: number, w: number, h: number): SectionPoint[] => [
  [y, z],
  [y + w, z],
  [y + w, z + h],
  [y, z + h],
];
const hull: LoftSection[] = hullTank.sections;

describe("cut in two, a solid holds what its parts hold", () => {
  test("a step tank is two boxes", () => {
    fc.assert(
      fc.property(size, size, size, size, attitude, share, (w1, w2, h1, h2, held, part) => {
        const step: SectionPoint[] = [
          [0, 0],
          [w1 + w2, 0],
          [w1 + w2, h1],
          [w1, h1],
          [w1, h1 + h2],
          [0, h1 + h2],
        ];
        const whole = tilted({ kind: "prism", lengthM: 0.9, section: step }, held);
        const offset = offsetIn(whole, part);
        const parts = [rectangle(0, 0, w1, h1 + h2), rectangle(w1, 0, w2, h1)].map((section) =>
          tilted({ kind: "prism", lengthM: 0.9, section }, held).below(offset),
        );
        const { volumeM3, xM4, yM4, zM4 } = whole.below(offset);
        const sum = (of: (one: (typeof parts)[number]) => number) =>
          parts.reduce((all, one) => all + of(one), 0);
        expect(volumeM3).toBeCloseTo(
          sum((one) => one.volumeM3),
          10,
        );
        expect(xM4).toBeCloseTo(
          sum((one) => one.xM4),
          10,
        );
        expect(yM4).toBeCloseTo(
          sum((one) => one.yM4),
          10,
        );
        expect(zM4).toBeCloseTo(
          sum((one) => one.zM4),
          10,
        );
      }),
    );
  });

  test("a hull with one more section between, on its own straight corners, is the same hull", () => {
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 0.75, noNaN: true }), attitude, share, (xM, held, part) => {
        const more = [
          hull[0],
          { xM, polygon: sectionAt({ kind: "loft", sections: hull }, xM) },
          hull[1],
          hull[2],
        ] as LoftSection[];
        const [one, two] = [
          tilted({ kind: "loft", sections: hull }, held),
          tilted({ kind: "loft", sections: more }, held),
        ];
        const offset = offsetIn(one, part);
        expect(two.volumeM3(offset)).toBeCloseTo(one.volumeM3(offset), 8);
        expect(two.below(offset).zM4).toBeCloseTo(one.below(offset).zM4, 8);
      }),
    );
  });

  test("a cylinder cut across its axis is two shorter ones", () => {
    fc.assert(
      fc.property(fc.double({ min: 0.2, max: 0.8, noNaN: true }), angle, share, (cut, rollDeg, part) => {
        // Held without pitch the two lie along the same level, so that the second may start at the origin.
        const held = { pitchDeg: 0, rollDeg };
        const of = (lengthM: number) =>
          tilted({ kind: "cylinder", axis: "x", diameterM: 0.5, lengthM }, held);
        const whole = of(1);
        const offset = offsetIn(whole, part);
        expect(of(cut).volumeM3(offset) + of(1 - cut).volumeM3(offset)).toBeCloseTo(
          whole.volumeM3(offset),
          9,
        );
      }),
    );
  });
});

describe("described in another way, it is the same solid", () => {
  test("a loft of one section twice is the prism", () => {
    fc.assert(
      fc.property(attitude, share, (held, part) => {
        const section = hull[0]?.polygon as SectionPoint[];
        const prism = tilted({ kind: "prism", lengthM: 1.1, section }, held);
        // Another record of the same corners, so that it is not taken for a prism.
        const loft = tilted(
          {
            kind: "loft",
            sections: [
              { xM: 0, polygon: section },
              { xM: 1.1, polygon: section.map(([y, z]): SectionPoint => [y, z]) },
            ],
          },
          held,
        );
        const offset = offsetIn(prism, part);
        expect(loft.volumeM3(offset)).toBeCloseTo(prism.volumeM3(offset), 10);
        // The closed form of a prism against its own sum side by side.
        expect(prism.below(offset).volumeM3).toBeCloseTo(prism.volumeM3(offset), 10);
        expect(prism.below(offset).surfaceM2).toBeCloseTo(loft.below(offset).surfaceM2, 8);
      }),
    );
  });

  test("a box is its section drawn out, run round either way", () => {
    fc.assert(
      fc.property(size, size, size, attitude, share, (lengthM, widthM, heightM, held, part) => {
        const box = tilted({ kind: "box", lengthM, widthM, heightM }, held);
        const back = tilted(
          { kind: "prism", lengthM, section: rectangle(0, 0, widthM, heightM).reverse() },
          held,
        );
        const offset = offsetIn(box, part);
        expect(back.volumeM3(offset)).toBeCloseTo(box.volumeM3(offset), 10);
      }),
    );
  });

  test("a cylinder lying across, rolled, is one lying fore and aft, pitched as much", () => {
    fc.assert(
      fc.property(angle, share, fc.constantFrom(0, 0.07), (deg, part, endDepthM) => {
        const of = (axis: "x" | "y", held: Attitude) =>
          tilted({ kind: "cylinder", axis, diameterM: 0.4, lengthM: 0.9, endDepthM }, held);
        const [along, across] = [
          of("x", { pitchDeg: deg, rollDeg: 0 }),
          of("y", { pitchDeg: 0, rollDeg: deg }),
        ];
        expect(across.volumeM3(offsetIn(across, part))).toBeCloseTo(along.volumeM3(offsetIn(along, part)), 9);
      }),
    );
  });

  test("a standing cylinder does not mind which way it leans", () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 40, noNaN: true }), share, (deg, part) => {
        const shape: TankShape = {
          kind: "cylinder",
          axis: "z",
          diameterM: 0.5,
          lengthM: 0.7,
          endDepthM: 0.05,
        };
        const [bow, side] = [
          tilted(shape, { pitchDeg: deg, rollDeg: 0 }),
          tilted(shape, { pitchDeg: 0, rollDeg: -deg }),
        ];
        expect(side.volumeM3(offsetIn(side, part))).toBeCloseTo(bow.volumeM3(offsetIn(bow, part)), 9);
      }),
    );
  });

  test("mirrored port to starboard and rolled the other way", () => {
    fc.assert(
      fc.property(attitude, share, ({ pitchDeg, rollDeg }, part) => {
        const mirror = hull.map(({ xM, polygon }) => ({
          xM,
          polygon: polygon.map(([y, z]): SectionPoint => [-y, z]),
        }));
        const [one, two] = [
          tilted({ kind: "loft", sections: hull }, { pitchDeg, rollDeg }),
          tilted({ kind: "loft", sections: mirror }, { pitchDeg, rollDeg: -rollDeg }),
        ];
        const offset = offsetIn(one, part);
        expect(two.volumeM3(offset)).toBeCloseTo(one.volumeM3(offset), 9);
        expect(two.below(offset).yM4).toBeCloseTo(-one.below(offset).yM4, 9);
      }),
    );
  });

  test("scaled by k, volume goes by its cube, surface and wall by its square", () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 3, noNaN: true }), attitude, share, (k, held, part) => {
        const big = hull.map(({ xM, polygon }) => ({
          xM: k * xM,
          polygon: polygon.map(([y, z]): SectionPoint => [k * y, k * z]),
        }));
        const [one, two] = [
          tilted({ kind: "loft", sections: hull }, held),
          tilted({ kind: "loft", sections: big }, held),
        ];
        const [a, b] = [one.below(offsetIn(one, part)), two.below(offsetIn(two, part))];
        expect(b.volumeM3 / a.volumeM3).toBeCloseTo(k ** 3, 6);
        expect(b.surfaceM2 / a.surfaceM2).toBeCloseTo(k ** 2, 6);
        expect(b.wettedM2 / a.wettedM2).toBeCloseTo(k ** 2, 6);
      }),
    );
  });
});

describe("walls and surfaces by hand", () => {
  test("a full box is wet all round, a full cylinder by its side and ends, a ball by 4 pi r^2", () => {
    const full = (shape: TankShape) => {
      const tank = tilted(shape, { pitchDeg: 3, rollDeg: 4 });
      return tank.below(tank.high).wettedM2;
    };
    expect(full({ kind: "box", lengthM: 1, widthM: 0.5, heightM: 0.4 })).toBeCloseTo(
      2 * (0.5 + 0.4 + 0.2),
      9,
    );
    const r = 0.3;
    expect(full({ kind: "cylinder", axis: "y", diameterM: 2 * r, lengthM: 0.8 })).toBeCloseTo(
      2 * Math.PI * r * (r + 0.8),
      9,
    );
    const ball = full({ kind: "cylinder", axis: "x", diameterM: 2 * r, lengthM: 1e-9, endDepthM: r });
    expect(ball / (4 * Math.PI * r * r)).toBeCloseTo(1, 4);
  });

  test("the surface of a level lying cylinder is its chord by its length", () => {
    const tank = tilted(
      { kind: "cylinder", axis: "x", diameterM: 0.5, lengthM: 1.2 },
      { pitchDeg: 0, rollDeg: 0 },
    );
    // 3-4-5: the chord 0.15 under the middle of a circle of 0.25 is 2 * 0.2 wide.
    expect(tank.below(0.1).surfaceM2).toBeCloseTo(1.2 * 0.4, 9);
  });

  test("the true vertical has unit length and tips as the frame says", () => {
    fc.assert(fc.property(attitude, (held) => expect(Math.hypot(...upOf(held))).toBeCloseTo(1, 12)));
    expect(upOf({ pitchDeg: 30, rollDeg: 0 })[0]).toBeCloseTo(0.5, 12);
    expect(upOf({ pitchDeg: 0, rollDeg: 30 })[1]).toBeCloseTo(0.5, 12);
  });
});

describe("outlines for drawing", () => {
  test("a section between two stands half way, and a place beyond the ends takes the end's", () => {
    const loft: TankShape = { kind: "loft", sections: hull };
    expect(sectionAt(loft, 0.4)[1]).toEqual([expect.closeTo(0.225, 12), 0]);
    expect(sectionAt(loft, -5)).toEqual(hull[0]?.polygon);
    expect(sectionAt(loft, 5)).toEqual(hull[2]?.polygon);
  });
  test("the drawn circle is within 0.2 % of the circle", () => {
    const drawn = sectionOf({ kind: "cylinder", axis: "x", diameterM: 0.6, lengthM: 1 });
    expect(polygonArea(drawn) / (Math.PI * 0.09)).toBeCloseTo(1, 2);
  });
  test("side and plan of a prism are rectangles; a dished cylinder stands out by its ends", () => {
    const prism: TankShape = { kind: "prism", lengthM: 1.5, section: hull[0]?.polygon as SectionPoint[] };
    expect(polygonArea(planOf(prism))).toBeCloseTo(1.5 * 0.7, 12);
    const reach = reachOver(prism.section, 0.1) as [number, number];
    expect(polygonArea(profileAt(prism, 0.1))).toBeCloseTo(1.5 * (reach[1] - reach[0]), 12);
    expect(reachOver(prism.section, 5)).toBeNull();
    const dished = profileAt(
      { kind: "cylinder", axis: "x", diameterM: 0.6, lengthM: 1, endDepthM: 0.1 },
      0.3,
    );
    const xs = dished.map(([x]) => x);
    expect(Math.max(...xs)).toBeCloseTo(1.1, 9);
    expect(Math.min(...xs)).toBeCloseTo(-0.1, 9);
  });
});
