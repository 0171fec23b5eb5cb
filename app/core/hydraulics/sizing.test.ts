import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { buildNetwork } from "../network/network";
import { tryBore } from "../network/shape";
import { currentPlan } from "../plan/ports";
import type { Job, Plan } from "../plan/types";
import { firstSuction } from "./limits";
import { boresM, marginOverLoad, sizesOf } from "./sizing";
import { LineUpSolver } from "./solve";
import {
  judgeLineUp,
  type LineUpVerdict,
  lowestUsableAtM3,
  lowestUsableM3,
  worstConditions,
  worstOfLineUp,
} from "./worst";

const read = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;

/** The slow way: another plan with another bore, built anew. */
function marginWith(job: Job, runId: string, boreM: number): number | undefined {
  const plan = currentPlan(job);
  const runs = plan.runs.map((run) => {
    if (run.id !== runId) return run;
    const endBoreM = run.endBoreM?.map((end) => (boreM === run.boreM ? end : (end / run.boreM) * boreM));
    return { ...run, boreM, ...(endBoreM ? { endBoreM } : {}) };
  }) as Plan["runs"];
  const other = { ...job, plans: job.plans.map((one) => (one.id === plan.id ? { ...plan, runs } : one)) };
  const network = buildNetwork(other);
  const lineUp = network.plan.lineUps[0]!;
  return firstMargin(judgeLineUp(new LineUpSolver(network), lineUp, worstConditions(job, plan)), plan);
}

/** At the first inlet: what stands before it answers for that alone. */
const firstMargin = ({ result, way }: LineUpVerdict, plan: Plan): number | undefined =>
  result.outcome === "solved" && way ? firstSuction(result, way, plan)?.marginPa : undefined;

describe("sizes", () => {
  const job = read("unit-12");
  const plan = currentPlan(job);
  const network = buildNetwork(job);
  const lineUp = plan.lineUps[0]!;
  const worst = worstConditions(job, plan);
  const sized = sizesOf(network, lineUp, worst, 5000);

  test("every bore tried in place gives what a plan built anew gives, and the network is left as it was", () => {
    const before = JSON.stringify(Object.values(buildNetwork(job).shape).slice(0, 5));
    const run = sized.find(({ id }) => id === "r2")!;
    for (const { size, marginPa } of run.tried) {
      const slow = marginWith(job, "r2", size);
      if (marginPa !== null) expect(Math.abs(marginPa - (slow ?? Number.NaN))).toBeLessThan(0.2);
    }
    expect(JSON.stringify(Object.values(network.shape).slice(0, 5))).toBe(before);
  });

  test("margin grows with bore, and the least is the first that keeps what is wanted", () => {
    for (const { tried, least } of sized) {
      const fed = tried.filter(({ marginPa }) => marginPa !== null);
      for (let i = 1; i < fed.length; i++)
        expect(fed[i]!.marginPa!).toBeGreaterThanOrEqual(fed[i - 1]!.marginPa! - 1);
      const first = tried.find(({ marginPa }) => marginPa !== null && marginPa >= 5000);
      expect(least).toBe(first?.size ?? null);
    }
    expect(sized.map(({ kind }) => kind)).toEqual(expect.arrayContaining(["run", "filter"]));
  });

  test("what a larger size buys is bounded by what the part takes", () => {
    const verdict = judgeLineUp(new LineUpSolver(network), lineUp, worst);
    for (const { id, tried } of sized) {
      const loss = verdict.way?.suctionLosses.find((one) => one.id === id)?.lossPa ?? 0;
      const now = firstMargin(verdict, plan)!;
      expect((tried.at(-1)?.marginPa ?? now) - now).toBeLessThanOrEqual(loss + 1);
    }
  });

  test("a part that is no run has no bore to try", () => {
    const valve = network.links.findIndex(({ kind }) => kind === "valve");
    expect(() => tryBore(network, valve, boresM[3])).toThrow(/no run/);
  });

  test("margin falls with load, and colder fuel has less of it", () => {
    const lines = marginOverLoad(network, lineUp);
    for (const { points } of lines)
      for (let i = 1; i < points.length; i++)
        expect(points[i]?.marginPa ?? -1e9).toBeLessThanOrEqual((points[i - 1]?.marginPa ?? 1e9) + 1);
    const full = lines.map(({ points }) => points.at(-1)?.marginPa ?? -1e9);
    expect(full[0]).toBeLessThan(full[1]!);
    expect(full[1]).toBeLessThan(full[2]!);
  });
});

describe("the worst of a line-up", () => {
  test.each(["marram", "unit-12", "reading-van"])(
    "%s: nothing at a corner of the envelope is worse, and each cause saves",
    (name) => {
      const job = read(name);
      const network = buildNetwork(job);
      const solver = new LineUpSolver(network);
      for (const lineUp of network.plan.lineUps.filter(({ purpose }) => purpose === "run")) {
        const { verdict, causes, trim } = worstOfLineUp(solver, lineUp);
        expect(verdict.result.outcome).toBe("solved");
        const level = judgeLineUp(solver, lineUp, worstConditions(job, network.plan));
        if (verdict.suction && level.suction)
          expect(verdict.suction.vacuumPa).toBeGreaterThanOrEqual(level.suction.vacuumPa - 1);
        expect(causes).toHaveLength(5);
        expect((causes[0]?.savedPa ?? 0) >= (causes[4]?.savedPa ?? 0)).toBe(true);
        expect(Math.abs(trim.pitchDeg)).toBeLessThanOrEqual(20);
      }
    },
  );

  test("lowest usable fuel at no trim is what it is standing level", () => {
    const job = read("marram");
    const network = buildNetwork(job);
    const tilted = lowestUsableAtM3(network, { pitchDeg: 0, rollDeg: 0 });
    for (const [id, m3] of Object.entries(lowestUsableM3(job))) expect(tilted[id]).toBeCloseTo(m3, 7);
  });

  test("heights at a pitch: a lift of sin(pitch) times the length, by hand", () => {
    const job = read("unit-12");
    const network = buildNetwork(job);
    const solver = new LineUpSolver(network);
    const { conditions } = network.plan;
    const lineUp = network.plan.lineUps[0]!;
    const level = judgeLineUp(solver, lineUp, conditions);
    const pitched = judgeLineUp(solver, lineUp, { ...conditions, trim: { pitchDeg: 10, rollDeg: 0 } });
    const pump = network.plan.parts.find(({ id }) => id === "lift")!.position;
    const sin = Math.sin((10 * Math.PI) / 180);
    const cos = Math.cos((10 * Math.PI) / 180);
    if (level.result.outcome !== "solved" || pitched.result.outcome !== "solved") throw new Error("unsolved");
    const surface = (one: typeof level) =>
      one.result.outcome === "solved" ? (one.result.settings.surfaceM.get("frame") ?? 0) : 0;
    const density = level.result.settings.fuel.densityKgM3;
    const rise = pump.xM * sin + pump.zM * cos - surface(pitched) - (pump.zM - surface(level));
    expect((pitched.suction?.vacuumPa ?? 0) - (level.suction?.vacuumPa ?? 0)).toBeCloseTo(
      density * 9.80665 * rise,
      0,
    );
  });
});
