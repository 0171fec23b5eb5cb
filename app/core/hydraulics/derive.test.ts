import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { buildNetwork } from "../network/network";
import { randomJob } from "../network/randomPlan.fixture";
import { currentPlan, portsOf } from "../plan/ports";
import type { Job } from "../plan/types";
import { flowOfRun, gaugeAtPort, passingParts } from "./derive";
import { underVacuumS, type WayPoint } from "./route";
import { LineUpSolver, type SolvedLineUp } from "./solve";

function* solutions(job: Job): Generator<SolvedLineUp> {
  const solver = new LineUpSolver(buildNetwork(job));
  const plan = currentPlan(job);
  for (const lineUp of plan.lineUps) {
    const result = solver.solve(lineUp, plan.conditions);
    if (result.outcome === "solved") yield result;
  }
}

describe("what passes a part", () => {
  /** Conservation: through a part with two ports goes what comes in the hose before it. */
  test("is what the hoses at it bring and take, in 60 random plans", () => {
    let compared = 0;
    for (let seed = 0; seed < 60; seed++)
      for (const solved of solutions(randomJob(seed, { every: true }))) {
        const passing = passingParts(solved);
        for (const part of solved.network.plan.parts) {
          const hoses = solved.network.plan.runs.filter(({ from, to }) =>
            [from, to].some((ref) => ref.part === part.id),
          );
          if (portsOf(part).length !== 2 || hoses.length !== 2) continue;
          for (const run of hoses) {
            const q = Math.abs(flowOfRun(solved, run));
            expect(Math.abs(q - (passing.get(part.id)?.flowM3S ?? 0))).toBeLessThan(1e-9);
            compared++;
          }
        }
      }
    expect(compared).toBeGreaterThan(300);
  });

  test("stands between the pressures of its ports, the way that fuel goes", () => {
    const { job } = JSON.parse(readFileSync("demo/unit-12.keel.json", "utf8")) as { job: Job };
    const [run] = solutions(job);
    const lift = passingParts(run!).get("lift");
    expect(lift?.beforePa).toBe(gaugeAtPort(run!, "lift.in"));
    expect(lift?.afterPa).toBe(gaugeAtPort(run!, "lift.out"));
    expect(lift?.isReturn).toBe(false);
    expect(passingParts(run!).get("cool")?.isReturn).toBe(true);
    expect(passingParts(run!).has("trans")).toBe(false);
  });
});

test("time under vacuum: what the hose and the bowl hold below zero, over the flow", () => {
  const point = (atM: number, gaugePa: number): WayPoint => ({ atM, zM: 0, gaugePa });
  const leg = (id: string, kind: "run" | "part", points: WayPoint[]) =>
    ({ id, kind, side: "feed", points, boreM: 0.01, flowM3S: 1e-5 }) as never;
  // 2 m that pass zero half way, a bowl of 0.5 L, 1 m wholly below, then the pump.
  const legs = [
    leg("a", "run", [point(0, 3000), point(2, -3000)]),
    leg("bowl", "part", [point(2, -3000), point(2, -5000)]),
    leg("b", "run", [point(2, -5000), point(3, -6000)]),
    leg("pump", "part", [point(3, -6000), point(3, 20000)]),
    leg("c", "run", [point(3, -100), point(9, -100)]),
  ];
  const area = (Math.PI / 4) * 0.01 ** 2;
  const seconds = underVacuumS({ legs } as never, "pump", (id) => (id === "bowl" ? 5e-4 : 0));
  expect(seconds).toBeCloseTo((area * 2 + 5e-4) / 1e-5, 9);
});
