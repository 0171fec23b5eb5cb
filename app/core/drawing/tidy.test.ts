import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { playPatches } from "../edit/commands";
import { startJob } from "../edit/starters";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { seeded } from "../random/seeded";
import { carryOut } from "./carryOut";
import { faultsOf } from "./checked.fixture";
import { placedOf } from "./placed";
import { ROOM, wholeIn } from "./room";
import { type Counts, countsOf, isTidier, putByHand, tidying } from "./tidy";

const marram: Job = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")).job;

const tidy = (job: Job, all?: boolean) =>
  carryOut(job, { name: "tidy", ...tidying(buildNetwork(job), all).settled });

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
  const counted = (edges: Record<string, { x: number; y: number }[]>) =>
    countsOf({ edges: new Map(Object.entries(edges)) });

  test("a cross is one crossing, a corner one bend", () => {
    expect(counted({ a: at([0, 10], [20, 10]), b: at([10, 0], [10, 20]) })).toEqual({
      crossings: 1,
      bends: 0,
    });
    expect(counted({ a: at([0, 10], [10, 10], [10, 20]) })).toEqual({ crossings: 0, bends: 1 });
  });
  test("what touches with its end, or crosses itself, crosses nothing", () => {
    expect(counted({ a: at([0, 10], [20, 10]), b: at([10, 10], [10, 20]) }).crossings).toBe(0);
    expect(counted({ a: at([0, 10], [20, 10], [20, 20], [10, 20], [10, 0]) }).crossings).toBe(0);
  });
});

const counts = ({ crossings, bends }: Counts) => ({ crossings, bends });

describe("tidying", () => {
  test("what was laid out from nothing has nothing to gain", () => {
    const anew = tidy(marram).job;
    const { gain } = tidying(buildNetwork(anew));
    expect(gain).toMatchObject({ crossings: 0, bends: 0, is: gain.was });
    expect(isTidier(gain)).toBe(false);
  });

  test("a plan that grew part by part gains what was told, is clean, and undo brings every place back", () => {
    const job = grown(12);
    const network = buildNetwork(job);
    const { gain } = tidying(network);
    const done = tidy(job);
    const after = buildNetwork(done.job);
    const [was, is] = [countsOf(placedOf(network)), countsOf(placedOf(after))];
    expect({ crossings: was.crossings - is.crossings, bends: was.bends - is.bends }).toEqual(counts(gain));
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

  test("what was put by hand stays to the cell, all else is laid round it, and clean; all of it moves only when asked", () => {
    let job = grown(10);
    const put = ["lift", "v3", "v7"].map((id, i) => ({ id, x: 20 + 12 * i, y: 40 + 9 * i }));
    for (const at of put) job = carryOut(job, { name: "put", ...at }).job;
    const network = buildNetwork(job);
    const held = putByHand(network);
    expect(held.map(([id]) => id).sort()).toEqual(put.map(({ id }) => id).sort());
    const done = tidy(job);
    const after = buildNetwork(done.job);
    const { places } = currentPlan(done.job);
    for (const [id, cell] of held) expect(places![id]).toEqual(cell);
    const { overPx, throughBodies, overNames, noWay, bodiesMeet } = faultsOf(after, placedOf(after));
    expect([overPx, throughBodies, overNames, noWay, bodiesMeet]).toEqual([0, [], [], [], []]);
    const [was, is] = [countsOf(placedOf(network)), countsOf(placedOf(after))];
    expect({ crossings: was.crossings - is.crossings, bends: was.bends - is.bends }).toEqual(
      counts(tidying(network).gain),
    );
    expect(playPatches(done.job, done.inverse)).toEqual(job);
    const anew = tidy(job, true).job;
    expect(putByHand(buildNetwork(anew))).toEqual([]);
    expect(currentPlan(anew).places).toEqual(currentPlan(tidy(grown(10)).job).places);
  });

  test("a place that a hand chose keeps its mark where an edit moves it on", () => {
    const put = carryOut(marram, { name: "put", id: "lift", x: 40, y: 30 }).job;
    expect(currentPlan(put).places!.lift!.byHand).toBe(true);
    let job = put;
    for (const [i, run] of currentPlan(put).runs.slice(0, 8).entries())
      job = carryOut(job, {
        name: "insertPart",
        id: `f${i}`,
        kind: "filter",
        runId: run.id,
        newRunId: `n${i}`,
      }).job;
    expect(putByHand(buildNetwork(job)).map(([id]) => id)).toEqual(["lift"]);
  });

  test("is worth it for crossings, even at a few bends more; never for bends at a crossing", () => {
    const alike = { was: ROOM, is: ROOM };
    expect(isTidier({ crossings: 2, bends: -3, ...alike })).toBe(true);
    expect(isTidier({ crossings: 1, bends: -5, ...alike })).toBe(false);
    expect(isTidier({ crossings: 0, bends: 4, ...alike })).toBe(true);
    expect(isTidier({ crossings: -1, bends: 9, ...alike })).toBe(false);
  });

  test("is worth it where it is shown that much larger, in the room that there is", () => {
    const long = { width: 4 * ROOM.width, height: ROOM.height / 3 };
    const filled = { width: 1.2 * ROOM.width, height: ROOM.height };
    expect(isTidier({ crossings: 0, bends: -6, was: long, is: filled })).toBe(true);
    expect(isTidier({ crossings: -2, bends: -6, was: long, is: filled })).toBe(true);
    expect(isTidier({ crossings: 2, bends: 6, was: filled, is: long })).toBe(false);
    // On a screen wide enough for the line nothing is gained by folding it.
    expect(isTidier({ crossings: 0, bends: -6, was: long, is: filled }, long)).toBe(false);
  });

  test("a truck that grew in one line is folded into bands, and is shown a fifth larger at least", () => {
    const kinds = [
      "filter",
      "twoWay",
      "liftPump",
      "gauge",
      "check",
      "bleedScrew",
      "flowMeter",
      "cooler",
    ] as const;
    let job = startJob("s", "S", "truck");
    const engine = job.consumers[0]!.id;
    for (let i = 0; i < 16; i++) {
      const run = currentPlan(job).runs.find(({ to }) => to.part === engine)!;
      const kind = kinds[i % kinds.length]!;
      job = carryOut(job, { name: "insertPart", id: `n${i}`, kind, runId: run.id, newRunId: `r${i}` }).job;
    }
    const { gain } = tidying(buildNetwork(job));
    expect(gain.was.width).toBeGreaterThan(1.5 * ROOM.width);
    expect(isTidier(gain)).toBe(true);
    expect(wholeIn(ROOM, gain.is)).toBeGreaterThan(1.2 * wholeIn(ROOM, gain.was));
    const done = tidy(job);
    const faults = faultsOf(buildNetwork(done.job), placedOf(buildNetwork(done.job)));
    expect([faults.overPx, faults.throughBodies, faults.overNames, faults.noWay]).toEqual([0, [], [], []]);
    // Every part of the line stands in one of the bands, in its order along each.
    const { places } = currentPlan(done.job);
    const rows = new Set(currentPlan(job).parts.map(({ id }) => places![id]!.y));
    expect(rows.size).toBeGreaterThan(1);
    expect(rows.size).toBeLessThan(5);
  });
});
