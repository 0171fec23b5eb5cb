import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { INCH_M } from "./factors";
import { metricUnits, type UnitChoice, usUnits } from "./format";
import { parseQuantity } from "./parse";
import { fieldText, gaugeUnit, massUnit, panUnit, tradeIn, vacuumUnit } from "./trade";

const us = tradeIn(usUnits);
const metric = tradeIn(metricUnits);

describe("figures as the trade writes them", () => {
  test("pressure: psi above zero and inHg below, whichever of the two is chosen; metric as chosen", () => {
    // 1 psi is 6.894757 kPa, 1 inHg 3.386389 kPa (NIST SP 811, from memory).
    expect(us.gauge(68947.57)).toBe("10 psi");
    expect(us.gauge(-16931.945)).toBe("−5 inHg");
    expect(us.vacuum(16931.945)).toBe("5 inHg");
    expect(us.gauge(0)).toBe("0 psi");
    const psi: UnitChoice = { ...usUnits, pressure: "psi" };
    expect(tradeIn(psi).gauge(-3386.389)).toBe("−1 inHg");
    expect(vacuumUnit(psi)).toBe("inHg");
    for (const pressure of ["kPa", "bar", "mbar"] as const)
      for (const pa of [-1, 1]) expect(gaugeUnit({ ...metricUnits, pressure }, pa)).toBe(pressure);
    expect(metric.gauge(-20000)).toBe("−20 kPa");
  });

  test.each([
    [0.25, "1/4 in"],
    [0.375, "3/8 in"],
    [3.5, "3 1/2 in"],
    [3.217, "3 3/16 in"],
    [0.157, "5/32 in"],
    [0.01, "0.01 in"],
    [0, "0 in"],
    [24, "24 in"],
    [36, "3'"],
    [51.5, `4' 3 1/2"`],
    [35.99, "3'"],
    [47.99, "4'"],
    [-2.5, "−2 1/2 in"],
    [-40, `−3' 4"`],
  ])("a tape reads %d in as %s", (inches, said) => {
    expect(us.length(inches * INCH_M)).toBe(said);
  });

  test("what is written in inches is read again to the mark that it was read from", () => {
    fc.assert(
      fc.property(fc.double({ min: -15, max: 15, noNaN: true }), (m) => {
        const parsed = parseQuantity(us.length(m), "length", "in");
        if (!parsed.ok) throw new Error(us.length(m));
        expect(Math.abs(parsed.si - m)).toBeLessThanOrEqual(INCH_M / 32 + 1e-9);
      }),
    );
  });

  test.each([
    ["3/8 in", "3/8 in"],
    ["0.375", "3/8 in"],
    ["1 1/2", "1 1/2 in"],
    ["41/64", "41/64 in"],
    ["0.376", "0.376 in"],
    ["12 in", "12 in"],
    ["10 mm", "0.3937 in"],
  ])("a field keeps a fraction a fraction: %s", (typed, shown) => {
    const parsed = parseQuantity(typed, "length", "in");
    expect(parsed.ok && fieldText("length", parsed.si, "in")).toBe(shown);
  });

  // ASTM B258 gives 2.08 mm2 for 14, 5.26 for 10, 33.6 for 2 and 53.5 for 1/0 (from memory, rounded as tables do).
  test.each([
    ["14", "14 AWG", 2.08],
    ["10 AWG", "10 AWG", 5.26],
    ["#2", "2 AWG", 33.6],
    ["1/0", "1/0 AWG", 53.5],
  ])("wire is typed by its size: %s", (typed, shown, mm2) => {
    const parsed = parseQuantity(typed, "area", "AWG");
    if (!parsed.ok) throw new Error(parsed.fault.code);
    expect(parsed.si * 1e6).toBeCloseTo(mm2, 1);
    expect(fieldText("area", parsed.si, "AWG")).toBe(shown);
  });

  test("what is no wire size is an area, or a fault", () => {
    expect(parseQuantity("2.5 mm2", "area", "AWG")).toMatchObject({ ok: true, unit: "mm2" });
    expect(parseQuantity("14 AWG", "area", "mm2")).toMatchObject({ ok: true, unit: "AWG" });
    expect(parseQuantity("14", "area", "mm2")).toMatchObject({ ok: true, unit: "mm2" });
    expect(parseQuantity("77 AWG", "area", "mm2")).toMatchObject({ ok: false });
    expect(parseQuantity("9/0", "area", "AWG")).toMatchObject({ ok: false });
    expect(fieldText("area", 3e-6, "AWG")).toBe("12 AWG");
    expect(fieldText("area", 4.2e-6, "AWG")).toBe("4.2 mm²");
  });

  test("a hose's bore is told by its nominal size where it has one", () => {
    // SAE J1942 kind dash sizes: 5 is 5/16, 6 is 3/8, 8 is 1/2 in. From memory.
    expect(us.bore(0.0079)).toBe("5/16 in");
    expect(us.bore(0.0095)).toBe("3/8 in");
    expect(us.bore(0.0127)).toBe("1/2 in");
    expect(us.bore(0.0093)).toBe("0.366 in");
    expect(metric.bore(0.0095)).toBe("9.5 mm");
  });

  test("volumes: a pan by the ounce and the quart, a tank by the gallon", () => {
    // 128 fl oz and 4 qt to the gallon of 3.785411784 L: definition.
    expect(us.pan(29.5735e-6 * 12)).toBe("12 fl oz");
    expect(us.pan(0.946352946e-3 * 2)).toBe("2 qt");
    expect(us.volume(0.0378541)).toBe("10 gal");
    expect(us.volume(29.5735e-6 * 8)).toBe("8 fl oz");
    expect(us.volume(0)).toBe("0 gal");
    expect(metric.volume(0.0004)).toBe("400 mL");
    expect(metric.volume(0.04)).toBe("40 L");
    expect(metric.pan(0.0022)).toBe("2.2 L");
    expect([panUnit(usUnits), panUnit(metricUnits)]).toEqual(["floz", "mL"]);
  });

  // ASTM B258: mm2 of the even sizes, from memory.
  test.each([
    [18, 0.823],
    [16, 1.31],
    [14, 2.08],
    [12, 3.31],
    [10, 5.26],
    [8, 8.37],
    [6, 13.3],
    [4, 21.2],
    [2, 33.6],
  ])("%d AWG is %d mm2 of copper", (gauge, mm2) => {
    expect(us.wire(mm2 * 1e-6)).toBe(`${gauge} AWG`);
    expect(us.leastWire(mm2 * 0.99e-6)).toBe(`${gauge} AWG`);
    expect(us.leastWire(mm2 * 1.02e-6)).toBe(gauge === 2 ? "1/0 AWG" : `${gauge - 2} AWG`);
    expect(metric.wire(mm2 * 1e-6)).toBe(`${mm2} mm²`);
  });

  test("mass, speed and temperature; systems can be mixed, each figure by its own choice", () => {
    expect(us.mass(45.359237)).toBe("100 lb");
    expect(metric.mass(120)).toBe("120 kg");
    expect(us.speed(0.3048)).toBe("1 ft/s");
    // 1 lbf ft is 1.3558179 N m (NIST SP 811, from memory).
    expect([us.moment(135.58179), metric.moment(50)]).toEqual(["100 lb ft", "50 N m"]);
    expect(us.temperature(60)).toBe("140 °F");
    // A difference of 5 K is 9 °F, not 41.
    expect(us.warmer(5)).toBe("9 °F");
    const mixed = tradeIn({ ...metricUnits, pressure: "inHg", volume: "gal" });
    expect([mixed.vacuum(3386.389), mixed.volume(0.0378541), mixed.length(0.2), mixed.wire(4e-6)]).toEqual([
      "1 inHg",
      "10 gal",
      "200 mm",
      "4 mm²",
    ]);
    expect(massUnit({ ...metricUnits, volume: "gal" })).toBe("lb");
  });
});
