import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { applyCommand } from "../edit/commands";
import { buildNetwork } from "../network/network";
import { planDifferences } from "../plan/compare";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { jointStates, type LeakState, leakStates, rankLeaks, type Seen } from "./leakStates";
import { planFigures } from "./planFigures";

const read = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const TODAY = new Date("2026-06-01T00:00:00Z");

describe("alternatives side by side", () => {
  const demo = read("unit-12");
  const job = { ...demo, plans: demo.plans.slice(0, 1) };
  const forked = applyCommand(job, { name: "forkPlan", id: "b", planName: "Larger bore" }).job;

  test("a fork is current, knows what it came from, and differs in nothing", () => {
    expect(forked.currentPlanId).toBe("b");
    expect(currentPlan(forked).basedOn).toBe("planA");
    expect(planDifferences(forked.plans[0]!, forked.plans[1]!).size).toBe(0);
    const [a, b] = forked.plans.map((plan) => planFigures(forked, plan, [], TODAY));
    expect({ ...b, planId: "", name: "" }).toEqual({ ...a, planId: "", name: "" });
  });

  test("what is changed, let in and taken out in the fork is told by id, and the first plan is as it was", () => {
    const steps = [
      { name: "editRun", id: "r2", change: { boreM: 0.0159 } },
      { name: "insertPart", id: "tap", kind: "samplingTap", runId: "r5", newRunId: "r5b" },
      { name: "removePart", id: "meter" },
    ] as const;
    const changed = steps.reduce((now, step) => applyCommand(now, step).job, forked);
    const found = planDifferences(changed.plans[0]!, changed.plans[1]!);
    expect(found.get("r2")).toBe("changed");
    expect(found.get("tap")).toBe("added");
    expect(found.get("meter")).toBe("removed");
    expect(found.has("fine")).toBe(false);
    expect(changed.plans[0]).toEqual(job.plans[0]);
    const [a, b] = changed.plans.map((plan) => planFigures(changed, plan, [], TODAY));
    expect(b!.marginPa!).toBeGreaterThan(a!.marginPa!);
    // One hose more at the tap, one less where the meter was.
    expect(b!.leakPoints).toBe(a!.leakPoints);
  });

  test("figures by hand: fifteen hoses have thirty ends; hose is the sum of the lengths", () => {
    const plan = currentPlan(job);
    const figures = planFigures(job, plan, [], TODAY);
    expect(figures.leakPoints).toBe(30);
    const sum = plan.runs.reduce(
      (all, { route }) => all + (route.kind === "measured" ? route.lengthM : 0),
      0,
    );
    expect(figures.hoseM).toBeCloseTo(sum, 9);
    expect(figures.findings).toEqual({ stop: 0, mend: 4, watch: 3 });
    expect(figures.filterChangeSteps).toBeGreaterThan(4);
  });

  test("the last plan stays, and a plan based on one that goes is based on its base", () => {
    const two = applyCommand(forked, { name: "forkPlan", id: "c", planName: "C" }).job;
    const less = applyCommand(two, { name: "removePlan", id: "b" }).job;
    expect(less.plans.find(({ id }) => id === "c")?.basedOn).toBe("planA");
    expect(less.currentPlanId).toBe("c");
    const one = applyCommand(less, { name: "removePlan", id: "c" }).job;
    expect(one.currentPlanId).toBe("planA");
    expect(() => applyCommand(one, { name: "removePlan", id: "planA" })).toThrow("lastPlan");
  });
});

describe("leaks by state", () => {
  const job = read("unit-12");
  const network = buildNetwork(job);
  const plan = currentPlan(job);
  const joints = jointStates(network, plan.lineUps[0]!, plan.conditions);
  const at = (key: string) => joints.find((one) => one.key === key)!;

  test("before the pump it is under vacuum running, after it under pressure; overnight the tank's head stands on what is low", () => {
    expect(at("lift.in").under.running).toBe("vacuum");
    expect(at("lift.out").under.running).toBe("pressure");
    expect(at("shut.a").under.overnight).toBe("pressure");
    // Behind the pump, which lets nothing back, fuel is shut in: what it stands at is not known.
    expect(at("factory.in").under.overnight).toBe("unknown");
  });

  test("head at rest by hand: height of the surface over the joint", () => {
    const surface = 0.55 + 0.11 / (0.505 * 0.62);
    const head = at("shut.a").gaugePa.overnight!;
    expect(Math.abs(head)).toBeGreaterThan(0);
    expect(Math.abs(head - 835 * 9.80665 * (surface - 0.52))).toBeLessThan(1200);
  });

  test("for every joint and what its own leak would show, that joint is among the first", () => {
    const show = { pressure: "weeps", vacuum: "air", rest: "dry", unknown: "dry" } as const;
    for (const joint of joints) {
      if (leakStates.some((state) => joint.under[state] === "unknown")) continue;
      const seen = Object.fromEntries(leakStates.map((state) => [state, show[joint.under[state]]])) as Record<
        LeakState,
        Seen
      >;
      const ranked = rankLeaks(joints, seen);
      expect(ranked[0]?.fit).toBe(1);
      expect(ranked.find(({ key }) => key === joint.key)?.fit).toBe(1);
    }
    expect(rankLeaks(joints, {})).toEqual([]);
  });
});
