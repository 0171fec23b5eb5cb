/** Old hoses that are blown through as one: what lets gas by joins them, what does not parts them. */
import { describe, expect, test } from "@jest/globals";
import { applyCommand } from "../edit/commands";
import { startJob } from "../edit/starters";
import type { PlanPart } from "../kinds/index";
import { currentPlan } from "../plan/ports";
import type { Plan } from "../plan/types";
import { endsOf, oldWays } from "./blowing";
import { derive } from "./derive";
import { ordered } from "./facts";

const job = startJob("j", "J", "oneTank");
const plan = currentPlan(job);
const none: ReadonlySet<string> = new Set();
const pump = plan.parts.find(({ kind }) => kind === "liftPump")!;
const filter = plan.parts.find(({ kind }) => kind === "filter")!;
const withOff = (off: object): Plan => ({
  ...plan,
  parts: plan.parts.map((part) => (part.id === pump.id ? ({ ...part, off } as PlanPart) : part)),
});
const bypass = withOff({ kind: "bypass", opensPa: 700, dropPa: 2500 });
const names = (own: Plan, emptied = none) =>
  oldWays(own, own.runs, emptied).map(({ legs, through }) => [
    legs.length,
    ...through.map((id) => own.parts.find((part) => part.id === id)?.kind),
  ]);

describe("ways of old hoses", () => {
  test("go through a pump that is off by its bypass, and end at one that shuts", () => {
    expect(names(bypass)).toContainEqual([3, "gauge", "liftPump"]);
    expect(names(withOff({ kind: "blocked" })).flat()).not.toContain("liftPump");
  });

  test("go through a filter only where it is emptied for the work", () => {
    const through = names(bypass, new Set([filter.id])).flat();
    expect(through).toContain("filter");
    expect(names(bypass).flat()).not.toContain("filter");
    expect(through.filter((one) => one === "twoWay")).toEqual([]);
  });

  test("hold every hose once, whichever way it was drawn, and are passed from their first end to their last", () => {
    const turned: Plan = {
      ...bypass,
      runs: bypass.runs.map((run, i) => (i % 2 === 0 ? run : { ...run, from: run.to, to: run.from })),
    };
    for (const own of [bypass, turned]) {
      const ways = oldWays(own, own.runs, new Set([filter.id]));
      expect(ways.flatMap(({ legs }) => legs.map(({ run }) => run.id)).sort()).toEqual(
        own.runs.map(({ id }) => id).sort(),
      );
      const way = ways.find(({ through }) => through.includes(pump.id))!;
      expect(endsOf(way)[1].port).toBe("feed");
      for (const [i, { run, isTurned }] of way.legs.entries()) {
        const into = isTurned ? run.to : run.from;
        if (i > 0) expect(into.part).toBe(way.through[i - 1]);
      }
    }
  });

  test("of the whole suction renewed: opened at its ends, blown through the bypass, and only then parted", () => {
    // A dip of two metres on each side of the pump, so that it is worth it.
    const sagged: Plan = {
      ...bypass,
      runs: bypass.runs.map((run) => ({
        ...run,
        boreM: 0.012,
        route: { kind: "measured" as const, lengthM: 4, bends: [], extremes: [{ atM: 2, zM: 0 }] },
      })),
    };
    const renewed: Plan = {
      ...sagged,
      id: "renewed",
      runs: sagged.runs.map((run) => ({ ...run, product: { ...run.product, marking: "renewed" } })),
    };
    const both = { ...job, plans: [sagged, renewed], currentPlanId: "renewed" };
    const { steps, found } = derive(both, sagged, renewed);
    const order = ordered(steps, found);
    if (order.outcome !== "order") throw new Error(JSON.stringify(order));
    const ids = order.steps.map(({ id }) => id);
    const blow = order.steps.find(({ verb, of }) => verb === "blow" && of.includes(pump.id))!;
    expect(blow.litresM3).toBeGreaterThan(5e-5);
    const [into, out] = [`undo:${pump.id}.in`, `undo:${pump.id}.out`];
    for (const inner of [into, out]) {
      expect(ids.indexOf(inner)).toBeGreaterThan(ids.indexOf(blow.id));
      // It was pushed out: nothing comes any more.
      expect(order.steps.find(({ id }) => id === inner)?.litresM3).toBe(0);
    }
  });
});

test("a plan of petrol is never blown through", () => {
  const petrol = { ...job, fuel: { ...job.fuel, grade: "petrol" as const } };
  const next = applyCommand(petrol, { name: "removePart", id: pump.id }).job;
  expect(derive(next, plan, currentPlan(next)).steps.some(({ verb }) => verb === "blow")).toBe(false);
});
