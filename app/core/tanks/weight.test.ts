/** Weight and moment of tanks against statics by hand: density times volume, at the middle of the fuel. */
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { newJob, newTank } from "../plan/blank";
import type { Tank } from "../plan/types";
import { allTanks, drainFirstM3, liftingKg, tankWeight } from "./weight";

const G = 9.80665;
const RHO = 835;
/** 1 x 0.5 x 0.4 m: 0.2 m3. */
const box = (id: string, yM: number, emptyKg?: number): Tank => ({
  ...newTank(id, id, { xM: 2, yM, zM: 0.1 }),
  ...(emptyKg === undefined ? {} : { emptyKg }),
});

describe("a box half full", () => {
  const weight = tankWeight(box("a", 0.3), 0.1, RHO);
  test("weighs its fuel, whose middle is at half its depth", () => {
    expect(weight.fuelKg).toBeCloseTo(83.5, 9);
    expect(weight.allKg).toBeCloseTo(83.5, 9);
    expect(weight.centre.xM).toBeCloseTo(2.5, 6);
    expect(weight.centre.yM).toBeCloseTo(0.55, 6);
    expect(weight.centre.zM).toBeCloseTo(0.1 + 0.1, 6);
  });
  test("puts its weight's moment on the boat", () => {
    expect(weight.listNm).toBeCloseTo(83.5 * G * 0.55, 4);
    expect(weight.trimNm).toBeCloseTo(83.5 * G * 2.5, 4);
  });
  test("with a shell of its own has its middle between both, by weight", () => {
    const { allKg, centre } = tankWeight(box("a", 0, 20), 0.1, RHO);
    expect(allKg).toBeCloseTo(103.5, 9);
    // Shell's middle at 0.2 over its floor, fuel's at 0.1.
    expect(centre.zM).toBeCloseTo(0.1 + (20 * 0.2 + 83.5 * 0.1) / 103.5, 6);
  });
});

describe("an empty tank", () => {
  test("weighs its shell, at the middle of its shape", () => {
    const { allKg, centre } = tankWeight(box("a", 0, 20), 0, RHO);
    expect([allKg, centre.xM, centre.zM]).toEqual([20, 2.5, 0.1 + 0.2]);
  });
  test("without a known shell weighs nothing, and has a place all the same", () => {
    const { allKg, listNm, centre } = tankWeight(box("a", 0), 0, RHO);
    expect([allKg, listNm]).toEqual([0, 0]);
    expect(Object.values(centre).every(Number.isFinite)).toBe(true);
  });
});

describe("all tanks", () => {
  const pair = (port: number, stbd: number) => {
    const job = newJob("j", "J");
    // Mirror images about the middle: y from 0.2 to 0.7 and from -0.7 to -0.2.
    job.tanks.push(box("p", 0.2), box("s", -0.7));
    return allTanks(job, { p: port, s: stbd }, RHO);
  };
  test("alike on both sides put no list on the boat", () => {
    const { listNm, centre, allKg } = pair(0.1, 0.1);
    expect(listNm).toBeCloseTo(0, 6);
    expect(centre?.yM).toBeCloseTo(0, 9);
    expect(allKg).toBeCloseTo(167, 9);
  });
  test("list to the side that holds more, by the difference at its arm", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 0.19, noNaN: true }),
        fc.double({ min: 0.01, max: 0.19, noNaN: true }),
        (p, s) => {
          const { listNm } = pair(p, s);
          expect(listNm).toBeCloseTo((p - s) * RHO * G * 0.45, 3);
        },
      ),
    );
  });
  test("of which none holds anything have no middle", () => {
    expect(pair(0, 0).centre).toBeNull();
  });
});

describe("what is drained before it is lifted", () => {
  const weight = tankWeight(box("a", 0, 20), 0.1, RHO);
  test("is what is over the means, and never more than there is", () => {
    expect(drainFirstM3(weight, liftingKg.cradleAndJack, RHO)).toBe(0);
    expect(drainFirstM3(weight, liftingKg.twoPeople, RHO) * RHO).toBeCloseTo(53.5, 9);
    expect(drainFirstM3(weight, liftingKg.hands, RHO) * RHO).toBeCloseTo(78.5, 9);
    // A shell that no hands lift is not made lighter by draining more than all.
    expect(drainFirstM3(weight, 5, RHO)).toBeCloseTo(0.1, 12);
  });
});
