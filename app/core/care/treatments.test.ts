/** Treatments held against each other: the polish against a slow count of an hour's steps, the rest by hand. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { fuelAt } from "../fuel/fuel";
import { LineUpSolver } from "../hydraulics/solve";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { underMouthsM3 } from "../tanks/tank";
import { commonPolish, polishCourse, polishHours, polishWay, treatments } from "./treatments";

const job = (JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job }).job;
const plan = currentPlan(job);
const solver = new LineUpSolver(buildNetwork(job, plan));
const tank = job.tanks.find((one) => polishWay(solver, plan, one) !== null)!;
const L = 1e-3;

/** 340 L at 180 L/h, as the worked case of the trade's 'ten passes'. */
const task = { ...commonPolish, volumeM3: 340 * L, flowM3S: (180 * L) / 3600 };

/** Two parts of a tank by small steps of time, as they are: nothing but what flows in and out. */
function slowly(hours: number, dead: number, exchange: number): { tank: number; line: number } {
  const [v1, v2] = [(1 - dead) * 340, dead * 340];
  const q = exchange * 180;
  let [c1, c2] = [1, 1];
  const step = 1 / 2000;
  for (let t = 0; t < hours; t += step) {
    const d1 = (-(0.9 * 180 + q) * c1 + q * c2) / v1;
    const d2 = (q * (c1 - c2)) / v2;
    c1 += d1 * step;
    c2 += d2 * step;
  }
  return { tank: (1 - dead) * c1 + dead * c2, line: c1 };
}

describe("hours of a polish", () => {
  const { mixedH, deadH } = polishHours(task);
  const turnovers = (hours: number | null) => ((hours ?? 0) * 180) / 340;
  test("3.3 turnovers where it mixes, 10.3 where a quarter stands still", () => {
    // exp(-0.9 n) = 0.05, by hand.
    expect(turnovers(mixedH)).toBeCloseTo(-Math.log(0.05) / 0.9, 6);
    expect(turnovers(deadH)).toBeGreaterThan(10.2);
    expect(turnovers(deadH)).toBeLessThan(10.4);
  });
  test("by small steps of time the tank is there at that hour, and the line looks cleaner than it", () => {
    const there = slowly(deadH!, 0.25, 0.05);
    expect(there.tank).toBeCloseTo(0.05, 3);
    expect(there.line).toBeLessThan(there.tank / 3);
    const course = polishCourse(task, 4);
    expect(course.at(-1)?.hours).toBeCloseTo(1.15 * deadH!, 9);
    const half = slowly(course[2]!.hours, 0.25, 0.05);
    expect(course[2]?.tank).toBeCloseTo(half.tank, 3);
    expect(course[2]?.line).toBeCloseTo(half.line, 3);
  });
  test("what stands still and is never stirred is never clean", () => {
    const still = { ...task, exchangeShare: 1e-12 };
    expect(polishHours(still).deadH).toBeNull();
    expect(polishCourse(still).at(-1)?.hours).toBeCloseTo(1.15 * 4 * mixedH!, 6);
    expect(polishCourse({ ...task, flowM3S: 0 })).toEqual([]);
    expect(polishHours({ ...task, flowM3S: 0 })).toEqual({ mixedH: null, deadH: null });
  });
});

describe("on Marram", () => {
  const fuel = fuelAt(job.fuel, plan.conditions.fuelC)!;
  const way = polishWay(solver, plan, tank);
  const foul = { tank, aboardM3: 0.212, fuel, way, task: commonPolish, biocidePerM3: 0.0002 };
  const list = treatments(foul);
  const of = (kind: string) => list.find((one) => one.kind === kind)!;
  test("each keeps its own account", () => {
    expect(list.map(({ kind }) => kind)).toEqual(["strip", "settle", "polish", "treat", "discard"]);
    expect(of("strip").lostM3).toBeCloseTo(underMouthsM3(tank), 12);
    expect(of("strip").hours[0]).toBeCloseTo(underMouthsM3(tank) / L / 2 / 60, 9);
    expect(of("discard")).toMatchObject({ lostM3: 0.212, remains: 0 });
    // 20 mL for 100 L.
    expect(of("treat").doseM3).toBeCloseTo(0.212 * 0.0002, 12);
    // A drop of a fifth of the size takes twenty-five times as long.
    const [coarse, fine] = of("settle").hours;
    expect(fine! / coarse!).toBeCloseTo(25, 9);
  });
  test("polishes by the line-up that draws from the tank, and by none where no line-up does", () => {
    expect(way!.flowM3S).toBeGreaterThan(0);
    expect(of("polish").hours[0]).toBeCloseTo(((-Math.log(0.05) / 0.9) * 0.212) / way!.flowM3S / 3600, 4);
    expect(of("polish").elements).toBeGreaterThan(0);
    const without = { ...plan, lineUps: plan.lineUps.filter(({ purpose }) => purpose !== "polish") };
    expect(polishWay(solver, without, tank)).toBeNull();
    expect(treatments({ ...foul, way: null }).find(({ kind }) => kind === "polish")).toMatchObject({
      hours: [null, null],
      remains: 1,
    });
  });
});
