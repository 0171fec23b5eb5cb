/** What a pickup leaves behind, against the geometry of a box by hand. */
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { newTank } from "../plan/blank";
import type { Tank } from "../plan/types";
import {
  deadFuelM3,
  deadFuelMap,
  LEAST_CLEARANCE_M,
  leastClearanceM,
  pickupOptions,
  volumeMap,
  wellHoldsS,
  worstDeadFuel,
} from "./pickup";

/** 1 x 0.5 x 0.4 m. */
const box: Tank = newTank("t", "Tank", { xM: 0, yM: 0, zM: 0 });
const middle = { xM: 0.5, yM: 0.25, zM: 0.02 };
const LEVEL = { pitchDeg: 0, rollDeg: 0 };

describe("a box standing level", () => {
  test("keeps what lies under its lowest mouth: length times width times height", () => {
    expect(deadFuelM3(box, [middle], LEVEL)).toBeCloseTo(1 * 0.5 * 0.02, 9);
    expect(deadFuelM3(box, [middle, { ...middle, xM: 0.9, zM: 0.005 }], LEVEL)).toBeCloseTo(0.0025, 9);
    expect(deadFuelM3(box, [{ ...middle, zM: 0.5 }], LEVEL)).toBeCloseTo(0.2, 9);
  });
});

describe("a box that lies over", () => {
  test("with its mouth in the middle keeps a slice, the same whichever way it lies", () => {
    fc.assert(
      fc.property(fc.double({ min: -8, max: 8, noNaN: true }), (rollDeg) => {
        const dead = deadFuelM3(box, [middle], { pitchDeg: 0, rollDeg });
        expect(dead).toBeCloseTo(deadFuelM3(box, [middle], { pitchDeg: 0, rollDeg: -rollDeg }), 9);
        // Past the angle at which the floor comes clear on one side it grows; under it the mean depth stands.
        expect(dead).toBeGreaterThanOrEqual(0.01 - 1e-9);
      }),
    );
  });
  test("by hand: rolled so far that the floor is bare from the mouth's foot on, a wedge is left", () => {
    // The surface passes 20 mm over the middle at slope t: depth 0.02 + t y, bare where it is nothing.
    const tan = Math.tan((15 * Math.PI) / 180);
    const reach = 0.02 / tan;
    const wedge = 0.5 * (0.25 + reach) ** 2 * tan;
    expect(deadFuelM3(box, [middle], { pitchDeg: 0, rollDeg: 15 })).toBeCloseTo(wedge, 4);
  });
  test("two mouths at two ends never leave more than either", () => {
    const ends = [
      { xM: 0.05, yM: 0.25, zM: 0.02 },
      { xM: 0.95, yM: 0.25, zM: 0.02 },
    ];
    for (const pitchDeg of [-10, -3, 0, 4, 12]) {
      const both = deadFuelM3(box, ends, { pitchDeg, rollDeg: 0 });
      for (const one of ends)
        expect(both).toBeLessThanOrEqual(deadFuelM3(box, [one], { pitchDeg, rollDeg: 0 }) + 1e-12);
    }
  });
});

describe("maps over attitudes", () => {
  const reach = { pitchDeg: 10, rollDeg: 20 };
  const map = deadFuelMap(box, [middle], reach, 9);
  test("run from end to end and hold the level in their middle", () => {
    expect([map.pitchesDeg[0], map.pitchesDeg.at(-1), map.rollsDeg[0], map.rollsDeg.at(-1)]).toEqual([
      -10, 10, -20, 20,
    ]);
    expect(map.deadM3[4 * 9 + 4]).toBeCloseTo(0.01, 9);
  });
  test("have no attitude worse than the worst of the envelope, which is in it", () => {
    const worst = worstDeadFuel(box, [middle], reach);
    expect(Math.max(...map.deadM3)).toBeLessThanOrEqual(worst.deadM3 + 1e-6);
    expect(Math.abs(worst.attitude.rollDeg)).toBeLessThanOrEqual(20 + 1e-9);
  });
  test("of volumes rise with the surface from nothing to all", () => {
    const volumes = volumeMap(box, reach, 3, 5);
    for (let at = 0; at < volumes.length; at += 5) {
      expect(volumes[at]).toBeCloseTo(0, 9);
      expect(volumes[at + 4]).toBeCloseTo(0.2, 6);
      for (let k = 1; k < 5; k++) expect(volumes[at + k]).toBeGreaterThan(volumes[at + k - 1] as number);
    }
  });
});

describe("other pickups, side by side", () => {
  const port = { ...box.ports[0]!, mouth: { xM: 0.1, yM: 0.25, zM: 0.05 } };
  const options = pickupOptions(box, port, { pitchDeg: 5, rollDeg: 10 });
  test("are deeper, a sump, and a second at the other end; each leaves no more than as found", () => {
    expect(options.map(({ kind }) => kind)).toEqual(["asFound", "deeper", "sump", "second"]);
    for (const { levelM3, worstM3 } of options.slice(1)) {
      expect(levelM3).toBeLessThanOrEqual((options[0]?.levelM3 ?? 0) + 1e-12);
      expect(worstM3).toBeLessThanOrEqual((options[0]?.worstM3 ?? 0) + 1e-12);
    }
  });
  test("are not offered where they are already so", () => {
    const low = { ...port, mouth: { xM: 0.5, yM: 0.25, zM: 0.003 } };
    expect(pickupOptions(box, low, { pitchDeg: 5, rollDeg: 10 }).map(({ kind }) => kind)).toEqual([
      "asFound",
      "sump",
    ]);
  });
});

test("a square mouth stands a quarter of its bore over the floor: its rim then passes as much as its bore", () => {
  expect(leastClearanceM("square", 0.02)).toBe(0.005);
  expect(Math.PI * 0.02 * leastClearanceM("square", 0.02)).toBeCloseTo((Math.PI / 4) * 0.02 ** 2, 12);
  expect(leastClearanceM("square", 0.004)).toBe(LEAST_CLEARANCE_M.bevelled);
  expect(leastClearanceM("bevelled", 0.02)).toBe(LEAST_CLEARANCE_M.bevelled);
});

describe("a well round the pickup", () => {
  const welled = (holes: number): Tank => ({
    ...box,
    well: {
      low: { xM: 0.4, yM: 0.15, zM: 0 },
      high: { xM: 0.6, yM: 0.35, zM: 0.2 },
      holeBoreM: 0.004,
      holes,
    },
  });
  const feedM3S = 200 / 3.6e6;
  test("without holes feeds its volume over the mouth", () => {
    const seconds = wellHoldsS(welled(0), middle, feedM3S);
    expect(seconds).toBeCloseTo((0.2 * 0.2 * 0.18) / feedM3S, 0);
  });
  test("with holes feeds less long, the more the less", () => {
    const [none, two, eight] = [0, 2, 8].map((holes) => wellHoldsS(welled(holes), middle, feedM3S) as number);
    expect(two).toBeLessThan(none as number);
    expect(eight).toBeLessThan(two as number);
  });
  test("that is none holds nothing to tell of; a mouth over its rim holds nothing", () => {
    expect(wellHoldsS(box, middle, feedM3S)).toBeNull();
    expect(wellHoldsS(welled(2), { ...middle, zM: 0.25 }, feedM3S)).toBe(0);
  });
});
