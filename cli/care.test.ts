/** Laws of care against values computed apart from this project, and against what must hold of them. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { bentBack, blockingOrders, straightened, trendOf, weighedTrend } from "~/core/care/blocking";
import { polishedInTwoParts } from "~/core/care/tankCleaning";
import { seeded } from "~/core/random/seeded";
import { laws } from "~/schemas/calc";

interface Check {
  law: string;
  input: Record<string, unknown>;
  output: Record<string, number | null>;
  relativeTolerance: number;
  source: string;
}
const checks = JSON.parse(readFileSync("cli/care-checks.json", "utf8")) as Check[];
const run = (name: string, input: unknown) => {
  const law = laws[name];
  if (!law) throw new Error(name);
  return law.run(law.input.parse(input) as never) as Record<string, number | null>;
};

test.each(checks.map((check, i) => [i, check.law, check.source, check] as const))(
  "%d %s: %s",
  (_i, name, _source, { input, output, relativeTolerance }) => {
    const found = run(name, input);
    for (const [key, wanted] of Object.entries(output)) {
      if (wanted === null) expect(found[key]).toBeNull();
      else
        expect(Math.abs((found[key] as number) - wanted)).toBeLessThanOrEqual(
          relativeTolerance * Math.max(Math.abs(wanted), 1e-9),
        );
    }
  },
);

describe("blocking", () => {
  test("a law straightened and bent back is itself, for every order", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.3, max: 40, noNaN: true }),
        fc.constantFrom(...blockingOrders),
        (loading, order) => {
          expect(bentBack(straightened(loading, order), order)).toBeCloseTo(loading, 6);
        },
      ),
    );
  });

  test("readings on a law's own line give its rate and its date back", () => {
    for (const order of blockingOrders) {
      const points = [0, 30, 60, 100, 140].map((x) => ({
        x,
        loading: bentBack(0.02 + 0.003 * x, order) as number,
        plusMinus: 0.05,
      }));
      const found = trendOf(points, order, 4, 0.9);
      expect(found?.rate).toBeCloseTo(0.003, 9);
      expect(found?.due).toBeCloseTo((straightened(4, order) - 0.02) / 0.003, 5);
    }
  });

  test("the interval holds the true crossing in its share of seeded cases", () => {
    const normal = (random: () => number) =>
      Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    let held = 0;
    const of = 400;
    for (let seed = 1; seed <= of; seed++) {
      const random = seeded(seed);
      const points = [0, 40, 80, 120, 160, 200].map((x) => ({
        x,
        loading: 1 + 0.01 * x + 0.1 * normal(random),
        plusMinus: 0.1,
      }));
      const found = trendOf(points, 0, 4, 0.9);
      if (found && (found.earliest ?? 0) <= 300 && (found.latest ?? Infinity) >= 300) held += 1;
    }
    // Student's t on spreads that are never taken for less than they are: at least its share.
    expect(held / of).toBeGreaterThan(0.88);
  });

  test("of four laws the earliest is acted on, and it lies before the middle one", () => {
    const points = [0, 50, 100, 150, 200].map((x) => ({ x, loading: Math.exp(0.004 * x), plusMinus: 0.15 }));
    const found = weighedTrend(points, 4, 0.9);
    const whole = found?.fits.reduce((sum, { share }) => sum + share, 0);
    expect(whole).toBeCloseTo(1, 9);
    expect(found?.earliest).toBeLessThan(found?.due ?? 0);
    // ln 4 / 0.004.
    expect(found?.earliest).toBeLessThan(347);
    expect(found?.latest ?? Infinity).toBeGreaterThan(347);
  });

  test("two readings, or all at one place, tell no trend", () => {
    expect(
      trendOf(
        [
          { x: 0, loading: 1, plusMinus: 0.1 },
          { x: 9, loading: 2, plusMinus: 0.1 },
        ],
        0,
        4,
        0.9,
      ),
    ).toBeNull();
    expect(
      trendOf(
        Array.from({ length: 4 }, () => ({ x: 5, loading: 1, plusMinus: 0.1 })),
        0,
        4,
        0.9,
      ),
    ).toBeNull();
    expect(() =>
      run("trend", {
        points: Array.from({ length: 3 }, () => ({ x: 5, loading: 1, plusMinus: 0.1 })),
        order: 0,
        target: 4,
        share: 0.9,
      }),
    ).toThrow("onePlace");
  });
});

test("a tank in two parts, stepped by Runge and Kutta, ends as the closed form says", () => {
  const task = { volumeM3: 0.3, flowM3S: 0.18 / 3600, singlePass: 0.8, ingressPerH: 0.002 };
  const [dead, exchange] = [0.3, 0.1];
  const [v1, v2] = [(1 - dead) * 0.3, dead * 0.3];
  const drawn = 0.18;
  const q = exchange * drawn;
  const slope = ([a, b]: [number, number]): [number, number] => [
    (-(0.8 * drawn + q) * a + q * b) / v1 + 0.002,
    (q * (a - b)) / v2 + 0.002,
  ];
  let y: [number, number] = [1, 1];
  const [hours, steps] = [20, 4000];
  const h = hours / steps;
  const add = (u: [number, number], k: [number, number], by: number): [number, number] => [
    u[0] + by * k[0],
    u[1] + by * k[1],
  ];
  for (let i = 0; i < steps; i++) {
    const k1 = slope(y);
    const k2 = slope(add(y, k1, h / 2));
    const k3 = slope(add(y, k2, h / 2));
    const k4 = slope(add(y, k3, h));
    y = [0, 1].map(
      (n) =>
        (y[n] as number) +
        (h / 6) * ((k1[n] as number) + 2 * (k2[n] as number) + 2 * (k3[n] as number) + (k4[n] as number)),
    ) as [number, number];
  }
  const found = polishedInTwoParts(task, { deadShare: dead, exchangeShare: exchange }, 1, hours);
  expect(found.stirred).toBeCloseTo(y[0], 8);
  expect(found.dead).toBeCloseTo(y[1], 8);
});

test("the trade's ten passes: 340 L at 180 L/h, 0.9, to a twentieth, mixed and with a quarter dead", () => {
  const task = { volumeL: 340, flowLH: 180, singlePass: 0.9, initial: 1, ingressPerH: 0 };
  const until = (remaining: (hours: number) => number) => {
    let hours = 0;
    while (remaining(hours) > 0.05 && hours < 100) hours += 0.01;
    return (hours * 180) / 340;
  };
  expect(until((hours) => run("polish", { ...task, hours }).remaining as number)).toBeCloseTo(3.3, 1);
  const dead = { deadShare: 0.25, exchangeShare: 0.05 };
  expect(
    until((hours) => run("twoCompartment", { ...task, ...dead, hours }).remaining as number),
  ).toBeCloseTo(10.3, 0);
});
