/** An estimate is the work order added up: nothing is typed, nothing is twice. */
import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { estimateOf } from "./estimate";
import { progressOf, startsFrom } from "./progress";

const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };
const plan = currentPlan(job);
const progress = progressOf(job, startsFrom(job, plan), plan, []);

test("hands are the minutes of all steps times who is needed, place by place", () => {
  const estimate = estimateOf(job, plan, progress, 1, null);
  const hands = progress.steps.reduce((sum, { workMin, people }) => sum + workMin * people, 0);
  expect(estimate.handsMin).toBe(hands);
  expect(estimate.places.reduce((sum, { handsMin }) => sum + handsMin, 0)).toBe(hands);
  expect(new Set(estimate.places.map(({ place }) => place)).size).toBe(estimate.places.length);
  expect(estimate.labour).toBeNull();
});

test("from first to last it takes no less than one pair of hands works, and two are no slower", () => {
  const [one, two] = [1, 2].map((people) => estimateOf(job, plan, progress, people, null));
  const alone = progress.steps.reduce((sum, { workMin }) => sum + workMin, 0);
  expect(one?.elapsedMin).toBeGreaterThanOrEqual(alone);
  expect(two?.elapsedMin).toBeLessThanOrEqual(one?.elapsedMin ?? 0);
});

test("labour goes with the rate, parts and hose with the list to buy", () => {
  const estimate = estimateOf(job, plan, progress, 1, 60);
  expect(estimate.labour).toBeCloseTo(estimate.handsMin, 9);
  expect(estimate.parts).toBe(plan.parts.length);
  expect(estimate.hoseM).toBeGreaterThan(10);
});
