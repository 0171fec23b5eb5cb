import { describe, expect, test } from "@jest/globals";
import type { JarLook } from "../book/entries";
import { blended, fuelCautions } from "../fuel/blend";
import { fuelAt, presetFuel } from "../fuel/fuel";
import { iso4406Code, scaleNumber } from "./iso4406";
import { judgeJar, settleHours } from "./jar";

const look = (more: Partial<JarLook> = {}): JarLook => ({
  afterH: 0.25,
  water: "none",
  haze: "clear",
  growth: "none",
  colour: "bright",
  ...more,
});

describe("the jar (common practice, no source)", () => {
  test.each([
    ["clear at once", [look()], "clean"],
    ["hazy at first", [look({ haze: "hazy" })], "waitAndLook"],
    [
      "hazy, then clear over water",
      [look({ haze: "hazy" }), look({ afterH: 24, water: "layer" })],
      "stripAndPolish",
    ],
    ["hazy after a day", [look({ haze: "hazy" }), look({ afterH: 24, haze: "hazy" })], "emulsion"],
    ["growth, whatever else", [look({ growth: "specks" }), look({ afterH: 24 })], "growth"],
    ["dark and clear", [look({ colour: "dark" })], "stripAndPolish"],
    [
      "looks entered out of order",
      [look({ afterH: 24, water: "drops" }), look({ haze: "hazy" })],
      "stripAndPolish",
    ],
  ])("%s", (_name, looks, verdict) => {
    expect(judgeJar({ looks })).toBe(verdict);
  });

  test("50 micron clears a 400 mm tank in an hour or two, 10 micron in two days, 3 micron not in useful time", () => {
    const state = fuelAt(presetFuel("en590"), 20);
    if (!state) throw new Error("no fuel");
    expect(settleHours(state, 50e-6, 0.4)).toBeGreaterThan(1);
    expect(settleHours(state, 50e-6, 0.4)).toBeLessThan(2.5);
    expect((settleHours(state, 10e-6, 0.4) ?? 0) / 24).toBeCloseTo(2, 0);
    expect(settleHours(state, 3e-6, 0.4)).toBeGreaterThan(24 * 14);
    expect(settleHours({ ...state, densityKgM3: 1010 }, 50e-6, 0.4)).toBeNull();
  });
});

describe("ISO 4406 (scale from the standard's table, from memory)", () => {
  test.each([
    [2500, 18],
    [2500.1, 19],
    [1300, 17],
    [640, 16],
    [80, 13],
    [0, 0],
    [3e6, null],
  ])("%d per mL is %p", (perMl, number) => {
    expect(scaleNumber(perMl)).toBe(number);
  });
  test("a code, or none beyond the scale", () => {
    expect(iso4406Code([2500, 640, 80])).toBe("18/16/13");
    expect(iso4406Code([3e6, 640, 80])).toBeNull();
  });
});

describe("blends with biodiesel", () => {
  const diesel = presetFuel("en590");
  test("none is the diesel itself, all is nearly biodiesel, between lies between", () => {
    expect(blended(diesel)).toBe(diesel);
    const all = fuelAt({ ...diesel, biodieselShare: 1 }, 40);
    expect((all?.kinematicM2S ?? 0) * 1e6).toBeCloseTo(4.4, 6);
    const some = fuelAt({ ...diesel, biodieselShare: 0.3 }, 40);
    expect(some?.kinematicM2S).toBeGreaterThan(2.7e-6);
    expect(some?.kinematicM2S).toBeLessThan(4.4e-6);
    // Density mixes by volume.
    expect(fuelAt({ ...diesel, biodieselShare: 0.3 }, 15)?.densityKgM3).toBeCloseTo(0.7 * 835 + 0.3 * 883, 1);
  });
  test("cautions: petrol, wax, and biodiesel's cleaning of old tanks", () => {
    expect(fuelCautions(presetFuel("petrol"), -20)).toEqual(["petrol"]);
    expect(fuelCautions(diesel, -10)).toEqual(["belowCloud"]);
    expect(fuelCautions(diesel, -4)).toEqual(["cloudNearColdest"]);
    expect(fuelCautions({ ...diesel, biodieselShare: 0.2 }, 5)).toEqual(["biodieselSolvent"]);
    expect(fuelCautions(presetFuel("kerosene"), 5)).toEqual(["lowFlash"]);
  });
});
