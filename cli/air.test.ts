/** Laws of air in fuel lines against values computed apart from this project, each with its source; and what must hold of them. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { laws } from "~/schemas/calc";

interface Check {
  law: string;
  input: Record<string, number>;
  output: Record<string, number | boolean | null>;
  relativeTolerance: number;
  source: string;
}
const checks = JSON.parse(readFileSync("cli/air-checks.json", "utf8")) as Check[];
const run = (name: string, input: Record<string, number>) => {
  const law = laws[name];
  if (!law) throw new Error(name);
  return law.run(law.input.parse(input) as never) as Record<string, number>;
};

test.each(checks.map((check, i) => [i, check.law, check.source, check] as const))(
  "%d %s: %s",
  (_i, name, _source, { input, output, relativeTolerance }) => {
    const found = run(name, input) as Record<string, unknown>;
    for (const [key, wanted] of Object.entries(output)) {
      if (typeof wanted === "number")
        expect(Math.abs((found[key] as number) - wanted)).toBeLessThanOrEqual(
          relativeTolerance * Math.abs(wanted),
        );
      else expect(found[key]).toBe(wanted);
    }
  },
);

describe("what must hold", () => {
  const fuel = { densityKgM3: 835, viscosityMm2S: 4.2 };
  test("a line filled by gravity, stepped in small pieces, takes as long as the closed form says", () => {
    for (const [slopeDeg, headM, lengthM] of [
      [10, 0.25, 2.4],
      [-8, 0.3, 1.6],
      [0, 0.2, 1],
      [1e-5, 0.2, 1],
      [45, 0.01, 3],
    ] as const) {
      const [boreMm, sine] = [4, Math.sin((slopeDeg * Math.PI) / 180)];
      const { seconds = 0 } = run("gravityFill", { boreMm, lengthM, slopeDeg, headM, ...fuel });
      let slow = 0;
      const steps = 200_000;
      const k = (9.80665 * (boreMm / 1000) ** 2) / (32 * 4.2e-6);
      for (let i = 0; i < steps; i++) {
        const x = ((i + 0.5) * lengthM) / steps;
        slow += (x / (k * (headM + sine * x)) / steps) * lengthM;
      }
      expect(Math.abs(seconds / slow - 1)).toBeLessThan(1e-6);
    }
  });
  test("a pump draws nothing more at its own dry vacuum, and something just before", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 30, noNaN: true }),
        fc.double({ min: 1, max: 1.4, noNaN: true }),
        (clearanceRatio, polytropicExponent) => {
          const pump = { clearanceRatio, polytropicExponent };
          const { vacuumKpa = 0 } = run("dryLift", {
            ...pump,
            outletKpa: 101.325,
            atmosphereKpa: 101.325,
            checkKpa: 0,
            densityKgM3: 835,
          });
          const at = (vacuum: number) =>
            run("gasEfficiency", { ...pump, inletKpa: 101.325 - vacuum, outletKpa: 101.325 }).efficiency ?? 0;
          expect(at(vacuumKpa)).toBeCloseTo(0, 9);
          expect(at(vacuumKpa * 0.99)).toBeGreaterThan(0);
        },
      ),
    );
  });
  test("a dead end keeps its air: pressed by Boyle, and in balance with the fuel", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 5, noNaN: true }),
        fc.integer({ min: -90, max: 90 }),
        fc.double({ min: 0, max: 4, noNaN: true }),
        (lengthM, slopeDeg, headM) => {
          const sine = Math.sin((slopeDeg * Math.PI) / 180);
          // Where its far end stands under the fuel.
          fc.pre(headM >= 0 && headM + lengthM * Math.max(0, -sine) > 0);
          const { airLengthM = 0, airKpa = 0 } = run("deadEnd", {
            boreMm: 8,
            lengthM,
            slopeDeg,
            headM,
            densityKgM3: 832,
            atmosphereKpa: 101.325,
          });
          expect(airKpa * airLengthM).toBeCloseTo(101.325 * lengthM, 6);
          if (airLengthM < lengthM * (1 - 1e-9))
            expect(airKpa * 1000).toBeCloseTo(
              101325 + 832 * 9.80665 * (headM - (lengthM - airLengthM) * sine),
              2,
            );
        },
      ),
    );
  });
  test("in a bore so thin that a bubble sticks any flow clears it", () => {
    expect(
      run("clearingFlow", { boreMm: 3, slopeDeg: 90, densityKgM3: 835, surfaceTensionNM: 0.027 }).flowLH,
    ).toBe(0);
    expect(
      run("clearingFlow", { boreMm: 4, slopeDeg: 90, densityKgM3: 835, surfaceTensionNM: 0.027 }).flowLH,
    ).toBeGreaterThan(0);
  });
  test("what is blown out and what is left is what was there: all of it where gas does not break through", () => {
    const line = { boreMm: 9.5, riseM: 0.7, riseDeg: 40, holdup: 0.3, densityKgM3: 835 };
    const heldMl = ((Math.PI / 4) * 0.95 ** 2 * 70) / Math.sin((40 * Math.PI) / 180);
    expect(run("blowThrough", { ...line, blowKpa: 5, gasFlowLMin: 12 })).toMatchObject({
      breaksThrough: false,
      leftMl: expect.closeTo(heldMl, 6),
    });
    expect(run("blowThrough", { ...line, blowKpa: 35, gasFlowLMin: 60 })).toMatchObject({
      carriesUp: true,
      leftMl: 0,
    });
  });
  test.each([
    ["dryLift", { clearanceRatio: 0 }],
    ["bubblePoint", { poreUm: 0, contactDeg: 0, surfaceTensionNM: 0.027 }],
    ["strokes", { volumeMl: -1, strokeMl: 8, efficiency: 0.8 }],
  ])("%s refuses what cannot be", (name, input) => {
    expect(laws[name]?.input.safeParse(input).success).toBe(false);
  });
});
