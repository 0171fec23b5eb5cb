/** A pump and what its system asks: they meet where the solver has it running. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import type { PartOf } from "../kinds/index";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { LineUpSolver } from "./solve";
import { pumpAndSystem } from "./systemCurve";

const load = (name: string) =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;

describe("the lift pump of the boat", () => {
  const job = load("marram");
  const plan = currentPlan(job);
  const network = buildNetwork(job);
  const lineUp = plan.lineUps[0]!;
  const lift = plan.parts.find(({ id }) => id === "lift") as PartOf<"liftPump">;
  const found = pumpAndSystem(network, lineUp, plan.conditions, lift, "engine")!;

  test("runs at the flow and rise of the solver", () => {
    const solved = new LineUpSolver(network).solve(lineUp, plan.conditions);
    if (solved.outcome !== "solved") throw new Error(solved.outcome);
    const index = network.links.findIndex((link) => link.kind === "pump" && link.part.id === "lift");
    expect(found.running.flowM3S).toBeCloseTo(solved.flow[index] as number, 12);
    const [from, to] = [network.nodeOf.get("lift.in") as number, network.nodeOf.get("lift.out") as number];
    expect(found.running.risePa).toBeCloseTo(
      (solved.gaugePa[to] as number) - (solved.gaugePa[from] as number),
      6,
    );
  });
  test("lies on its own curve there", () => {
    const { flowM3S, risePa } = found.running;
    const above = found.pump.findIndex((point) => point.flowM3S >= flowM3S);
    const [a, b] = [found.pump[above - 1]!, found.pump[above]!];
    const t = (flowM3S - a.flowM3S) / (b.flowM3S - a.flowM3S);
    expect(risePa).toBeCloseTo(a.risePa + t * (b.risePa - a.risePa), -1);
  });
  test("gives less the more flows, and the system asks more", () => {
    const falls = (list: { flowM3S: number; risePa: number }[], sign: 1 | -1) => {
      const sorted = [...list].sort((one, other) => one.flowM3S - other.flowM3S);
      sorted.slice(1).forEach((point, i) => {
        expect(sign * (point.risePa - sorted[i]!.risePa)).toBeGreaterThanOrEqual(-1e-6);
      });
    };
    falls(found.pump, -1);
    falls(found.system, 1);
    expect(found.system.length).toBeGreaterThan(5);
  });
  test("switched off runs nowhere", () => {
    const off = { ...lineUp, pumps: { ...lineUp.pumps, lift: "off" as const }, consumers: {} };
    expect(pumpAndSystem(network, off, plan.conditions, lift, "engine")).toBeNull();
  });
});

test("from tank to tank the pump is made weaker and stronger: its system is gone through without it", () => {
  const job = load("unit-12");
  const plan = currentPlan(job);
  const lineUp = plan.lineUps.find(({ id }) => id === "transfer")!;
  const pump = plan.parts.find(({ id }) => id === "trans") as PartOf<"transferPump">;
  const found = pumpAndSystem(buildNetwork(job), lineUp, plan.conditions, pump, null)!;
  const flows = found.system.map(({ flowM3S }) => flowM3S);
  expect(Math.min(...flows)).toBeLessThan(found.running.flowM3S);
  expect(Math.max(...flows)).toBeGreaterThan(found.running.flowM3S);
});
