import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { genericCircuit } from "../kinds/circuit";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { circuitFigures, supplyVolts, wireBearsA, wiringList } from "./circuit";

const read = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;

describe("circuits", () => {
  // Resistance of annealed copper at 20 degC, ohm/km: NBS Handbook 100 (1966), American wire gauge (from memory).
  test.each([
    [18, 0.8231, 20.95],
    [14, 2.081, 8.286],
    [12, 3.309, 5.211],
    [10, 5.261, 3.277],
    [8, 8.367, 2.061],
  ])("AWG %d, %d mm2: %d ohm/km within 0.1 %, warmed to 40 degC by 7.9 %%", (_gauge, mm2, ohmKm) => {
    const circuit = { ...genericCircuit(), runA: 1, peakA: 2, wireLengthM: 1000, wireAreaM2: mm2 * 1e-6 };
    const { dropV, peakDropV } = circuitFigures(circuit, 12, false);
    expect(Math.abs(dropV / (1 + 0.00393 * 20) / ohmKm - 1)).toBeLessThan(1e-3);
    expect(peakDropV).toBeCloseTo(2 * dropV, 9);
  });

  test("what wire bears goes down to the listed size, and is nothing under the least", () => {
    expect(wireBearsA(2.5e-6)).toBe(25);
    expect(wireBearsA(3.9e-6)).toBe(25);
    expect(wireBearsA(0.5e-6)).toBe(0);
  });

  test("the least wire holds the drop and bears fuse and peak; the next smaller does not", () => {
    const circuit = { ...genericCircuit(), runA: 8, peakA: 14, wireLengthM: 12, fuseA: 20 };
    const { leastAreaM2 } = circuitFigures(circuit, 12, false);
    expect(leastAreaM2).toBeCloseTo(2.5e-6, 12);
    const again = circuitFigures({ ...circuit, wireAreaM2: leastAreaM2! }, 12, false);
    expect(again.dropShare).toBeLessThanOrEqual(0.1);
    expect(again.wireBearsA).toBeGreaterThanOrEqual(20);
    const smaller = circuitFigures({ ...circuit, wireAreaM2: 1.5e-6 }, 12, false);
    expect(smaller.dropShare > 0.1 || smaller.wireBearsA < 20).toBe(true);
    expect(circuitFigures({ ...circuit, wireLengthM: 5000 }, 12, false).leastAreaM2).toBeNull();
  });

  test("a heater is held to 3 % at its peak, a pump to 10 % at its running current", () => {
    const circuit = { ...genericCircuit(), runA: 4, peakA: 12 };
    const heater = circuitFigures(circuit, 12, true);
    const pump = circuitFigures(circuit, 12, false);
    expect(heater.dropShare).toBeCloseTo(3 * pump.dropShare, 9);
    expect([heater.allowedShare, pump.allowedShare]).toEqual([0.03, 0.1]);
  });

  test("the wiring list of the truck: every circuit on 24 V; a job without a word of it is taken to carry 12", () => {
    const truck = read("unit-12");
    expect(wiringList(truck, currentPlan(truck)).map(({ partId }) => partId)).toEqual(["lift", "trans"]);
    const { supply: _, ...site } = truck.site;
    expect(supplyVolts(truck)).toBe(24);
    expect(supplyVolts({ site })).toBe(12);
  });
});
