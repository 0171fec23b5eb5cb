/** Line-ups that are asked for are judged by the solver: fed, and back into the tank that fuel was drawn from. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { applyCommand } from "../edit/commands";
import { startJob } from "../edit/starters";
import { judgeAll } from "../hydraulics/worst";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { type Asked, lineUpFor } from "./lineUpFor";

const read = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const marram = read("marram");

/** A plan with nothing but the line-up that was asked for. */
function asked(job: Job, of: Omit<Asked, "name">) {
  const bare: Job = { ...job, plans: job.plans.map((plan) => ({ ...plan, lineUps: [], duty: [] })) };
  const { commands, feeds, returns } = lineUpFor(buildNetwork(bare), "new", { ...of, name: "New" });
  const { job: after } = applyCommand(bare, { name: "several", commands });
  const network = buildNetwork(after);
  const [verdict] = judgeAll(network, network.plan.conditions);
  const result = verdict!.result;
  if (result.outcome !== "solved") throw new Error(result.outcome);
  const lineUp = currentPlan(after).lineUps[0]!;
  /** Into and out of each tank, m3/s. */
  const net = new Map<string, number>();
  network.links.forEach((link, i) => {
    if (link.kind === "tankPort")
      net.set(link.tank.id, (net.get(link.tank.id) ?? 0) + (result.flow[i] as number));
  });
  return { feeds, returns, lineUp, result, net };
}
const fed = (job: Job, tank: string, consumer: string) => {
  const { feeds, returns, result, net, lineUp } = asked(job, { purpose: "run", fromTank: tank, consumer });
  expect([feeds, returns]).toEqual([true, true]);
  expect(result.consumers.get(consumer)?.outcome).toBe("fed");
  // All that is drawn comes from this tank, and all that is not burnt goes back to it.
  for (const [id, q] of net) {
    if (id === tank) expect(q).toBeLessThan(0);
    else expect(Math.abs(q)).toBeLessThan(1e-9);
  }
  return lineUp;
};

describe("a line-up that is asked for", () => {
  test.each(["portWing", "stbdWing"])("runs Marram's engine on %s, and back into it", (tank) => {
    const lineUp = fed(marram, tank, "engine");
    expect(lineUp.consumers).toEqual({ engine: "running", heater: "stopped" });
  });

  test("every tank of every starter with selectors or manifolds", () => {
    for (const starter of ["oneTank", "twoTanksTwoSelectors", "threeTanks", "truck"] as const) {
      const job = startJob("s", "S", starter);
      for (const tank of job.tanks) fed(job, tank.id, job.consumers[0]!.id);
    }
  });

  test("moves fuel from one tank to another with a pump, and nothing runs", () => {
    const { lineUp, net, feeds } = asked(marram, {
      purpose: "transfer",
      fromTank: "portWing",
      toTank: "dayTank",
    });
    expect(feeds).toBe(true);
    expect(lineUp.intendedTransfer).toBe(true);
    expect(net.get("portWing")).toBeLessThan(-1e-6);
    expect(net.get("dayTank")).toBeGreaterThan(1e-6);
    expect(Object.values(lineUp.consumers)).toEqual(["stopped", "stopped"]);
  });

  test("polishes a tank: out and back into the same", () => {
    const { feeds, net, result } = asked(marram, { purpose: "polish", fromTank: "portWing" });
    expect(feeds).toBe(true);
    expect(Math.abs(net.get("portWing") ?? 1)).toBeLessThan(1e-9);
    expect(Math.max(...result.flow.map(Math.abs))).toBeGreaterThan(1e-6);
  });

  test("says where there is no way", () => {
    const job = startJob("s", "S", "oneTank");
    const run = currentPlan(job).runs[0]!;
    const cut = applyCommand(job, { name: "disconnect", id: run.id }).job;
    const network = buildNetwork(cut);
    const of: Asked = {
      purpose: "run",
      name: "R",
      fromTank: cut.tanks[0]!.id,
      consumer: cut.consumers[0]!.id,
    };
    expect(lineUpFor(network, "x", of).feeds).toBe(false);
  });
});
