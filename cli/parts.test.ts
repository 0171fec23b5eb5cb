/** `keel parts`: whatever a plan joins stands in the list or among what cannot be counted; nothing falls out in silence. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { startJob } from "~/core/edit/starters";
import { currentPlan } from "~/core/plan/ports";
import type { Job } from "~/core/plan/types";
import { partsReport } from "./parts";

const demo = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;

describe.each<[string, Job]>([
  ["Marram", demo("marram")],
  ["the van", demo("reading-van")],
  ["a starter", startJob("j", "One", "oneTank")],
])("%s", (_name, job) => {
  const { parts, notCounted, stays } = partsReport(job);
  const plan = currentPlan(job);

  test("has each part and each hose in a line, and metres no less than the hoses are long", () => {
    const listed = new Set([...stays, ...parts.flatMap(({ forIds }) => forIds)]);
    for (const { id } of [...plan.parts, ...plan.runs]) expect(listed).toContain(id);
    const netM = plan.runs.reduce(
      (sum, { id, route }) =>
        stays.includes(id) ? sum : sum + (route.kind === "measured" ? route.lengthM : 0),
      0,
    );
    const listedM = parts
      .filter(({ kind }) => kind === "hose" || kind === "tube")
      .reduce((sum, { count }) => sum + count, 0);
    expect(listedM).toBeGreaterThanOrEqual(netM);
    for (const { count, what } of parts) expect([what, count > 0]).toEqual([what, true]);
  });

  test("has both ends of each hose counted by what seals them, or named with the reason why not", () => {
    const named = new Set(notCounted.flatMap(({ forIds }) => forIds));
    for (const { why } of notCounted) expect(why.length).toBeGreaterThan(20);
    const isTyped = Object.keys(plan.ends ?? {}).length > 0;
    // What nobody entered is counted as the school has it: a barb at each end, and what holds the hose on it.
    const barbs = parts.filter(({ what }) => /barb .*assumed/.test(what));
    if (!isTyped)
      for (const { id } of plan.runs.filter((run) => !stays.includes(run.id)))
        expect([...named, ...barbs.flatMap(({ forIds }) => forIds)]).toContain(id);
  });
});

test("a new heater comes with its alarm, a new tank with its fuel in litres", () => {
  const { parts } = partsReport(demo("reading-van"));
  expect(parts.filter(({ kind }) => kind === "alarm")).toHaveLength(1);
  const job = startJob("j", "One", "oneTank");
  const [tank] = job.tanks;
  const fuel = partsReport(job).parts.find(({ kind }) => kind === "fuel");
  expect(fuel).toMatchObject({ unit: "L", forIds: [tank!.id] });
  expect(fuel!.count).toBeCloseTo((currentPlan(job).conditions.aboardM3[tank!.id] ?? 0) * 1000, 6);
});

test("what stays as it was is neither bought nor cut anew, and what changed is", () => {
  const job = startJob("j", "One", "oneTank");
  const before = currentPlan(job);
  const [kept, longer] = before.runs;
  const plan = {
    ...before,
    id: "next",
    basedOn: before.id,
    runs: before.runs.map((run) =>
      run.id === longer!.id && run.route.kind === "measured"
        ? { ...run, route: { ...run.route, lengthM: run.route.lengthM + 0.5 } }
        : run,
    ),
  };
  const { parts, stays } = partsReport({ ...job, plans: [before, plan], currentPlanId: "next" });
  expect(stays).toContain(kept!.id);
  const hose = parts.filter(({ kind }) => kind === "hose");
  expect(hose.flatMap(({ forIds }) => forIds)).toEqual([longer!.id]);
  expect(parts.some(({ kind }) => kind === "tank" || kind === "part")).toBe(false);
});
