/** What instruments should read: against the solver's own figures at their places, and fits by hand. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { applyCommand } from "../edit/commands";
import { gaugeAtPort } from "../hydraulics/derive";
import { LineUpSolver } from "../hydraulics/solve";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { Job, LineUp } from "../plan/types";
import { engineHeat } from "../tanks/heat";
import { computedAt, fitOf, instrumentsOf } from "./instruments";

const load = (name: string) =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;

describe("Unit 12", () => {
  const job = load("unit-12");
  const plan = currentPlan(job);
  const network = buildNetwork(job);
  const lineUp = plan.lineUps.find(({ id }) => id === "both") as LineUp;
  const result = new LineUpSolver(network).solve(lineUp, plan.conditions);
  const of = (id: string) => instrumentsOf(job, plan).find((one) => one.id === id)!;
  const read = (id: string) => computedAt(network, result, of(id), plan.conditions);

  test("has its two gauges by what they measure, its meter, and its tanks", () => {
    expect(instrumentsOf(job, plan).map(({ id, quantity }) => `${id} ${quantity}`)).toEqual([
      "vac vacuum",
      "press pressure",
      "meter flow",
      "frame level",
      "bed level",
    ]);
  });

  test("a vacuum reads below the open air, a pressure above it, a meter what passes, a tank what is aboard", () => {
    expect(result.outcome).toBe("solved");
    if (result.outcome !== "solved") return;
    expect(read("vac")).toBeCloseTo(-gaugeAtPort(result, "vac.a"), 6);
    expect(read("vac")).toBeGreaterThan(0);
    expect(read("press")).toBeCloseTo(gaugeAtPort(result, "press.a"), 6);
    expect(read("press")).toBeGreaterThan(0);
    // The transfer pump's own flow, through the meter behind it.
    const pump = network.links.findIndex((link) => link.kind === "pump" && link.part.id === "trans");
    expect(read("meter")).toBeCloseTo(Math.abs(result.flow[pump]!), 9);
    expect(read("bed")).toBe(0.24);
  });

  test("where nothing is solved only the tanks are known", () => {
    for (const one of instrumentsOf(job, plan))
      expect(computedAt(network, null, one, plan.conditions) === null).toBe(one.quantity !== "level");
  });
});

test("a reading fits within the dial and a share of what is computed: by hand", () => {
  // 640 Pa of the dial and 15 % of 4 kPa: 877 Pa.
  const vacuum = { quantity: "vacuum" } as const;
  expect(fitOf(vacuum, 4870, 4000)).toMatchObject({ fits: true, off: 870 });
  expect(fitOf(vacuum, 4890, 4000).fits).toBe(false);
  expect(fitOf({ quantity: "level" }, 0.11, 0.1).fits).toBe(true);
  expect(fitOf({ quantity: "level" }, 0.115, 0.1).fits).toBe(false);
  expect(fitOf({ quantity: "flow" }, 0, 0).fits).toBe(true);
});

test("a thermometer in the feed reads the tank's, in the return what the engine gives back, and nothing where all stands still", () => {
  const job = load("marram");
  const [feed, back] = ["run1", currentPlan(job).runs.find(({ from }) => from.port === "return")?.id ?? ""];
  const fitted = [feed, back].reduce(
    (now, runId, i) =>
      applyCommand(now, {
        name: "insertPart",
        id: `t${i}`,
        kind: "thermometer",
        runId,
        newRunId: `r${i}`,
      }).job,
    job,
  );
  const plan = currentPlan(fitted);
  const network = buildNetwork(fitted);
  const engine = fitted.consumers[0]!;
  const lineUp = plan.lineUps.find(({ id }) => id === "runPort") as LineUp;
  const conditions = { ...plan.conditions, fuelC: 12 };
  const result = new LineUpSolver(network).solve(lineUp, conditions);
  const read = (id: string, of = result) =>
    computedAt(network, of, instrumentsOf(fitted, plan).find((one) => one.id === id)!, conditions);
  expect(read("t0")).toBeCloseTo(12, 9);
  // What is not burned comes back as the engine sends it: worked out by hand from its own figures.
  const { tempC, share } = engineHeat(engine, job.fuel);
  expect(read("t1")).toBeCloseTo(12 + share * (tempC - 12), 6);
  const still = { ...lineUp, consumers: { [engine.id]: "stopped" as const }, pumps: {} };
  expect(read("t0", new LineUpSolver(network).solve(still, conditions))).toBeNull();
  expect(fitOf({ quantity: "temperature" }, 15, 12).fits).toBe(true);
  expect(fitOf({ quantity: "temperature" }, 17, 12).fits).toBe(false);
});
