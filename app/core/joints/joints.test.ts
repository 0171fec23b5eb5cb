/** The joints of the demo truck, counted from its plan, and what each needs. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { applyCommand } from "../edit/commands";
import { shapeOf } from "../ends/adapters";
import { otherChains } from "../ends/chain";
import { joining } from "../ends/ends";
import { findingsOf } from "../findings/findings";
import { figuresOf } from "../hydraulics/derive";
import { solveLineUp } from "../hydraulics/solve";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { leakPointsOf } from "../work/planFigures";
import { hoseEnd, jointNeeds, looksOf, planJoints } from "./joints";

const { job } = JSON.parse(readFileSync("demo/unit-12.keel.json", "utf8")) as { job: Job };
const plan = currentPlan(job);
const joints = planJoints(job, plan);
const at = (key: string, of = joints) => of.find((joint) => joint.key === key)!;

describe("the joints of a plan", () => {
  test("both ends of every run once, each port with what is on it", () => {
    expect(joints).toHaveLength(2 * plan.runs.length + plan.joints.length);
    expect(new Set(joints.map(({ key }) => key)).size).toBe(joints.length);
    expect(at("sep.in")).toMatchObject({
      a: { name: "Separator, in" },
      b: { name: "hose", isAssumed: true },
    });
  });

  test("a hose without an end of its own is cut, of its bore; a rigid line's end is not known", () => {
    const [run] = plan.runs;
    expect(hoseEnd({ ...run!, boreM: 0.0127 })).toEqual({ family: "hose", size: "12.7", form: "f" });
    expect(hoseEnd({ ...run!, boreM: 0.0095 })).toMatchObject({ size: "9.53" });
    expect(hoseEnd({ ...run!, boreM: 0.0115 })).toBeNull();
    expect(hoseEnd({ ...run!, make: "rigid" })).toBeNull();
  });

  test("what seals, what needs an adapter, the trap, and what is not known", () => {
    expect(at("vac.a").state).toBe("seals");
    expect(at("sep.in")).toMatchObject({ state: "adapters", chain: { count: 1, leakPoints: 2 } });
    expect(at("engine.feed")).toMatchObject({
      state: "screws",
      joined: { why: "seatAngle" },
      chain: { count: 2 },
    });
    expect(at("press.a")).toMatchObject({ state: "unknown", chain: null });
  });

  test("an end is entered, changed and forgotten; with its part it goes", () => {
    const end = { family: "npt", size: "1/4", form: "f" } as const;
    const entered = applyCommand(job, { name: "setEnd", id: "press", port: "a", end }).job;
    expect(at("press.a", planJoints(entered, currentPlan(entered))).state).toBe("adapters");
    const gone = applyCommand(entered, { name: "setEnd", id: "press", port: "a", end: null }).job;
    expect(currentPlan(gone).ends?.press).toBeUndefined();
    const removed = applyCommand(entered, { name: "removePart", id: "press" }).job;
    expect(currentPlan(removed).ends?.press).toBeUndefined();
    expect(() => applyCommand(job, { name: "setEnd", id: "nobody", port: "a", end })).toThrow("noSuch");
  });

  test("what is to buy is what the chains are made of, counted by hand", () => {
    const { adapters, washers, clamps } = jointNeeds(joints);
    const barbed = adapters.find(({ id }) => id === "g:npt1_2m+barb12.7m");
    expect(barbed?.joints.sort()).toEqual(["frame.sump", "sep.in", "sep.out", "shut.a", "shut.b"]);
    const count = (state: string) => joints.filter((joint) => joint.state === state).length;
    // One adapter each, the trap two.
    expect(adapters.reduce((sum, one) => sum + one.count, 0)).toBe(count("adapters") + 2 * count("screws"));
    // Two at the factory filter and one at the engine's return, a washer each; two banjos at the meter, two each.
    expect(washers).toBe(3 + 4);
    const barbs = joints.filter(({ state, joined }) => state === "seals" && joined?.dress === "clamp").length;
    const barbed2 = joints.filter(({ chain }) => chain?.dress.includes("clamp")).length;
    expect(clamps).toBe(barbs + barbed2);
  });
});

describe("the finding on it", () => {
  const found = (of: Job) => findingsOf(of, []).filter(({ rule }) => rule === "jointUnsealed");

  test("a trap is a Mend with what goes between; what nothing joins is a Stop; what only needs an adapter is none", () => {
    expect(found(job).map(({ grade, ids }) => [grade, ids[0]])).toEqual([["mend", "engine"]]);
    const end = { family: "invFlare", size: "3/8", form: "f" } as const;
    const stuck = applyCommand(job, { name: "setEnd", id: "engine", port: "feed", end }).job;
    expect(found(stuck)).toMatchObject([{ grade: "stop", values: { code: "nothing" } }]);
    const right = applyCommand(job, {
      name: "setEnd",
      id: "r9",
      port: "to",
      end: { family: "sae45", size: "1/2", form: "fs" },
    }).job;
    expect(found(right)).toEqual([]);
  });
});

describe("a chain that is chosen", () => {
  const joint = at("engine.feed");
  const from = joint.a.end!;
  const to = joint.b.end!;

  test("others do without a part of the first, and seal at every meeting of two ends", () => {
    const others = otherChains(from, to, joint.chain!);
    expect(others.length).toBeGreaterThan(0);
    for (const { parts } of others) {
      expect(joint.chain!.parts.every((id) => parts.includes(id))).toBe(false);
      // Walked: each adapter meets what stands open with one of its ends, and leaves the other open.
      let open = from;
      for (const id of parts) {
        const [a, b] = shapeOf(id)!.ends;
        const isFirst = joining(open, a!).fit === "seals";
        expect(isFirst || joining(open, b!).fit === "seals").toBe(true);
        open = isFirst ? b! : a!;
      }
      expect(joining(open, to).fit).toBe("seals");
    }
  });

  test("narrows the hose's end and counts its leak points; taken back, the plan is as it was", () => {
    const [other] = otherChains(from, to, joint.chain!);
    const chain = { parts: other!.parts, leakPoints: other!.leakPoints, boreM: 0.004 };
    const chosen = applyCommand(job, { name: "chooseChain", key: joint.key, chain }).job;
    const now = currentPlan(chosen);
    expect(planJoints(chosen, now).find(({ key }) => key === joint.key)).toMatchObject({
      isChosen: true,
      chain: { parts: other!.parts },
    });
    expect(leakPointsOf(now) - leakPointsOf(plan)).toBe(other!.leakPoints - 1);
    const run = now.runs.find(({ to: end }) => `${end.part}.${end.port}` === joint.key);
    // Through 4 mm the same flow loses more than through the hose's own end: the vacuum moves.
    const loss = (one: Job) => {
      const network = buildNetwork(one);
      const { lineUps, conditions } = currentPlan(one);
      const solved = solveLineUp(network, lineUps[0]!, conditions);
      if (solved.outcome !== "solved") throw new Error("not solved");
      return figuresOf(solved, network.linkOf.get(run!.id)!).lossPa;
    };
    expect(loss(chosen)).toBeGreaterThan(1.05 * loss(job));
    const back = applyCommand(chosen, { name: "chooseChain", key: joint.key, chain: null }).job;
    expect(currentPlan(back)).toEqual(plan);
    // Other ends: it does not seal any more, and another is proposed.
    const end = { family: "npt", size: "1/2", form: "f" } as const;
    const changed = applyCommand(chosen, { name: "setEnd", id: "engine", port: "feed", end }).job;
    const after = planJoints(changed, currentPlan(changed)).find(({ key }) => key === joint.key);
    expect(after?.isChosen).toBe(false);
    // The run goes, and with it what was chosen for its end.
    const cut = applyCommand(chosen, { name: "disconnect", id: run!.id }).job;
    expect(currentPlan(cut).chains).toEqual({});
  });

  test("what is looked at: washers of a washer face, the clamp of a barb, the stand of a taper, grease on stainless", () => {
    expect(looksOf(at("sep.in"))).toEqual(["clampPlaced", "clocked"]);
    expect(looksOf(at("press.a"))).toEqual([]);
    const banjo = joints.find(({ joined }) => (joined?.washers ?? 0) > 0);
    if (banjo) expect(looksOf(banjo)).toContain("newWashers");
    const stainless = (material: "stainless" | "brass") =>
      looksOf({
        ...at("vac.a"),
        state: "seals",
        joined: { ...joining(from, from), fit: "seals", washers: 0, dress: "none" },
        a: { ...joint.a, end: { ...from, material: "stainless" } },
        b: { ...joint.b, end: { ...from, material } },
      });
    expect(stainless("stainless")).toEqual(["antiSeize"]);
    expect(stainless("brass")).toEqual([]);
  });
});
