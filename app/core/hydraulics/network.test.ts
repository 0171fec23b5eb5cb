/** The parts of the solver against slower ways: a dense elimination, nodal analysis of resistors, one solve at a time. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { churchill } from "../laws/friction";
import { buildNetwork } from "../network/network";
import { randomJob } from "../network/randomPlan.fixture";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { analyse, factorAndSolve } from "../solver/factor";
import { type LinkLaws, makeTopology, NetworkSolver } from "../solver/newton";
import { figuresOf, isTransition, tankFlows, transitionRange } from "./derive";
import { type LineUpResult, LineUpSolver } from "./solve";
import { defaultSweep, judgeLineUp, sweepAll, worstConditions } from "./worst";

const marram = (): Job => (JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job }).job;

/** Gaussian elimination with pivoting: slow but sure. */
function dense(matrix: number[][], right: number[]): number[] {
  const a = matrix.map((row, i) => [...row, right[i] as number]);
  const n = a.length;
  for (let k = 0; k < n; k++) {
    const pivot = a
      .slice(k)
      .reduce(
        (best, row, i) => (Math.abs(row[k] as number) > Math.abs(a[best]?.[k] as number) ? k + i : best),
        k,
      );
    [a[k], a[pivot]] = [a[pivot] as number[], a[k] as number[]];
    const top = a[k] as number[];
    for (let i = k + 1; i < n; i++) {
      const row = a[i] as number[];
      const share = (row[k] as number) / (top[k] as number);
      for (let j = k; j <= n; j++) row[j] = (row[j] as number) - share * (top[j] as number);
    }
  }
  const x = new Array<number>(n).fill(0);
  for (let k = n - 1; k >= 0; k--) {
    const row = a[k] as number[];
    let sum = row[n] as number;
    for (let j = k + 1; j < n; j++) sum -= (row[j] as number) * (x[j] as number);
    x[k] = sum / (row[k] as number);
  }
  return x;
}

const graph = fc.integer({ min: 2, max: 14 }).chain((size) =>
  fc.record({
    size: fc.constant(size),
    // A chain joins all; the rest are drawn at will.
    extra: fc.array(fc.tuple(fc.nat(size - 1), fc.nat(size - 1)), { maxLength: 20 }),
    weight: fc.array(fc.double({ min: 0.1, max: 100, noNaN: true }), { minLength: 40, maxLength: 40 }),
    right: fc.array(fc.double({ min: -10, max: 10, noNaN: true }), { minLength: size, maxLength: size }),
  }),
);

function pairsOf({ size, extra }: { size: number; extra: [number, number][] }): [number, number][] {
  const seen = new Set<string>();
  const chain = Array.from({ length: size - 1 }, (_, i): [number, number] => [i, i + 1]);
  return [...chain, ...extra].filter(([a, b]) => {
    const key = `${Math.min(a, b)}-${Math.max(a, b)}`;
    if (a === b || seen.has(key)) return false;
    seen.add(key);
    return true;
  });
}

describe("the factor", () => {
  test("solves what a dense elimination solves, for any graph", () => {
    fc.assert(
      fc.property(graph, (drawn) => {
        const pairs = pairsOf(drawn);
        const { size, weight, right } = drawn;
        const matrix = Array.from({ length: size }, () => new Array<number>(size).fill(0));
        const f = analyse(size, pairs);
        const diagonal = new Float64Array(size);
        const lower = new Float64Array(f.row.length);
        const x = new Float64Array(size);
        const add = (i: number, j: number, by: number) => {
          const row = matrix[i] as number[];
          row[j] = (row[j] as number) + by;
        };
        pairs.forEach(([a, b], k) => {
          const w = weight[k % weight.length] as number;
          add(a, a, w);
          add(b, b, w);
          add(a, b, -w);
          add(b, a, -w);
          lower[f.slotOfPair[k] as number] = -w;
        });
        // Node 0 is tied to a fixed one, or the matrix has no inverse.
        add(0, 0, 1);
        for (let i = 0; i < size; i++) {
          diagonal[f.position[i] as number] = matrix[i]?.[i] as number;
          x[f.position[i] as number] = right[i] as number;
        }
        factorAndSolve(f, diagonal, lower, x);
        dense(matrix, right).forEach((expected, i) => {
          const found = x[f.position[i] as number] as number;
          expect(Math.abs(found - expected)).toBeLessThan(1e-8 * (1 + Math.abs(expected)));
        });
      }),
    );
  });
});

describe("Newton", () => {
  test("of links that are resistors is nodal analysis, in one step", () => {
    fc.assert(
      fc.property(graph, (drawn) => {
        const pairs = pairsOf(drawn);
        const { size, weight, right } = drawn;
        const tank = size;
        const links = [...pairs, [tank, 0] as [number, number]];
        const make = () => new Float64Array(links.length);
        const linear = Float64Array.from(links, (_, k) => 1e6 * (weight[k % weight.length] as number));
        const laws: LinkLaws = {
          way: new Uint8Array(links.length),
          constant: make(),
          linear,
          square: make(),
          friction: make(),
          reynoldsPerFlow: make().fill(1),
          relativeRoughness: make(),
          curve: new Int16Array(links.length).fill(-1),
          curves: [],
        };
        const topology = makeTopology(
          size,
          size + 1,
          Int32Array.from(links, ([a]) => a),
          Int32Array.from(links, ([, b]) => b),
        );
        const state = { flow: make(), potential: new Float64Array(size + 1) };
        state.potential[tank] = 5000;
        const demand = Float64Array.from([...right.map((one) => one * 1e-6), 0]);
        const end = new NetworkSolver(topology, churchill).solve(laws, demand, state);
        expect(end.outcome).toBe("solved");
        const matrix = Array.from({ length: size }, () => new Array<number>(size).fill(0));
        const sums = right.map((one) => -one * 1e-6);
        links.forEach(([a, b], k) => {
          const g = 1 / (linear[k] as number);
          for (const [i, j] of [
            [a, b],
            [b, a],
          ] as const) {
            if (i === tank) continue;
            (matrix[i] as number[])[i] = (matrix[i]?.[i] as number) + g;
            if (j === tank) sums[i] = (sums[i] as number) + g * 5000;
            else (matrix[i] as number[])[j] = (matrix[i]?.[j] as number) - g;
          }
        });
        dense(matrix, sums).forEach((expected, i) =>
          expect(Math.abs((state.potential[i] as number) - expected)).toBeLessThan(0.05),
        );
      }),
      { numRuns: 60 },
    );
  });
});

describe("one solver for many settings", () => {
  const figures = (result: LineUpResult) =>
    result.outcome === "solved"
      ? { flow: [...result.flow], gauge: [...result.gaugePa], consumers: [...result.consumers] }
      : { outcome: result.outcome };

  test("in place gives what a solver of its own gives, whatever came before", () => {
    for (let seed = 1; seed <= 40; seed++) {
      const job = randomJob(seed);
      const plan = currentPlan(job);
      const network = buildNetwork(job);
      const kept = new LineUpSolver(network);
      for (const fuelC of [plan.conditions.fuelC, plan.conditions.fuelC + 12, plan.conditions.fuelC]) {
        for (const lineUp of plan.lineUps) {
          const conditions = { ...plan.conditions, fuelC };
          const own = figures(new LineUpSolver(network).solve(lineUp, conditions));
          const shared = figures(kept.solveInPlace(lineUp, conditions));
          expect(Object.keys(shared)).toEqual(Object.keys(own));
          if (!("flow" in own) || !own.flow || !("flow" in shared) || !shared.flow) continue;
          const most = Math.max(...own.flow.map(Math.abs));
          own.flow.forEach((q, i) =>
            expect(Math.abs((shared.flow?.[i] as number) - q)).toBeLessThan(1e-3 * most + 1e-9),
          );
        }
      }
    }
  });

  test("a result that was not solved in place stays as it was through further calls", () => {
    const job = marram();
    const { lineUps, conditions } = currentPlan(job);
    const solver = new LineUpSolver(buildNetwork(job));
    const first = solver.solve(lineUps[0] as never, conditions);
    const before = JSON.stringify(figures(first));
    for (const lineUp of lineUps) solver.solveInPlace(lineUp, { ...conditions, fuelC: 40 });
    expect(JSON.stringify(figures(first))).toBe(before);
  });

  test("the sweep's cases are the line-ups' own verdicts at those conditions", () => {
    const job = marram();
    const network = buildNetwork(job);
    const plan = currentPlan(job);
    const sweep = { ...defaultSweep(job), temperaturesC: [5], loadings: [2], fills: [1] };
    for (const found of sweepAll(network, plan.conditions, sweep)) {
      const lineUp = plan.lineUps.find(({ id }) => id === found.lineUpId);
      const loading = Object.fromEntries(
        plan.parts.flatMap((part) => (part.kind === "filter" && part.element ? [[part.element.id, 2]] : [])),
      );
      const verdict = judgeLineUp(new LineUpSolver(network), lineUp as never, {
        ...plan.conditions,
        fuelC: 5,
        loading,
      });
      expect(Math.abs((found.vacuumPa ?? 0) - (verdict.suction?.vacuumPa ?? 0))).toBeLessThan(1);
    }
  });
});

describe("what is read off a solution", () => {
  const job = marram();
  const network = buildNetwork(job);
  const plan = currentPlan(job);
  const result = new LineUpSolver(network).solve(plan.lineUps[0] as never, plan.conditions);
  if (result.outcome !== "solved") throw new Error("not solved");

  test("velocity and Reynolds number by hand: 210 L/h in 12.7 mm", () => {
    const run = figuresOf(result, network.linkOf.get("run1") ?? -1);
    const area = (Math.PI / 4) * 0.0127 ** 2;
    expect(Math.abs(run.velocityMS)).toBeCloseTo(210 / 3.6e6 / area, 5);
    expect(run.reynolds).toBeCloseTo((210 / 3.6e6 / area) * (0.0127 / result.settings.fuel.kinematicM2S), 1);
    expect(run.lossPa).toBeGreaterThan(0);
  });

  test("what leaves the tanks less what comes back is what is burnt", () => {
    const net = [...tankFlows(result).values()].reduce((sum, q) => sum + q, 0);
    expect(net * 3.6e6).toBeCloseTo(42, 3);
  });

  test("where a run lies between laminar and turbulent its loss is a range that holds the law's own figure", () => {
    const cold = new LineUpSolver(network).solve(plan.lineUps[0] as never, { ...plan.conditions, fuelC: 40 });
    if (cold.outcome !== "solved") throw new Error("not solved");
    const between = network.links.flatMap((link, i) =>
      link.kind === "run" && isTransition(figuresOf(cold, i).reynolds) ? [i] : [],
    );
    expect(between.length).toBeGreaterThan(0);
    for (const i of between) {
      const range = transitionRange(cold, i);
      if (!range) throw new Error("no range");
      expect(range.lowPa).toBeLessThanOrEqual(figuresOf(cold, i).lossPa * 1.001);
      expect(range.highPa).toBeGreaterThan(range.lowPa);
    }
    expect(transitionRange(cold, network.linkOf.get("lift") ?? -1)).toBeNull();
  });

  test("the worst is the coldest, the fullest filter, the lowest tank and full load", () => {
    const worst = worstConditions(job, plan);
    expect(worst.fuelC).toBe(job.site.ambientLowC);
    expect(worst.load.engine).toBe(1);
    for (const part of plan.parts)
      if (part.kind === "filter" && part.element)
        expect(worst.loading[part.element.id]).toBe(part.changeLoading);
    for (const { id } of job.tanks)
      expect(worst.aboardM3[id]).toBeLessThan(plan.conditions.aboardM3[id] ?? 0);
  });
});
