import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { TankShape } from "../plan/types";
import {
  capacityM3,
  crossesItself,
  levelOfVolumeM,
  polygonArea,
  polygonBelow,
  sectionOf,
  volumeAtLevelM3,
} from "./shape";

const vee: TankShape = {
  kind: "prism",
  lengthM: 2,
  section: [
    [-0.1, 0],
    [0.1, 0],
    [0.5, 0.4],
    [0.5, 0.7],
    [-0.5, 0.7],
    [-0.5, 0.4],
  ],
};

describe("tank shapes standing level", () => {
  test("a box by hand", () => {
    const box: TankShape = { kind: "box", lengthM: 1.2, widthM: 0.5, heightM: 0.4 };
    expect(capacityM3(box)).toBeCloseTo(0.24, 12);
    expect(volumeAtLevelM3(box, 0.1)).toBeCloseTo(0.06, 12);
    expect(levelOfVolumeM(box, 0.12)).toBeCloseTo(0.2, 10);
  });

  test("a V section by trapezia (closed form)", () => {
    // Floor 0.2 wide rising to 1.0 wide at 0.4, then straight: (0.2 + 1.0)/2 * 0.4 + 1.0 * 0.3 = 0.54 m2.
    expect(capacityM3(vee)).toBeCloseTo(1.08, 12);
    expect(volumeAtLevelM3(vee, 0.2)).toBeCloseTo(2 * ((0.2 + 0.6) / 2) * 0.2, 12);
  });

  test("level is the inverse of volume, and rises with it", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (a, b) => {
          const capacity = capacityM3(vee);
          const level = levelOfVolumeM(vee, a * capacity);
          expect(volumeAtLevelM3(vee, level)).toBeCloseTo(a * capacity, 9);
          if (a < b) expect(level).toBeLessThanOrEqual(levelOfVolumeM(vee, b * capacity));
        },
      ),
    );
  });

  test("fuel and the air above it make the whole section", () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 0.7, noNaN: true }), (level) => {
        const section = sectionOf(vee);
        const flipped = section.map(([y, z]) => [y, -z] as [number, number]);
        const sum = polygonArea(polygonBelow(section, level)) + polygonArea(polygonBelow(flipped, -level));
        expect(sum / polygonArea(section)).toBeCloseTo(1, 9);
      }),
    );
  });

  test("an outline that crosses itself is seen", () => {
    expect(
      crossesItself([
        [0, 0],
        [1, 1],
        [1, 0],
        [0, 1],
      ]),
    ).toBe(true);
    expect(crossesItself(sectionOf(vee))).toBe(false);
  });
});
