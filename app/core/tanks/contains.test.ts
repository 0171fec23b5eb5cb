import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { TankShape } from "../plan/types";
import { outsideOf } from "./contains";
import { hull } from "./shapes.fixture";

const box: TankShape = { kind: "box", lengthM: 1, widthM: 0.5, heightM: 0.4 };
const drum: TankShape = { kind: "cylinder", axis: "x", lengthM: 1, diameterM: 0.6 };

describe("a place outside its tank", () => {
  test.each([
    ["in the middle", 0.5, 0.25, 0.2, null, 0],
    ["on the wall", 1, 0.5, 0.4, null, 0],
    ["past the end", 1.2, 0.25, 0.2, "end", 0.2],
    ["before the end", -0.1, 0.25, 0.2, "end", 0.1],
    ["past the side", 0.5, 0.6, 0.2, "side", 0.1],
    ["under the floor", 0.5, 0.25, -0.05, "floor", 0.05],
    ["over the top", 0.5, 0.25, 0.7, "top", 0.3],
  ])("box: %s", (_, xM, yM, zM, beyond, byM) => {
    const outside = outsideOf({ shape: box }, { xM, yM, zM });
    if (beyond === null) expect(outside).toBeNull();
    else expect(outside).toEqual({ beyond, byM: expect.closeTo(byM, 9) });
  });

  test("a wall takes room from the floor, a sump gives some", () => {
    const at = { xM: 0.5, yM: 0.25, zM: 0.004 };
    expect(outsideOf({ shape: box, wallM: 0.006 }, at)).toMatchObject({ beyond: "floor" });
    const sump = { xM: 0.5, yM: 0.25, diameterM: 0.1, depthM: 0.12, holeM: 0.05 };
    expect(outsideOf({ shape: box, sump }, { ...at, zM: -0.11 })).toBeNull();
    expect(outsideOf({ shape: box, sump }, { ...at, xM: 0.7, zM: -0.11 })).toMatchObject({ byM: 0.11 });
  });

  test("a lying drum: inside just where the circle is, by Pythagoras", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 10, max: 590 }).map((mm) => mm / 1000),
        fc.integer({ min: -300, max: 900 }).map((mm) => mm / 1000),
        (yM, zM) => {
          const r = Math.hypot(yM - 0.3, zM - 0.3);
          fc.pre(Math.abs(r - 0.3) > 2e-3 && Math.abs(yM - 0.3) < 0.29);
          // Beyond the circle's own height at that y, by more than a millimetre.
          const gap = Math.abs(zM - 0.3) - Math.sqrt(0.09 - (yM - 0.3) ** 2);
          fc.pre(Math.abs(gap) > 2e-3);
          expect(outsideOf({ shape: drum }, { xM: 0.5, yM, zM }) === null).toBe(r < 0.3);
        },
      ),
    );
  });

  test("a hull's side is where its corners stand", () => {
    const { x, y } = {
      x: hull.sections.map(({ xM }) => xM),
      y: hull.sections[0]?.polygon.map(([one]) => one) ?? [],
    };
    const at = { xM: x[0] ?? 0, yM: Math.max(...y) + 0.05, zM: 0.2 };
    expect(outsideOf({ shape: hull as TankShape }, at)).toEqual({
      beyond: "side",
      byM: expect.closeTo(0.05, 9),
    });
  });
});
