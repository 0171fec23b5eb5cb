import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { playPatches } from "../edit/commands";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { seeded } from "../random/seeded";
import { carryOut } from "./carryOut";
import { faultsOf } from "./checked.fixture";
import { placedOf } from "./placed";
import { countsOf, isTidier, tidyGain } from "./tidy";

const marram: Job = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")).job;

/** A job with valves let into hoses drawn at random, none of them given room for it. */
function grown(times: number): Job {
  const random = seeded(7);
  let job = marram;
  for (let i = 0; i < times; i++) {
    const { runs } = currentPlan(job);
    const run = runs[Math.floor(random() * runs.length)]!;
    job = carryOut(job, {
      name: "insertPart",
      id: `v${i}`,
      kind: "twoWay",
      runId: run.id,
      newRunId: `r${i}`,
    }).job;
  }
  return job;
}

describe("counting", () => {
  const at = (...points: [number, number][]) => points.map(([x, y]) => ({ x, y }));
  const counts = (edges: Record<string, { x: number; y: number }[]>) =>
    countsOf({ edges: new Map(Object.entries(edges)) });

  test("a cross is one crossing, a corner one bend", () => {
    expect(counts({ a: at([0, 10], [20, 10]), b: at([10, 0], [10, 20]) })).toEqual({
      crossings: 1,
      bends: 0,
    });
    expect(counts({ a: at([0, 10], [10, 10], [10, 20]) })).toEqual({ crossings: 0, bends: 1 });
  });
  test("what touches with its end, or crosses itself, crosses nothing", () => {
    expect(counts({ a: at([0, 10], [20, 10]), b: at([10, 10], [10, 20]) }).crossings).toBe(0);
    expect(counts({ a: at([0, 10], [20, 10], [20, 20], [10, 20], [10, 0]) }).crossings).toBe(0);
  });
});

describe("tidying", () => {
  test("what was laid out from nothing has nothing to gain", () => {
    const anew = carryOut(marram, { name: "tidy" }).job;
    expect(tidyGain(buildNetwork(anew))).toEqual({ crossings: 0, bends: 0 });
    expect(isTidier({ crossings: 0, bends: 0 })).toBe(false);
  });

  test("a plan that grew part by part gains what was told, is clean, and undo brings every place back", () => {
    const job = grown(12);
    const network = buildNetwork(job);
    const gain = tidyGain(network);
    const done = carryOut(job, { name: "tidy" });
    const after = buildNetwork(done.job);
    const [was, is] = [countsOf(placedOf(network)), countsOf(placedOf(after))];
    expect({ crossings: was.crossings - is.crossings, bends: was.bends - is.bends }).toEqual(gain);
    expect(gain.crossings * 3 + gain.bends).toBeGreaterThan(0);
    const faults = faultsOf(after, placedOf(after));
    expect([faults.overPx, faults.throughBodies, faults.overNames, faults.noWay, faults.bodiesMeet]).toEqual([
      0,
      [],
      [],
      [],
      [],
    ]);
    const { plans: _, ...rest } = done.job;
    expect(rest).toEqual(expect.objectContaining({ tanks: job.tanks }));
    expect(currentPlan(done.job).runs).toEqual(currentPlan(job).runs);
    expect(playPatches(done.job, done.inverse)).toEqual(job);
  });

  test("is worth it for crossings, even at a few bends more; never for bends at a crossing", () => {
    expect(isTidier({ crossings: 2, bends: -3 })).toBe(true);
    expect(isTidier({ crossings: 1, bends: -5 })).toBe(false);
    expect(isTidier({ crossings: 0, bends: 4 })).toBe(true);
    expect(isTidier({ crossings: -1, bends: 9 })).toBe(false);
  });
});
