import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { applyCommand } from "../edit/commands";
import { heatingOf } from "../findings/tanks/returnHot";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { buildNetwork } from "./network";
import { coolerOf, returnCooler } from "./returnCooler";

const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };
const plan = currentPlan(job);
const withCooler = (runId: string): Job =>
  applyCommand(job, { name: "insertPart", id: "cool", kind: "cooler", runId, newRunId: "behind" }).job;
const back = plan.runs.find(({ from }) => from.part === "engine")!;
const feed = plan.runs.find(({ to }) => to.part === "engine")!;

describe("the cooler of a return", () => {
  test("one in the engine's return cools every tank that it can come to, before what Survey was told", () => {
    const cooled = withCooler(back.id);
    const network = buildNetwork(cooled);
    for (const tank of cooled.tanks) {
      expect(returnCooler(network, tank)?.id).toBe("cool");
      expect(coolerOf(network, tank)).toMatchObject({ id: "cool" });
    }
    const [tank] = cooled.tanks;
    expect(heatingOf(network, tank!, 0.1, 30)?.cooler).toMatchObject({ id: "cool" });
  });

  test("one in the feed cools no return: Survey's stays", () => {
    const network = buildNetwork(withCooler(feed.id));
    const tank = job.tanks.find(({ cooler }) => cooler !== undefined)!;
    expect(returnCooler(network, tank)).toBeNull();
    expect(coolerOf(network, tank)).toEqual(tank.cooler);
  });

  test("one in the branch to a tank is that tank's alone", () => {
    const branch = plan.runs.find(({ from, to }) => from.part === "returns" && to.part === "portWing")!;
    const cooled = withCooler(branch.id);
    const network = buildNetwork(cooled);
    const of = (id: string) =>
      returnCooler(network, cooled.tanks.find((tank) => tank.id === id)!)?.id ?? null;
    expect(of("portWing")).toBe("cool");
    expect(of("dayTank")).toBeNull();
  });
});
