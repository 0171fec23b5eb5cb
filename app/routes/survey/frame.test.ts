import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { SectionPoint } from "~/core/plan/types";
import { frameOf, H, W } from "./frame";

const vee: SectionPoint[] = [
  [0.3, 0],
  [0.44, 0],
  [0.68, 0.34],
  [0.68, 0.62],
  [0, 0.62],
  [0, 0.36],
];
const anyTurn = fc.double({ min: -45, max: 45, noNaN: true });

describe("the tank's plane on the picture", () => {
  test("a point goes to the picture and back, at any tilt, whichever way the first axis runs", () => {
    fc.assert(
      fc.property(
        anyTurn,
        fc.boolean(),
        fc.double({ min: -1, max: 1, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        (turn, flip, u, z) => {
          const frame = frameOf(vee, turn, flip);
          const [u2, z2] = frame.back(frame.place([u, z]));
          expect(u2).toBeCloseTo(u, 9);
          expect(z2).toBeCloseTo(z, 9);
        },
      ),
    );
  });

  test("the whole outline lies within the picture at any tilt, to one scale", () => {
    fc.assert(
      fc.property(anyTurn, fc.boolean(), (turn, flip) => {
        const { place, scale } = frameOf(vee, turn, flip);
        const placed = vee.map(place);
        for (const [x, y] of placed) {
          expect(x).toBeGreaterThanOrEqual(0);
          expect(x).toBeLessThanOrEqual(W);
          expect(y).toBeGreaterThanOrEqual(0);
          expect(y).toBeLessThanOrEqual(H);
        }
        const [[x0, y0], [x1, y1]] = placed as [[number, number], [number, number]];
        expect(Math.hypot(x1 - x0, y1 - y0)).toBeCloseTo(0.14 * scale, 9);
      }),
    );
  });

  test("port is on the left looking forward, and starboard goes down with a positive roll", () => {
    const { place } = frameOf(vee, 10, true);
    const [port, starboard] = [place([0.68, 0.62]), place([0, 0.62])];
    expect(port[0]).toBeLessThan(starboard[0]);
    expect(starboard[1]).toBeGreaterThan(port[1]);
  });

  test("forward is on the right from the side, and the bow goes up with a positive pitch", () => {
    const { place } = frameOf(vee, -10, false);
    const [aft, forward] = [place([0, 0.62]), place([0.68, 0.62])];
    expect(forward[0]).toBeGreaterThan(aft[0]);
    expect(forward[1]).toBeLessThan(aft[1]);
  });
});
