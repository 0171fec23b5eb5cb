/** Keys that name nothing: found in whatever record they stand, and taken out by the command that made them so. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { checkJob } from "../check/job";
import { applyCommand } from "../edit/commands";
import { starterIds, startJob } from "../edit/starters";
import { currentPlan } from "./ports";
import { elementIds, straysOf } from "./strays";
import type { Job, Plan } from "./types";

const demos = ["marram", "unit-12", "reading-van"].map(
  (name): Job => JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")).job,
);
const [marram, unit12] = demos as [Job, Job];

/** The job with its current plan changed by hand, as a file from elsewhere might have it. */
const spoiled = (job: Job, change: (plan: Plan, job: Job) => void): Job => {
  const copy = structuredClone(job);
  change(currentPlan(copy), copy);
  return copy;
};
const found = (job: Job) => straysOf(job).map(({ path, id }) => `${path.slice(2).join(".")} ${id}`);

describe("a key that names nothing", () => {
  test.each(demos.map((job) => [job.name, job] as const))("%s has none", (_, job) => {
    expect(straysOf(job)).toEqual([]);
  });
  test.each(starterIds)("a job begun as '%s' has none", (id) => {
    expect(straysOf(startJob("j", "J", id))).toEqual([]);
  });

  test.each<[string, (plan: Plan, job: Job) => void, string]>([
    [
      "fuel aboard a tank that is gone",
      (plan) => (plan.conditions.aboardM3.gone = 0.1),
      "conditions.aboardM3.gone gone",
    ],
    [
      "an element that is in no part",
      (plan) => (plan.conditions.loading.gone = 2),
      "conditions.loading.gone gone",
    ],
    ["the load of no consumer", (plan) => (plan.conditions.load.gone = 1), "conditions.load.gone gone"],
    ["a place of nobody", (plan) => (plan.places = { gone: { x: 1, y: 1 } }), "places.gone gone"],
    ["sides of nobody", (plan) => (plan.sides = { gone: { west: [], east: [] } }), "sides.gone gone"],
    [
      "a port on a side that its part has not",
      (plan) => (plan.sides = { lift: { west: ["in", "in2"], east: ["out"] } }),
      "sides.lift.west.1 in2",
    ],
    ["what is awaited and not in the plan", (plan) => (plan.awaited = ["gone"]), "awaited.0 gone"],
    ["an end of nothing", (plan) => (plan.ends = { gone: {} }), "ends.gone gone"],
    ["a tank let down that is not there", (plan) => (plan.tanksDown = ["gone"]), "tanksDown.0 gone"],
  ])("%s is found at its place", (_, change, place) => {
    expect(found(spoiled(marram, change))).toEqual([place]);
  });

  test("a pickup fitted to no port is found in its tank", () => {
    const job = spoiled(marram, (_, { tanks }) => {
      tanks[0]!.pickupFit = { ...tanks[0]!.pickupFit!, portId: "gone" };
    });
    expect(straysOf(job)).toEqual([{ path: ["tanks", 0, "pickupFit"], id: "gone" }]);
  });
});

describe("what a command leaves without its thing", () => {
  const parts = (job: Job) => currentPlan(job).parts.map(({ id }) => id);

  test.each(demos.flatMap((job) => parts(job).map((id) => [job.name, id, job] as const)))(
    "%s without %s has no stray, and is whole",
    (_, id, job) => {
      const { job: after, inverse } = applyCommand(job, { name: "removePart", id });
      expect(straysOf(after)).toEqual([]);
      expect(checkJob(after)).toEqual([]);
      expect(inverse.length).toBeGreaterThan(0);
      // The element's loading goes with its part.
      const known = new Set(elementIds(currentPlan(after).parts));
      expect(Object.keys(currentPlan(after).conditions.loading).filter((one) => !known.has(one))).toEqual([]);
    },
  );

  test("a tank taken away takes what is told of it out of every plan", () => {
    for (const job of [marram, unit12])
      for (const { id } of job.tanks) {
        const after = applyCommand(job, { name: "removeTank", id }).job;
        expect(straysOf(after)).toEqual([]);
        for (const { conditions, places = {} } of after.plans) {
          expect(conditions.aboardM3).not.toHaveProperty(id);
          expect(places).not.toHaveProperty(id);
        }
      }
  });

  test("a board taken down takes with it what hung there", () => {
    for (const job of demos)
      for (const { id } of currentPlan(job).boards ?? []) {
        const after = applyCommand(job, { name: "removeBoard", id }).job;
        expect(straysOf(after)).toEqual([]);
        expect(Object.values(currentPlan(after).mounted ?? {}).some(({ boardId }) => boardId === id)).toBe(
          false,
        );
      }
  });
});
