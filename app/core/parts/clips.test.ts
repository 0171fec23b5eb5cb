/** Clips and cut cards against what can be walked along the run itself. */
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { newJob, newPart, newRun } from "../plan/blank";
import { lyingRuns } from "../plan/lying";
import { currentPlan } from "../plan/ports";
import { bendsAlong } from "../plan/route";
import type { Job, Plan, Run } from "../plan/types";
import { INCH_M } from "../units/factors";
import { clipCounts, clipLines } from "./clips";
import { cutCard } from "./cutCard";

const at = (xM: number, yM: number, zM: number) => ({ xM, yM, zM });

/** Two gauges apart along x, joined by one run. */
function joined(change: (run: Run) => void, apartM = 3) {
  const job = newJob("j", "J");
  const plan = currentPlan(job);
  plan.parts.push(newPart("check", "a", at(0, 0, 0)), newPart("check", "b", at(apartM, 0, 0)));
  const run = newRun("r", { part: "a", port: "out" }, { part: "b", port: "in" }, apartM, 0.0095);
  change(run);
  plan.runs.push(run);
  return { job, plan, run };
}
const only = (change: (run: Run) => void, apartM?: number) => {
  const { job, plan } = joined(change, apartM);
  const [line] = clipLines(job, plan);
  if (!line) throw new Error("no line");
  return line;
};

describe("clips", () => {
  test("no two further apart than 18 in, one within 100 mm of each end, and none that could be left out", () => {
    fc.assert(
      fc.property(fc.double({ min: 0.3, max: 12, noNaN: true }), (lengthM) => {
        const { clips } = only((run) => {
          run.route = { kind: "measured", lengthM, bends: [], extremes: [] };
        }, 0.2);
        const places = clips.map(({ atM }) => atM);
        expect(places[0]).toBeLessThanOrEqual(0.1 + 1e-12);
        expect(lengthM - (places.at(-1) ?? 0)).toBeLessThanOrEqual(0.1 + 1e-12);
        for (const [i, one] of places.slice(1).entries())
          expect(one - (places[i] as number)).toBeLessThanOrEqual(18 * INCH_M + 1e-9);
        // As few as the length allows: ends at 100 mm, the rest by whole spans.
        expect(clips).toHaveLength(Math.max(2, Math.ceil((lengthM - 0.2) / (18 * INCH_M) - 1e-9) + 1));
      }),
    );
  });

  test("one on each side of a traced bend, and one before what moves; a wide school doubles the span", () => {
    const traced = only((run) => {
      run.route = { kind: "traced", points: [at(0, 1, 0), at(3, 1, 0)], radiusM: 0.1 };
    });
    // Legs of 1, 3 and 1 m, less 0.1 m of setback each side: the arcs begin at 0.9 m and run 0.1 pi/2.
    const arc = (0.1 * Math.PI) / 2;
    const beside = traced.clips.filter(({ why }) => why === "bend").map(({ atM }) => atM);
    const starts = [0.9, 0.9 + arc + 2.8];
    expect(beside).toEqual(
      starts.flatMap((s) => [expect.closeTo(s - 0.03, 9), expect.closeTo(s + arc + 0.03, 9)]),
    );
    const moving = only((run) => {
      run.neighbours = [{ id: "n", kind: "moving", name: "shaft", atM: 1.5, apartM: 0.1, guarded: true }];
    });
    expect(moving.clips).toContainEqual({ atM: expect.closeTo(1.4, 9), why: "moving" });
    const { job, plan } = joined(() => undefined);
    const close = clipLines(job, plan)[0]!.clips.length;
    const wide = clipLines({ ...job, schools: { ...job.schools, support: "wide" } }, plan)[0]!.clips.length;
    expect([close, wide]).toEqual([8, 5]);
  });

  test("bends that were only counted have theirs without a place, and clips are counted by what they hold", () => {
    const { job, plan, run } = joined((one) => {
      one.route = { kind: "measured", lengthM: 3, bends: [{ deg: 90, count: 2 }], extremes: [] };
    });
    const [line] = clipLines(job, plan);
    expect(line?.besideBends).toBeGreaterThan(0);
    const total = line!.clips.length + line!.besideBends;
    expect(clipCounts([line!])).toEqual([
      { outsideM: run.product.outerDiameterM, count: total, runs: ["r"] },
    ]);
    // Three metres with two bends, by hand: two at the ends, four beside the bends, and one, two and one in the spans between.
    expect(total).toBe(10);
    // A short hose with a bend in its middle is held by its two ends, which stand beside it.
    const short = only((one) => {
      one.route = { kind: "measured", lengthM: 0.4, bends: [{ deg: 90, count: 1 }], extremes: [] };
    }, 0.2);
    expect(short.clips.length + short.besideBends).toBe(2);
  });
});

describe("bends along a run", () => {
  test("what is before the last arc's end, and the last leg less its setback, is the whole length", () => {
    const points = [at(0, 0, 0), at(1, 0, 0), at(1, 1, 0), at(1.5, 1.5, 0.4)];
    const bends = bendsAlong(points, 0.08);
    const { turnRad, toM } = bends.at(-1)!;
    const leg = Math.hypot(0.5, 0.5, 0.4);
    const { job, plan } = joined((run) => {
      run.route = { kind: "traced", points: [at(1, 0, 0), at(1, 1, 0)], radiusM: 0.08 };
    });
    plan.parts[1]!.position = at(1.5, 1.5, 0.4);
    const saved = bends.reduce((sum, one) => sum + 0.08 * (2 * Math.tan(one.turnRad / 2) - one.turnRad), 0);
    expect(toM + leg - 0.08 * Math.tan(turnRad / 2)).toBeCloseTo(2 + leg - saved, 12);
    expect(clipLines(job, plan)[0]?.clips.at(-1)?.atM).toBeCloseTo(2 + leg - saved - 0.1, 9);
  });
});

describe("cut card", () => {
  const cardOf = (job: Job, plan: Plan, run: Run) => {
    const lying = lyingRuns(job, plan).find((one) => one.run.id === run.id)!;
    return cutCard(plan, { ...lying, run });
  };

  test("in its order: nut and flare of the first end, bends by their marks, then the other nut before its flare", () => {
    const { job, plan, run } = joined((one) => {
      one.make = "rigid";
      one.route = { kind: "traced", points: [at(0, 1, 0)], radiusM: 0.05 };
    });
    plan.parts[1]!.position = at(2, 1, 0);
    plan.ends = {
      r: {
        from: { family: "jic37", size: "-6", form: "fs" },
        to: { family: "jic37", size: "-6", form: "fs" },
      },
    };
    const card = cardOf(job, plan, run)!;
    expect(card.steps?.map(({ kind }) => kind)).toEqual([
      "cut",
      "deburr",
      "nut",
      "flare",
      "bend",
      "nut",
      "flare",
    ]);
    // 1 m and 2 m round one right angle of 50 mm, and two flares of a 3/8 in tube (by hand: 0.477 mm each).
    const developed = 3 - 2 * 0.05 + (0.05 * Math.PI) / 2;
    expect(card.cutM).toBeCloseTo(developed + 2 * 0.000477, 5);
    const bend = card.steps?.find(({ kind }) => kind === "bend");
    expect(bend).toMatchObject({
      atM: expect.closeTo(0.95 + 0.000477, 5),
      turnRad: expect.closeTo(Math.PI / 2, 9),
    });
    expect(card.short).toEqual([]);
  });

  test("a straight that the bender cannot grip is told with what it needs; a hose has no card", () => {
    const { job, plan, run } = joined((one) => {
      one.make = "rigid";
      one.route = { kind: "traced", points: [at(0, 0.07, 0)], radiusM: 0.05 };
    });
    plan.parts[1]!.position = at(2, 0.07, 0);
    expect(cardOf(job, plan, run)?.short).toEqual([
      { straightM: expect.closeTo(0.02, 9), needsM: expect.closeTo(0.03, 9) },
    ]);
    expect(cardOf(job, plan, { ...run, make: "hose" })).toBeNull();
    const measured = { ...run, route: { kind: "measured" as const, lengthM: 2, bends: [], extremes: [] } };
    expect(cardOf(job, plan, measured)).toMatchObject({ steps: null, cutM: 2 });
  });
});
