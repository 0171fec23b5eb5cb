import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Position } from "../kinds/record";
import { extremesOf, placeAlong, pointsOf } from "./along";
import { newRun } from "./blank";
import type { PlacedPort } from "./ports";
import { runGeometry } from "./route";

const at = (xM: number, yM: number, zM: number): Position => ({ xM, yM, zM });
const port = (position: Position): PlacedPort => ({
  ref: { part: "p", port: "a" },
  name: "a",
  ownerName: "p",
  role: "either",
  position,
  boreM: 0.01,
});
const [from, to] = [port(at(0, 0, 0)), port(at(3, 4, 0))];

describe("a run in the vehicle", () => {
  test("traced: the points as they are; length, rise and bends by hand", () => {
    const run = newRun("r", from.ref, to.ref, 9);
    run.route = { kind: "traced", points: [at(3, 0, 0), at(3, 0, 1), at(3, 4, 1)], radiusM: 0.1 };
    expect(pointsOf(run, from, to)).toHaveLength(5);
    const geometry = runGeometry(run, from, to);
    // Three right angles of 0.1 m each save 2 R - pi R / 2 of the way round by their points.
    expect(geometry.lengthM).toBeCloseTo(3 + 1 + 4 + 1 - 3 * (0.2 - 0.05 * Math.PI), 12);
    expect(geometry.bends90).toBe(3);
    expect(geometry.riseM).toBe(0);
  });

  test("measured: heights where they were found, laid straight in plan", () => {
    const run = newRun("r", from.ref, to.ref, 6);
    run.route = { kind: "measured", lengthM: 6, bends: [], extremes: [{ atM: 3, zM: 0.4 }] };
    expect(pointsOf(run, from, to)).toEqual([at(0, 0, 0), at(1.5, 2, 0.4), at(3, 4, 0)]);
  });

  test("a place along: halfway of two equal legs is their corner; ends are the ends", () => {
    const points = [at(0, 0, 0), at(2, 0, 0), at(2, 0, 2)];
    expect(placeAlong(points, 0.5)).toEqual(at(2, 0, 0));
    expect(placeAlong(points, 0)).toEqual(at(0, 0, 0));
    expect(placeAlong(points, 1)).toEqual(at(2, 0, 2));
    expect(placeAlong(points, 0.75)).toEqual(at(2, 0, 1));
  });

  test("a hump holds air, a sag holds water, a flat counts once, a slope is neither", () => {
    const line = (...zs: number[]) => zs.map((z, i) => at(i, 0, z));
    expect(extremesOf(line(0, 0.3, 0.1, 0.5))).toEqual([
      { kind: "high", at: 1, byM: expect.closeTo(0.2, 12) },
      { kind: "low", at: 2, byM: expect.closeTo(0.2, 12) },
    ]);
    expect(extremesOf(line(0, 0.3, 0.3, 0))).toEqual([{ kind: "high", at: 1, byM: expect.closeTo(0.3, 12) }]);
    expect(extremesOf(line(0, 0.1, 0.2, 0.3))).toEqual([]);
    expect(extremesOf(line(0, 0.003, 0))).toEqual([]);
  });

  test("highs and lows take turns along any run, and turning it about changes none of them", () => {
    const heights = fc.array(fc.integer({ min: -20, max: 20 }), { minLength: 3, maxLength: 12 });
    fc.assert(
      fc.property(heights, (zs) => {
        const points = zs.map((z, i) => at(i, 0, z / 10));
        const kinds = extremesOf(points).map(({ kind }) => kind);
        kinds.forEach((kind, i) => {
          if (i > 0) expect(kind).not.toBe(kinds[i - 1]);
        });
        const back = extremesOf([...points].reverse());
        expect(back.map(({ kind }) => kind).reverse()).toEqual(kinds);
      }),
    );
  });
});
