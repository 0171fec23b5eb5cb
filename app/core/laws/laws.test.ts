import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { endLossK } from "./boreChange";
import { burnM3S, typicalBurnM3S } from "./burn";
import { cubicTransition } from "./cubicTransition";
import { filterCoefficients } from "./filterDrop";
import { churchill, colebrookWhite, type FrictionLaw, LAMINAR_BELOW_RE } from "./friction";
import { lineDrop } from "./line";
import { effectiveCurve, flowAt, riseAt, withPoint } from "./pumpCurve";
import { tabulated } from "./tabulated";
import { teeLeg } from "./twoK";

const factor = (law: FrictionLaw, re: number, roughness: number) => {
  const out = { factor: 0, logSlope: 0 };
  law.evaluate(re, roughness, out);
  return out;
};

describe("friction", () => {
  // Moody chart / Colebrook tables in handbooks (Crane TP-410; White, Fluid Mechanics, table 6.2 kind; from memory, 3 figures).
  test.each([
    [4000, 0, 0.0399],
    [1e4, 0, 0.0309],
    [1e5, 0, 0.018],
    [1e6, 0, 0.01165],
    [1e4, 0.001, 0.0324],
    [1e5, 0.001, 0.0222],
    [1e6, 0.001, 0.0199],
    [1e5, 0.01, 0.0385],
    [1e7, 0.02, 0.0486],
  ])("Colebrook at Re %d, e/D %d is %d", (re, roughness, expected) => {
    expect(colebrookWhite(re, roughness) / expected).toBeCloseTo(1, 1.8);
  });

  test("Churchill stays within 3 % of Colebrook from Re 5000, the difference the docs state", () => {
    let worst = 0;
    for (const roughness of [0, 1e-6, 1e-5, 1e-4, 2e-4, 1e-3, 5e-3, 1e-2, 2e-2, 5e-2]) {
      for (let re = 5000; re < 1e8; re *= 1.02) {
        worst = Math.max(
          worst,
          Math.abs(factor(churchill, re, roughness).factor / colebrookWhite(re, roughness) - 1),
        );
      }
    }
    expect(worst).toBeLessThan(0.03);
    // The figure is not a loose one.
    expect(worst).toBeGreaterThan(0.029);
  });

  test("laminar is Hagen-Poiseuille exactly and meets Churchill within 1e-6", () => {
    // dp = 128 mu L Q / (pi D^4), any fluid mechanics text.
    const input = {
      boreM: 0.008,
      lengthM: 4,
      roughnessM: 0,
      flowM3S: 1e-5,
      densityKgM3: 830,
      kinematicM2S: 4e-6,
      fittings: [],
    };
    const expected = (128 * 830 * 4e-6 * 4 * 1e-5) / (Math.PI * 0.008 ** 4);
    expect(lineDrop(input).frictionPa / expected).toBeCloseTo(1, 12);
    const above = factor(churchill, LAMINAR_BELOW_RE, 0.0002).factor;
    expect(above / (64 / LAMINAR_BELOW_RE)).toBeCloseTo(1, 6);
  });

  test.each([churchill, cubicTransition])("$name: the slope is the derivative", (law) => {
    for (const re of [100, 1600, 2500, 3300, 5000, 3e4]) {
      const h = 1e-4;
      const numeric =
        Math.log(factor(law, re * (1 + h), 1e-4).factor / factor(law, re * (1 - h), 1e-4).factor) /
        Math.log((1 + h) / (1 - h));
      expect(factor(law, re, 1e-4).logSlope).toBeCloseTo(numeric, 2);
    }
  });

  test("the stand-in law gives the values of the engine it stands for", () => {
    // Read from the EPANET 2.2 engine by solving one pipe of roughness 2e-4 at each Re.
    expect(factor(cubicTransition, 2500, 2e-4).factor).toBeCloseTo(0.02917, 4);
    expect(factor(cubicTransition, 3000, 2e-4).factor).toBeCloseTo(0.03318, 4);
    expect(factor(cubicTransition, 3500, 2e-4).factor).toBeCloseTo(0.03879, 4);
  });
});

describe("ends, filters and pumps", () => {
  test("a barb of the line's bore costs nothing; one of 0.7 of it costs both changes on the fast velocity", () => {
    expect(endLossK(0.01, 0.01)).toBe(0);
    const a = 0.49;
    expect(endLossK(0.01, 0.007)).toBeCloseTo((0.5 * (1 - a) + (1 - a) ** 2) / a ** 2, 10);
  });

  test("a filter gives its rated drop at its rated point, double the viscous share at double viscosity", () => {
    const rating = { flowM3S: 6e-5, dropPa: 4000, dynamicPaS: 0.003, densityKgM3: 830, viscousShare: 0.75 };
    const at = (mu: number, loading: number) => {
      const { linear, square } = filterCoefficients(rating, mu, 830, loading);
      return linear * 6e-5 + square * 6e-5 ** 2;
    };
    expect(at(0.003, 1)).toBeCloseTo(4000, 8);
    expect(at(0.006, 1)).toBeCloseTo(7000, 8);
    expect(at(0.003, 3)).toBeCloseTo(10000, 8);
  });

  test("a pump curve goes through its points, and the relief holds the dead head", () => {
    const points = [
      { flowM3S: 0, risePa: 80000 },
      { flowM3S: 1e-4, risePa: 0 },
    ];
    expect(riseAt(effectiveCurve(points), 5e-5)).toBeCloseTo(40000, 8);
    const relieved = effectiveCurve(points, 50000);
    expect(riseAt(relieved, 0)).toBeLessThan(51100);
    expect(riseAt(relieved, 3.75e-5)).toBeCloseTo(50000, 6);
    expect(riseAt(relieved, 7e-5)).toBeCloseTo(24000, 6);
    expect(flowAt(relieved, 24000)).toBeCloseTo(7e-5, 10);
  });
});

test("the table differs from the law it holds by less than 1e-6, its slope by less than 1e-4; beyond it the law answers", () => {
  const table = tabulated(churchill);
  const [kept, law] = [
    { factor: 0, logSlope: 0 },
    { factor: 0, logSlope: 0 },
  ];
  fc.assert(
    fc.property(
      fc.double({ min: Math.log(1500), max: Math.log(3e6), noNaN: true }),
      fc.constantFrom(0, 1e-4, 1.5e-4, 1e-2),
      (logRe, roughness) => {
        const re = Math.exp(logRe);
        table.evaluate(re, roughness, kept);
        churchill.evaluate(re, roughness, law);
        expect(Math.abs(kept.factor / law.factor - 1)).toBeLessThan(1e-6);
        expect(Math.abs(kept.logSlope - law.logSlope)).toBeLessThan(1e-4);
      },
    ),
    { numRuns: 5000 },
  );
  for (const re of [1500, 2048, 4095.9999999, 4096, 2 ** 20]) {
    table.evaluate(re, 1e-4, kept);
    churchill.evaluate(re, 1e-4, law);
    expect(kept.factor / law.factor).toBeCloseTo(1, 7);
  }
});

test("typical burn: power over the lower heat of diesel (42.6 MJ/kg, from memory) stands for an efficiency of 36 to 40 %, and at idle for a twentieth of full power", () => {
  const burnt = typicalBurnM3S(1, 100000, 840);
  const efficiency = 100000 / (burnt * 840 * 42.6e6);
  expect(efficiency).toBeGreaterThan(0.36);
  expect(efficiency).toBeLessThan(0.4);
  expect(typicalBurnM3S(0, 100000, 840)).toBeCloseTo(burnt / 20, 15);
  expect(typicalBurnM3S(0.5, 100000, 840)).toBeCloseTo(burnt / 2, 15);
});

test("a point added to a pump's curve changes nothing of what it gives until it is filled in", () => {
  const curve = [
    { flowM3S: 0, risePa: 50000 },
    { flowM3S: 1e-4, risePa: 30000 },
    { flowM3S: 1.5e-4, risePa: 0 },
  ];
  const more = withPoint(curve);
  expect(more).toHaveLength(4);
  for (const flow of [0, 3e-5, 1.1e-4, 1.25e-4, 1.4e-4, 1.6e-4])
    expect(riseAt(more, flow)).toBeCloseTo(riseAt(curve, flow), 6);
  expect(Math.max(...more.map(({ flowM3S }) => flowM3S))).toBe(1.5e-4);
});

test("burn: 165 kW at 210 g/kWh and 835 kg/m3 by hand; the typical figure is near a maker's 42 L/h for such an engine", () => {
  const litresAnHour = (gKwh?: number) => burnM3S(165000, 835, gKwh) * 3.6e6;
  expect(litresAnHour(210)).toBeCloseTo((165 * 210) / 835, 9);
  expect(Math.abs(litresAnHour() / 42 - 1)).toBeLessThan(0.1);
});

describe("a tee of three legs", () => {
  // Hooper 1981, screwed: run through K = 200/Re + 0.1 (1 + 1/ID), used as an elbow 500/Re + 0.7 (1 + 1/ID), ID in inches.
  const [boreM, re] = [0.0127, 1000];
  const k = (legs: ("run" | "branch")[]) =>
    legs.reduce((sum, way) => {
      const { overRe, constant } = teeLeg(way, boreM);
      return sum + overRe / re + constant;
    }, 0);

  test("flow along the run, and from either end to the branch, pays what the source gives for it", () => {
    expect(k(["run", "run"])).toBeCloseTo(200 / re + 0.1 * 3, 12);
    expect(k(["run", "branch"])).toBeCloseTo(500 / re + 0.7 * 3, 12);
  });
});
