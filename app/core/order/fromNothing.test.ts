/** From nothing, by what the trade asks whatever the plan: safe first, tanks set and filled, heaters fixed and wired. Common practice, no source. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { startJob } from "../edit/starters";
import { currentPlan } from "../plan/ports";
import type { Job, Plan } from "../plan/types";
import { derive } from "./derive";
import { ordered, type WorkStep } from "./facts";

const demo = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const orderOf = (job: Job, before: Plan | null = null, after = currentPlan(job)): WorkStep[] => {
  const { steps, found } = derive(job, before, after);
  const result = ordered(steps, found);
  if (result.outcome !== "order") throw new Error(JSON.stringify(result));
  return result.steps;
};

const jobs: [string, () => Job][] = [
  ["Marram", () => demo("marram")],
  ["Unit 12", () => demo("unit-12")],
  ["the van", () => demo("reading-van")],
  ["one tank", () => startJob("j", "One", "oneTank")],
  ["two tanks", () => startJob("j", "Two", "twoTanksTwoSelectors")],
];

describe.each(jobs)("%s from nothing", (_name, make) => {
  const job = make();
  const steps = orderOf(job);
  const all = (verb: RegExp, id?: string) =>
    steps.flatMap((step, i) => (verb.test(step.verb) && (!id || step.of.includes(id)) ? [i] : []));
  const before = (first: number[], then: number[]) => {
    expect(first.length).toBeGreaterThan(0);
    if (then.length > 0) expect(Math.max(...first)).toBeLessThan(Math.min(...then));
  };

  test("is made safe before anything is fixed, cut, sawn or opened", () => {
    for (const verb of ["batteryOff", "extinguisher", "ventilate", "eyes"])
      before(
        all(new RegExp(`^${verb}$`)),
        all(/^(fixPart|boardUp|cutHole|tankFitting|setTank|cutHose|wire)$/),
      );
  });

  test("has each tank opened while it is empty, set before its hoses are on, filled when all is tight and before bleeding", () => {
    const plan = currentPlan(job);
    const used = job.tanks.filter(({ id }) =>
      [...plan.runs, ...plan.joints].some(({ from, to }) => from.part === id || to.part === id),
    );
    expect(used.length).toBeGreaterThan(0);
    for (const { id } of used) {
      expect(all(/^drainTank$/, id)).toEqual([]);
      before(all(/^tankFitting$/, id), all(/^setTank$/, id));
      before(all(/^setTank$/, id), all(/^join$/, id));
      before(all(/^join$/), all(/^fill$/, id));
      before(all(/^fill$/, id), all(/^(power|bleed)$/));
    }
  });

  test("has each heater fixed and wired before its fuel line is joined and before power", () => {
    for (const { id, kind } of job.consumers) {
      const isJoined = all(/^join$/, id).length > 0;
      if (kind !== "heater" || !isJoined) continue;
      before(all(/^fixPart$/, id), all(/^join$/, id));
      before(all(/^wire$/, id), all(/^power$/));
    }
  });
});

test("a tank that the plan before had not is set and filled too, and what was there is not", () => {
  const job = demo("marram");
  const after = currentPlan(job);
  const isOf = (id: string) => (one: { from: { part: string }; to: { part: string } }) =>
    one.from.part === id || one.to.part === id;
  const before: Plan = {
    ...after,
    id: "was",
    runs: after.runs.filter((run) => !isOf("dayTank")(run)),
    joints: after.joints.filter((joint) => !isOf("dayTank")(joint)),
  };
  const steps = orderOf(job, before, after);
  expect(steps.filter(({ verb }) => verb === "setTank").map(({ of }) => of[0])).toEqual(["dayTank"]);
  expect(steps.some(({ id }) => id === "fill:dayTank")).toBe(true);
});
