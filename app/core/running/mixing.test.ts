import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { LineUpSolver } from "../hydraulics/solve";
import { buildNetwork } from "../network/network";
import type { Job } from "../plan/types";
import { mixTemperatures } from "./mixing";

const { job } = JSON.parse(readFileSync("demo/unit-12.keel.json", "utf8")) as { job: Job };
const network = buildNetwork(job);

function temperatures(lineUpId: string, frameC: number, bedC: number) {
  const lineUp = network.plan.lineUps.find(({ id }) => id === lineUpId)!;
  const result = new LineUpSolver(network).solve(lineUp, network.plan.conditions);
  if (result.outcome !== "solved") throw new Error(result.outcome);
  const temps = new Float64Array(network.topology.nodes).fill(15);
  temps[network.nodeOf.get("frame")!] = frameC;
  temps[network.nodeOf.get("bed")!] = bedC;
  mixTemperatures(result, temps);
  return (key: string) => temps[network.nodeOf.get(key)!]!;
}

describe("temperature along a solved line-up", () => {
  test("fuel keeps its tank's temperature to the engine, leaves it at the engine's own, and is cooled on its way", () => {
    const at = temperatures("run", 30, 5);
    expect(at("sep.in")).toBeCloseTo(30, 5);
    expect(at("engine.feed")).toBeCloseTo(30, 5);
    expect(at("engine.return")).toBeCloseTo(55, 5);
    // Effectiveness 0.45 against coolant at 20 degC: 55 - 0.45 * 35.
    expect(at("frame.ret")).toBeCloseTo(39.25, 5);
  });

  test("what is transferred comes with the bed tank's temperature, and does not warm the feed", () => {
    const at = temperatures("both", 30, 5);
    expect(at("frame.fill")).toBeCloseTo(5, 5);
    expect(at("lift.in")).toBeCloseTo(30, 5);
  });

  test("where nothing flows nothing is changed", () => {
    const at = temperatures("transfer", 30, 5);
    expect(at("sep.in")).toBe(15);
    expect(at("meter.out")).toBeCloseTo(5, 5);
  });
});
