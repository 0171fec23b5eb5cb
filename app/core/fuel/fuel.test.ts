import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { celsius, kilogramPerCubicMetre } from "../units/brands";
import { densityAt, densityProductByDensity, thermalExpansionPerK } from "./density";
import { freeAirFraction, harmfulAirFraction, ostwaldAir, releasedShare } from "./dissolvedAir";
import { atmospherePa, fuelAt, headPa, presetFuel } from "./fuel";
import { gradeIds, grades } from "./grades";
import { petrolVapourPa } from "./vapour";
import { viscosityAt } from "./viscosity";

const points = [
  { tempC: 40, mm2S: 2.7 },
  { tempC: 15, mm2S: 5 },
] as const;

describe("grades", () => {
  test.each(gradeIds)("%s: what is typical lies within its standard's limits", (id) => {
    const grade = grades[id];
    const [low, high] = grade.densityLimitsKgM3;
    expect(grade.typicalDensity15KgM3).toBeGreaterThanOrEqual(low);
    expect(grade.typicalDensity15KgM3).toBeLessThanOrEqual(high);
    if (grade.viscosityLimits40Mm2S) {
      const at40 = viscosityAt(grade.typicalViscosity, 40) ?? 0;
      expect(at40).toBeGreaterThanOrEqual(grade.viscosityLimits40Mm2S[0]);
      expect(at40).toBeLessThanOrEqual(grade.viscosityLimits40Mm2S[1]);
    }
    expect(presetFuel(id).density15KgM3).toBe(grade.typicalDensity15KgM3);
  });

  test("a preset is the user's own to change: it shares nothing with the grade", () => {
    expect(presetFuel("en590").viscosityPoints[0]).toEqual(grades.en590.typicalViscosity[0]);
    expect(presetFuel("en590").viscosityPoints[0]).not.toBe(grades.en590.typicalViscosity[0]);
  });
});

describe("viscosity (ASTM D341)", () => {
  test("goes through both points, falls as it warms, whichever point is given first", () => {
    // The standard's own way back from Z to viscosity is a fit, good to some 1e-5.
    for (const { tempC, mm2S } of points) expect((viscosityAt(points, tempC) ?? 0) / mm2S).toBeCloseTo(1, 4);
    fc.assert(
      fc.property(
        fc.double({ min: -20, max: 90, noNaN: true }),
        fc.double({ min: 0.5, max: 10, noNaN: true }),
        (tempC, warmer) => {
          const [cold, warm] = [viscosityAt(points, tempC), viscosityAt(points, tempC + warmer)];
          expect(warm).toBeLessThan(cold ?? 0);
          expect(viscosityAt([points[1], points[0]], tempC)).toBeCloseTo(cold ?? 0, 6);
        },
      ),
    );
  });
  test("where the law gives none, none is given", () => {
    expect(
      viscosityAt(
        [
          { tempC: 20, mm2S: 0.3 },
          { tempC: 40, mm2S: 0.25 },
        ],
        150,
      ),
    ).toBeNull();
  });
});

describe("density (ASTM D1250)", () => {
  test("is the entered one at 15 degC and falls with warmth, by some 0.00083 a kelvin for diesel (handbook)", () => {
    for (const product of ["petrol", "transition", "jet", "fuelOil"] as const)
      expect(densityAt(kilogramPerCubicMetre(780), celsius(15), product)).toBeCloseTo(780, 9);
    expect(thermalExpansionPerK(835, "jet")).toBeGreaterThan(0.0008);
    expect(thermalExpansionPerK(835, "jet")).toBeLessThan(0.0009);
    fc.assert(
      fc.property(
        fc.double({ min: 700, max: 900, noNaN: true }),
        fc.double({ min: -30, max: 90, noNaN: true }),
        (density, tempC) => {
          const product = densityProductByDensity(density);
          const [here, warmer] = [tempC, tempC + 5].map((t) =>
            densityAt(kilogramPerCubicMetre(density), celsius(t), product),
          );
          expect(warmer).toBeLessThan(here ?? 0);
        },
      ),
    );
  });
  test("products by density meet at the standard's own borders", () => {
    expect([760, 780, 800, 838, 839].map(densityProductByDensity)).toEqual([
      "petrol",
      "transition",
      "jet",
      "jet",
      "fuelOil",
    ]);
  });
});

describe("vapour and air", () => {
  test("petrol of a Reid pressure stands near it at 37.8 degC, where Reid pressure is measured", () => {
    for (const reid of [45000, 70000, 100000]) {
      const here = petrolVapourPa(reid, 37.8);
      expect(here / reid).toBeGreaterThan(0.95);
      expect(here / reid).toBeLessThan(1.2);
      expect(petrolVapourPa(reid, 20)).toBeLessThan(here);
    }
  });

  test("no air comes out at the pressure it was dissolved at, more the lower it goes, and below vapour pressure it boils", () => {
    const air = ostwaldAir(835, 20);
    expect(freeAirFraction(air, 101325, 101325, 100)).toBe(0);
    expect(freeAirFraction(air, 101325, 120000, 100)).toBe(0);
    let last = 0;
    for (const pa of [90000, 70000, 50000, 20000]) {
      const now = freeAirFraction(air, 101325, pa, 100) ?? 0;
      // Henry's law by hand: L (p0 - p) / (p - pv).
      expect(now).toBeCloseTo((air * (101325 - pa)) / (pa - 100), 12);
      expect(now).toBeGreaterThan(last);
      last = now;
    }
    expect(freeAirFraction(air, 101325, 100, 100)).toBeNull();
    expect(freeAirFraction(air, 101325, -5, 100)).toBeNull();
  });

  test("what harms begins over what is seen: at the 20 kPa of a filter's change, about 3 % of the volume", () => {
    // L of diesel about 0.12 (ASTM D2779): 0.12 x 20 / 81.3.
    expect(harmfulAirFraction(20e3)).toBeCloseTo((ostwaldAir(840, 15) * 20) / 81.325, 12);
    expect(harmfulAirFraction(20e3)).toBeGreaterThan(0.025);
    expect(harmfulAirFraction(20e3)).toBeLessThan(0.035);
    expect(harmfulAirFraction(10e3)).toBeGreaterThan(0.01);
  });

  test("air comes out with time: none at once, 63 % in 4 s, all in a minute", () => {
    expect(releasedShare(0)).toBe(0);
    expect(releasedShare(4)).toBeCloseTo(0.632, 3);
    expect(releasedShare(60)).toBeCloseTo(1, 6);
    expect(releasedShare(Infinity)).toBe(1);
  });

  test.each([
    [0, 101325],
    [1000, 89875],
    [3000, 70109],
    [5500, 50507],
  ])("ISO 2533 table (from memory): %d m, %d Pa", (altitude, pa) => {
    expect(atmospherePa(altitude) / pa).toBeCloseTo(1, 3);
  });

  test("a metre of diesel presses 8.2 kPa (by hand)", () => {
    expect(headPa(835, 1)).toBeCloseTo(835 * 9.80665, 9);
  });
});

test("a fuel's state holds together: dynamic viscosity is kinematic by density, and wax is told below the cloud point", () => {
  const fuel = presetFuel("en590");
  const cold = fuelAt(fuel, -10);
  const mild = fuelAt(fuel, 10);
  if (!cold || !mild) throw new Error("no state");
  expect(cold.dynamicPaS).toBeCloseTo(cold.kinematicM2S * cold.densityKgM3, 12);
  expect([cold.belowCloud, mild.belowCloud]).toEqual([true, false]);
  expect(fuelAt(presetFuel("petrol"), 20)?.vapourPa).toBeGreaterThan(10000);
  expect(mild.vapourPa).toBe(100);
});

test("how far a temperature lies from the points that were given, and what petrol's class changes", () => {
  const fuel = presetFuel("en590");
  // Points at 15 and 40 degC.
  expect(fuelAt(fuel, 20)?.beyondPointsK).toBe(0);
  expect(fuelAt(fuel, -5)?.beyondPointsK).toBe(20);
  expect(fuelAt(fuel, 55)?.beyondPointsK).toBe(15);
  const petrol = presetFuel("petrol");
  const [summer, winter] = [45e3, 100e3].map((reidPa) => fuelAt({ ...petrol, reidPa }, 37.8)!.vapourPa);
  // At 100 degF the true vapour pressure is a few hundredths over Reid's own (API, from memory).
  expect(summer! / 45e3).toBeGreaterThan(1);
  expect(summer! / 45e3).toBeLessThan(1.12);
  expect(winter).toBeGreaterThan(summer! * 1.8);
});
