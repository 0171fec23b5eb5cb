import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { freeAirFraction } from "~/core/fuel/dissolvedAir";
import { airOutPa } from "~/core/fuel/fuel";
import { fuelWay } from "~/core/hydraulics/route";
import { solveLineUp } from "~/core/hydraulics/solve";
import { buildNetwork } from "~/core/network/network";
import { currentPlan } from "~/core/plan/ports";
import type { Job, LineUp } from "~/core/plan/types";
import { metricUnits, usUnits } from "~/core/units/format";
import { axisMarks, fitNames, keelScale } from "./scale";

const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };
const plan = currentPlan(job);
const solved = solveLineUp(buildNetwork(job), plan.lineUps[0] as LineUp, plan.conditions);
if (solved.outcome !== "solved") throw new Error("not solved");
const way = fuelWay(solved);
if (!way) throw new Error("no way");
const box = { width: 1280, height: 268, left: 72, right: 24, top: 10, ribbon: 56, names: 26 };
const scale = keelScale(way, box, 20000);

describe("the Keel's scale", () => {
  test("goes from edge to edge, never back, hoses in proportion to their length", () => {
    const xs = scale.legs.flatMap(({ points }) => points.map(({ x }) => x));
    xs.forEach((x, i) => expect(x).toBeGreaterThanOrEqual((xs[i - 1] ?? 0) - 1e-9));
    expect(xs[0]).toBeCloseTo(box.left, 6);
    expect(xs.at(-1)).toBeCloseTo(box.width - box.right, 6);
    const perMetre = scale.legs
      .filter(({ leg }) => leg.kind === "run")
      .map(({ leg, points }) => ((points.at(-1)?.x ?? 0) - (points[0]?.x ?? 0)) / leg.lengthM);
    for (const one of perMetre) expect(one).toBeCloseTo(perMetre[0] ?? 0, 6);
  });

  test("draws vacuum taller than pressure, zero where the two meet", () => {
    expect(scale.y(0)).toBeCloseTo(scale.zeroY, 9);
    const perPaBelow = (scale.y(-10000) - scale.zeroY) / 10000;
    const perPaAbove = (scale.zeroY - scale.y(10000)) / 10000;
    expect(perPaBelow / perPaAbove).toBeGreaterThan(2);
    expect(scale.y(-20000)).toBeLessThanOrEqual(scale.plotBottom);
  });

  test("has room for what stood before as well", () => {
    const worse = {
      ...way,
      legs: way.legs.map((leg) => ({
        ...leg,
        points: leg.points.map((p) => ({ ...p, gaugePa: p.gaugePa - 40000 })),
      })),
    };
    const both = keelScale(way, box, 20000, worse.legs);
    for (const { points } of worse.legs)
      for (const { gaugePa } of points) expect(both.y(gaugePa)).toBeLessThanOrEqual(both.plotBottom + 1e-9);
  });

  test("a fuel's surface under all pipes, or over them, is drawn over the names and under the plot", () => {
    const heights = way.legs.flatMap(({ points }) => points.map(({ zM }) => zM));
    for (const surfaceM of [Math.min(...heights) - 0.6, Math.max(...heights) + 0.6]) {
      const { elevation, plotBottom } = keelScale(way, box, 20000, [], [surfaceM]);
      for (const zM of [surfaceM, ...heights]) {
        expect(elevation(zM)).toBeLessThanOrEqual(box.height - box.names);
        expect(elevation(zM)).toBeGreaterThanOrEqual(plotBottom);
      }
    }
  });

  test("air comes out where the law says the fraction is reached", () => {
    const { fuel, atmospherePa } = solved.settings;
    const pa = airOutPa(fuel, atmospherePa, 0.01);
    expect(freeAirFraction(fuel.ostwaldAir, atmospherePa, atmospherePa + pa, fuel.vapourPa)).toBeCloseTo(
      0.01,
      9,
    );
  });

  test("ticks are round and end within the axis", () => {
    const axis = { lowestPa: -30000, highestPa: 60000 };
    expect(axisMarks(axis, metricUnits, 5).map(({ value }) => value)).toEqual([50, -10, -20, -30]);
    for (const { pa, value } of axisMarks(axis, metricUnits, 5)) expect(pa).toBeCloseTo(value * 1000, 6);
    // 60 kPa is 8.7 psi, 30 kPa 8.9 inHg.
    const us = axisMarks(axis, usUnits, 5);
    expect(us.map(({ value }) => value)).toEqual([5, -2, -4, -6, -8]);
    expect(us[0]!.pa).toBeCloseTo(34473.8, 1);
    expect(us[1]!.pa).toBeCloseTo(-6772.8, 1);
  });

  test("names never overlap, and the chosen one is always among them", () => {
    for (const chosen of [null, "teePol", "valve1"]) {
      const shown = [...fitNames(scale.stations, 5.5, chosen)].map((i) => scale.stations[i]!);
      const spans = shown
        .map(({ station, x }) => [x - station.name.length * 2.75, x + station.name.length * 2.75] as const)
        .sort((a, b) => a[0] - b[0]);
      spans.forEach(([from], i) => i > 0 && expect(from).toBeGreaterThanOrEqual(spans[i - 1]![1]));
      if (chosen) expect(shown.some(({ station }) => station.id === chosen)).toBe(true);
    }
  });
});
