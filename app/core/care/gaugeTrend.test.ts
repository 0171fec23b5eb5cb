/** A gauge's readings as its filter's loading: made by the solver itself at loadings that are known, they come back. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import type { VacuumReading } from "../book/entries";
import { applyCommand } from "../edit/commands";
import { gaugeAtPort } from "../hydraulics/derive";
import { LineUpSolver } from "../hydraulics/solve";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { gaugeTrend, trendReport } from "./gaugeTrend";
import { loadingFromReading } from "./loadingFromReading";

const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };
const plan = currentPlan(job);
const network = buildNetwork(job);
const solver = new LineUpSolver(network);
const lineUp = plan.lineUps[0]!;

/** What the gauge would read with the separator loaded so, at another load and temperature each time. */
function reading(id: string, day: number, loading: number, more: Partial<VacuumReading> = {}): VacuumReading {
  const conditions = {
    ...plan.conditions,
    fuelC: 8 + (day % 13),
    load: { ...plan.conditions.load, engine: 0.6 + 0.05 * (day % 8) },
    loading: { ...plan.conditions.loading, elSep1: 1 },
  };
  const solved = solver.solve(lineUp, { ...conditions, loading: { ...conditions.loading, elSep1: loading } });
  if (solved.outcome !== "solved") throw new Error(solved.outcome);
  return {
    id,
    kind: "vacuum",
    at: new Date(Date.UTC(2026, 5, 1 + day)).toISOString(),
    planId: plan.id,
    planHash: "",
    gaugeId: "vacuum",
    lineUpId: lineUp.id,
    vacuumPa: -gaugeAtPort(solved, "vacuum.a"),
    conditions,
    note: "",
    ...more,
  };
}
const days = [0, 30, 61, 95, 140];
const grown = (day: number) => 1.1 + 0.012 * day;

describe("readings of a gauge", () => {
  test("at other loads and temperatures come back as the loading they were made with", () => {
    const book = days.map((day, i) => reading(`r${i}`, day, grown(day)));
    const trend = gaugeTrend(network, book, "vacuum");
    expect(trend?.filter.id).toBe("sep1");
    expect(trend?.by).toBe("days");
    trend?.points.forEach(({ x, loading }, i) => {
      expect(x).toBeCloseTo(days[i] as number, 6);
      expect(loading).toBeCloseTo(grown(days[i] as number), 2);
    });
    // A straight growth: the cake's law says when it is at what the limit is, found by bisection on the plan itself.
    const cake = trend?.weighed?.fits.find(({ order }) => order === 0)?.trend;
    const { conditions } = book.at(-1)!;
    const lineUp = plan.lineUps.find(({ id }) => id === book.at(-1)!.lineUpId)!;
    const limit = loadingFromReading(network, lineUp, conditions, "vacuum", 20_000);
    if (limit.outcome !== "loading") throw new Error(limit.outcome);
    expect(trend?.limitPa).toBe(20_000);
    expect(trend?.target).toBeCloseTo(limit.loading, 1);
    expect(cake?.due).toBeCloseTo((limit.loading - 1.1) / 0.012, -1);
    expect(trend?.weighed?.earliest ?? Infinity).toBeLessThan(cake?.due ?? 0);
  });

  test("under a clean one are kept with their spread, and stand in any order in the book", () => {
    const book = [reading("b", 40, 1.3), reading("a", 0, 0.8), reading("c", 80, 1.7)];
    const points = gaugeTrend(network, book, "vacuum")?.points ?? [];
    expect(points.map(({ entryId }) => entryId)).toEqual(["a", "b", "c"]);
    expect(points[0]?.loading).toBeCloseTo(0.8, 2);
    for (const { plusMinus } of points) expect(plusMinus).toBeGreaterThan(0.01);
  });

  test("are held against the limit that the user typed, in place of the common one", () => {
    const own = structuredClone(job);
    const gauge = currentPlan(own).parts.find(({ id }) => id === "vacuum");
    if (gauge?.kind !== "gauge") throw new Error("no gauge");
    gauge.changeAtPa = 12_000;
    const book = days.map((day, i) => reading(`r${i}`, day, grown(day)));
    const [strict, common] = [
      gaugeTrend(buildNetwork(own), book, "vacuum")!,
      gaugeTrend(network, book, "vacuum")!,
    ];
    expect(strict.limitPa).toBe(12_000);
    expect(strict.weighed!.due!).toBeLessThan(common.weighed!.due!);
  });

  test("go by engine hours where every one has them", () => {
    const book = days.map((day, i) => reading(`r${i}`, day, grown(day), { engineH: 400 + 3 * day }));
    expect(gaugeTrend(network, book, "vacuum")?.by).toBe("hours");
    const { engineH: _, ...without } = book[2]!;
    expect(gaugeTrend(network, [...book.slice(0, 2), without, ...book.slice(3)], "vacuum")?.by).toBe("days");
  });

  test("from before the element was fitted are not of it", () => {
    const fitted = structuredClone(job);
    const sep = currentPlan(fitted).parts.find(({ id }) => id === "sep1");
    if (sep?.kind !== "filter" || !sep.element) throw new Error("no element");
    sep.element.fittedOn = "2026-07-20";
    const book = days.map((day, i) => reading(`r${i}`, day, grown(day)));
    expect(gaugeTrend(buildNetwork(fitted), book, "vacuum")?.points.length).toBe(3);
  });

  test("from before the book's last change are not of it either, on the same day or where the plan was never told", () => {
    const change = { kind: "elementChanged", planId: plan.id, planHash: "", partId: "sep1" } as const;
    const book = [
      ...days.map((day, i) => reading(`r${i}`, day, grown(day))),
      { ...change, id: "c", at: new Date(Date.UTC(2026, 5, 1 + 61, 15)).toISOString() },
    ];
    const ids = (own: Job) =>
      gaugeTrend(buildNetwork(own), book, "vacuum")?.points.map(({ entryId }) => entryId);
    expect(ids(job)).toEqual(["r3", "r4"]);
    const told = applyCommand(job, { name: "changeElement", id: "sep1", fittedOn: "2026-08-01" }).job;
    expect(ids(told)).toEqual(["r3", "r4"]);
  });

  test("litres through the filter are hours by its flow at the readings' own conditions", () => {
    const same = { ...reading("x", 0, 1).conditions };
    const book = days.map((day, i) =>
      reading(`r${i}`, day, grown(day), { engineH: 400 + 3 * day, conditions: same }),
    );
    const by = gaugeTrend(network, book, "vacuum", "litres");
    expect(by?.by).toBe("litres");
    const solved = solver.solve(lineUp, same);
    if (solved.outcome !== "solved") throw new Error("not solved");
    const litresH = Math.abs(solved.flow[network.linkOf.get("sep1")!]!) * 3.6e6;
    by?.points.forEach(({ x }, i) => {
      expect(x).toBeCloseTo(3 * days[i]! * litresH, 6);
    });
    expect(gaugeTrend(network, book, "vacuum", "days")?.by).toBe("days");
  });

  test("one misread is marked and left out of the fit, and the dates are those of the others", () => {
    const list = [0, 20, 40, 60, 80, 100];
    const sound = list.map((day, i) => reading(`r${i}`, day, grown(day)));
    const misread = sound.map((one, i) => (i === 2 ? { ...one, vacuumPa: one.vacuumPa + 9000 } : one));
    const trend = gaugeTrend(network, misread, "vacuum");
    expect(trend?.points.map(({ isOutlier }) => isOutlier)).toEqual([
      false,
      false,
      true,
      false,
      false,
      false,
    ]);
    const without = gaugeTrend(
      network,
      sound.filter((_, i) => i !== 2),
      "vacuum",
    );
    expect(trend?.weighed?.due).toBeCloseTo(without!.weighed!.due!, 6);
    expect(gaugeTrend(network, sound, "vacuum")?.points.some(({ isOutlier }) => isOutlier)).toBe(false);
  });

  test("where it blocks faster from a reading on that is told, and the dates are sooner", () => {
    const list = [0, 20, 40, 60, 80, 90, 100];
    const slow = (day: number) => 1.1 + 0.003 * day;
    const steady = list.map((day, i) => reading(`r${i}`, day, slow(day)));
    const bad = list.map((day, i) =>
      reading(`r${i}`, day, day < 80 ? slow(day) : slow(60) + 0.04 * (day - 60)),
    );
    expect(gaugeTrend(network, steady, "vacuum")?.changedAt).toBeNull();
    const trend = gaugeTrend(network, bad, "vacuum");
    expect(trend?.changedAt).toBeCloseTo(80, 6);
    expect(trend!.weighed!.due!).toBeLessThan(1.1 * (60 + (trend!.target - slow(60)) / 0.04));
    expect(gaugeTrend(network, steady, "vacuum")!.weighed!.due!).toBeGreaterThan(400);
  });

  test("of a gauge that is gone, of none, and two alone tell no date", () => {
    expect(gaugeTrend(network, [], "vacuum")).toBeNull();
    expect(gaugeTrend(network, [reading("a", 0, 1.2)], "nobody")).toBeNull();
    const two = gaugeTrend(network, [reading("a", 0, 1.2), reading("b", 30, 1.5)], "vacuum");
    expect(two?.weighed).toBeNull();
    const report = two && trendReport(two);
    expect([report?.due, report?.actBy, report?.fits]).toEqual([null, null, []]);
  });
});
