import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import type { PlanPart } from "../kinds/index";
import { riseAt } from "../laws/pumpCurve";
import { buildNetwork } from "../network/network";
import { newJob, newLineUp, newPart, newRun, newTank } from "../plan/blank";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { arrangedPoints, pumpPoints } from "./pumps";
import { LineUpSolver } from "./solve";

const at = (xM: number, zM: number) => ({ xM, yM: 0, zM });

/** From a low tank to a high one through one pump, or two joined as asked. */
function lifting(arrangement: "alone" | "parallel" | "series"): Job {
  const job = newJob("j", "J");
  const plan = currentPlan(job);
  job.tanks.push(newTank("lo", "Low", at(0, 0)), newTank("hi", "High", at(3, 1)));
  for (const tank of job.tanks) for (const port of tank.ports) port.outside = { ...port.mouth };
  plan.conditions.aboardM3 = { lo: 0.15, hi: 0.05 };
  const lineUp = newLineUp("l", "lift");
  plan.lineUps.push(lineUp);
  const add = (kind: PlanPart["kind"], id: string, x: number) => {
    plan.parts.push(newPart(kind, id, at(x, 0)));
    if (kind === "liftPump") lineUp.pumps[id] = "on";
  };
  const run = (id: string, from: [string, string], to: [string, string], lengthM: number) =>
    plan.runs.push(newRun(id, { part: from[0], port: from[1] }, { part: to[0], port: to[1] }, lengthM));
  const join = (id: string, from: [string, string], to: [string, string]) =>
    plan.joints.push({ id, from: { part: from[0], port: from[1] }, to: { part: to[0], port: to[1] } });
  add("liftPump", "p", 1);
  if (arrangement === "series") {
    add("liftPump", "q", 1);
    run("a", ["lo", "supply"], ["p", "in"], 2);
    join("j1", ["p", "out"], ["q", "in"]);
    run("b", ["q", "out"], ["hi", "supply"], 6);
  } else if (arrangement === "parallel") {
    add("liftPump", "q", 1);
    add("swirlPot", "s", 1);
    add("swirlPot", "t", 1);
    run("a", ["lo", "supply"], ["s", "fill"], 2);
    join("j1", ["s", "out"], ["p", "in"]);
    join("j2", ["s", "back"], ["q", "in"]);
    join("j3", ["p", "out"], ["t", "fill"]);
    join("j4", ["q", "out"], ["t", "back"]);
    run("b", ["t", "out"], ["hi", "supply"], 6);
  } else {
    run("a", ["lo", "supply"], ["p", "in"], 2);
    run("b", ["p", "out"], ["hi", "supply"], 6);
  }
  return job;
}

describe("two pumps", () => {
  test.each(["parallel", "series"] as const)(
    "in %s: what is reckoned from one is what two in the plan do",
    (arrangement) => {
      const one = buildNetwork(lifting("alone"));
      const reckoned = arrangedPoints(one, one.plan.lineUps[0]!, one.plan.conditions, "p").find(
        (found) => found.arrangement === arrangement,
      );
      const two = buildNetwork(lifting(arrangement));
      const result = new LineUpSolver(two).solve(two.plan.lineUps[0]!, two.plan.conditions);
      if (result.outcome !== "solved") throw new Error(result.outcome);
      const flow = result.flow[two.linkOf.get("a")!]!;
      expect((reckoned?.point?.flowM3S ?? 0) / flow).toBeCloseTo(1, 5);
    },
  );

  test("in series they lift more, in parallel they give more where the line is wide", () => {
    const network = buildNetwork(lifting("alone"));
    const [alone, parallel, series] = arrangedPoints(
      network,
      network.plan.lineUps[0]!,
      network.plan.conditions,
      "p",
    );
    expect(parallel!.point!.flowM3S).toBeGreaterThan(alone!.point!.flowM3S);
    expect(series!.point!.risePa).toBeGreaterThan(alone!.point!.risePa);
    expect(arrangedPoints(network, network.plan.lineUps[0]!, network.plan.conditions, "none")).toEqual([]);
  });
});

describe("where every pump runs", () => {
  const { job } = JSON.parse(readFileSync("demo/unit-12.keel.json", "utf8")) as { job: Job };
  const network = buildNetwork(job);
  const points = pumpPoints(network, network.plan.conditions);

  test("each point lies on its pump's curve, under its dead head, and only where it is on", () => {
    expect(points.map(({ pumpId, lineUpId }) => `${pumpId} ${lineUpId}`)).toEqual([
      "lift run",
      "lift both",
      "trans both",
      "trans transfer",
    ]);
    for (const { pumpId, flowM3S, risePa, deadHeadPa } of points) {
      const part = network.plan.parts.find(({ id }) => id === pumpId);
      if (!part || !("curve" in part)) throw new Error("no pump");
      expect(risePa).toBeCloseTo(riseAt(part.curve, flowM3S), 0);
      expect(risePa).toBeLessThanOrEqual(deadHeadPa + 1);
    }
  });
});
