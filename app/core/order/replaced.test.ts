/**
 * What stands in a place goes before what comes there; no tank is opened with fuel over the cut. The order is read as one
 * of the trade would: common practice, no source.
 */
import { describe, expect, test } from "@jest/globals";
import { startJob } from "../edit/starters";
import type { Part } from "../kinds/index";
import type { Job, Plan, TankPort } from "../plan/types";
import type { WorkStep } from "./facts";
import { progressOf } from "./progress";

const clone = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

/** A truck whose filter is replaced in its place and whose tank is drawn from by another port. */
function refitted(port: Partial<TankPort>, aboardM3 = 0.1): { job: Job; old: Plan; steps: WorkStep[] } {
  const job = clone(startJob("t", "T", "truck"));
  const [plan] = job.plans as [Plan];
  const [tank] = job.tanks;
  if (!tank) throw new Error("no tank");
  const supply = tank.ports.find(({ role }) => role === "outlet") as TankPort;
  tank.ports.push({ ...clone(supply), id: "low", name: "low outlet", ...port });
  plan.conditions.aboardM3[tank.id] = aboardM3;
  const next = clone(plan);
  Object.assign(next, { id: "next", name: "Next", basedOn: plan.id });
  const filter = next.parts.find(({ kind }) => kind === "filter") as Part;
  for (const run of next.runs)
    for (const end of [run.from, run.to]) {
      if (end.part === filter.id) end.part = "newFilter";
      if (end.part === tank.id && end.port === supply.id) end.port = "low";
    }
  filter.id = "newFilter";
  job.plans.push(next);
  job.currentPlanId = next.id;
  return { job, old: plan, steps: progressOf(job, plan, next, []).steps };
}
const at = (steps: readonly WorkStep[], verb: string, of?: string) =>
  steps.findIndex((step) => step.verb === verb && (of === undefined || step.of.includes(of)));
const sump = {
  fitting: "sump" as const,
  mouth: { xM: 0.4, yM: 0.2, zM: -0.05 },
  outside: { xM: 0.45, yM: 0.2, zM: -0.05 },
};

describe("a tank whose floor is opened", () => {
  const { job, steps } = refitted(sump);
  const id = job.tanks[0]!.id;
  test("is empty first, to the last litre, then sawn, then cleaned of swarf, then joined, and filled at the end", () => {
    expect(steps[at(steps, "drainTank", id)]?.litresM3).toBeCloseTo(0.1, 6);
    const order = ["drainTank", "tankFitting", "swarf", "fill", "bleed"].map((verb) =>
      at(steps, verb, verb === "bleed" ? undefined : id),
    );
    expect(order).not.toContain(-1);
    expect(order).toEqual([...order].sort((a, b) => a - b));
    const joined = steps.findIndex((step) => step.id === `join:${id}.low`);
    expect(joined).toBeGreaterThan(at(steps, "swarf", id));
    expect(joined).toBeLessThan(at(steps, "fill", id));
  });
});

test("an opening in the top of a diesel tank is cut with what is under it left there", () => {
  const { job, steps } = refitted({});
  const id = job.tanks[0]!.id;
  expect(at(steps, "tankFitting", id)).toBeGreaterThanOrEqual(0);
  expect(at(steps, "drainTank", id)).toBe(-1);
});

test("an opening in the side is cut with the fuel let down to it", () => {
  const zM = 0.1;
  const side = {
    fitting: "side" as const,
    mouth: { xM: 0, yM: 0.2, zM },
    outside: { xM: -0.03, yM: 0.2, zM },
  };
  const { job, steps } = refitted(side);
  const [tank] = job.tanks;
  const shape = tank!.shape as { lengthM: number; widthM: number };
  // A box: what stands over the hole is its floor's area by the height over it.
  expect(steps[at(steps, "drainTank", tank!.id)]?.litresM3).toBeCloseTo(
    0.1 - shape.lengthM * shape.widthM * zM,
    4,
  );
  expect(at(steps, "drainTank", tank!.id)).toBeLessThan(at(steps, "tankFitting", tank!.id));
});

describe("a filter that is replaced in its place", () => {
  const { old, steps } = refitted({});
  const filter = old.parts.find(({ kind }) => kind === "filter")!.id;
  test("is drained before its joints are opened, and out before the new one is in", () => {
    const drained = at(steps, "drainBowl", filter);
    const undone = steps.flatMap((step, i) => (step.verb === "undo" && step.of[0] === filter ? [i] : []));
    expect(drained).toBeGreaterThanOrEqual(0);
    expect(Math.min(...undone)).toBeGreaterThan(drained);
    expect(at(steps, "fixPart", "newFilter")).toBeGreaterThan(at(steps, "partOut", filter));
  });
});
