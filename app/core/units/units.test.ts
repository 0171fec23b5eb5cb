import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { metre as bore, type Pascal, pascal } from "./brands";
import { type Dimension, dimensions, fromSi, toSi } from "./factors";
import { formatNumber, formatQuantity } from "./format";
import { parseQuantity } from "./parse";

const si = (text: string, dimension: Dimension, unit = "mm") => {
  const parsed = parseQuantity(text, dimension, unit);
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.fault));
  return parsed.si;
};

describe("quantities as the trade types them", () => {
  // Inch, US gallon: exact by definition (NIST SP 811). inHg: NIST SP 811 table B.8, from memory.
  test.each<[string, Dimension, number]>([
    ["3/8 in", "length", 0.009525],
    ['1 1/2"', "length", 0.0381],
    ["1-1/2 in", "length", 0.0381],
    ["9.5mm", "length", 0.0095],
    ["9,5 mm", "length", 0.0095],
    ["9.5", "length", 0.0095],
    [`5' 3"`, "length", 1.6002],
    ["5 ft 3 in", "length", 1.6002],
    [`-5' 3"`, "length", -1.6002],
    [`−4' 3 1/2"`, "length", -1.3081],
    ["12 fl oz", "volume", 12 * 2.95735295625e-5],
    ["100 lb", "mass", 45.359237],
    ["25 gph", "flow", (25 * 3.785411784e-3) / 3600],
    ["210 L/h", "flow", 0.21 / 3600],
    ["5 inHg", "pressure", 16931.945],
    ["5 in Hg", "pressure", 16931.945],
    ["10 psi", "pressure", 68947.57293],
    ["80 F", "temperature", 26.6666666667],
    ["-40 °F", "temperature", -40],
    ["−5 C", "temperature", -5],
    ["15 degC", "temperature", 15],
    ["40 L", "volume", 0.04],
    ["10 gal", "volume", 0.03785411784],
    ["1 imp gal", "volume", 0.00454609],
    ["0.04 m3", "volume", 0.04],
    ["2.7 mm2/s", "viscosity", 2.7],
    ["2.7 cSt", "viscosity", 2.7],
    ["80 %", "ratio", 0.8],
    [".5 m", "length", 0.5],
    ["1e-3 m", "length", 0.001],
  ])("%s", (text, dimension, expected) => {
    expect(si(text, dimension) / expected).toBeCloseTo(1, 9);
  });

  test.each<[string, Dimension, string, string]>([
    ["", "length", "empty", ""],
    ["three eighths", "length", "notANumber", "three eighths"],
    ["9.5 furlong", "length", "unknownUnit", "furlong"],
    ["9.5 psi", "length", "wrongDimension", "psi"],
    ["1,500 mm", "length", "ambiguousComma", "1,500"],
    ["3/0 in", "length", "divideByZero", "3/0"],
    ["1e999", "length", "tooLarge", "1e999"],
    ["NaN", "length", "notANumber", "NaN"],
    ["5 mm 3 in", "length", "mixedUnits", "5 mm 3 in"],
  ])("%s is refused and says what was not understood", (text, dimension, code, named) => {
    const parsed = parseQuantity(text, dimension, "mm");
    expect(parsed.ok).toBe(false);
    if (parsed.ok) return;
    expect(parsed.fault.code).toBe(code);
    if ("text" in parsed.fault) expect(parsed.fault.text).toBe(named);
  });

  test("what is formatted can be read back, in every unit", () => {
    const choice = (Object.keys(dimensions) as Dimension[]).flatMap((dimension) =>
      Object.keys(dimensions[dimension].units).map((unit) => [dimension, unit] as const),
    );
    fc.assert(
      fc.property(
        fc.constantFrom(...choice),
        fc.double({ min: 0.001, max: 9999, noNaN: true }),
        (pair, value) => {
          const [dimension, unit] = pair;
          const text = formatQuantity(dimension, toSi(dimension, value, unit), unit, 6);
          const back = parseQuantity(text, dimension, unit);
          expect(back.ok && fromSi(dimension, back.si, unit)).toBeCloseTo(value, 1);
        },
      ),
      { numRuns: 500 },
    );
  });

  test("numbers show three figures and a true minus", () => {
    expect(formatNumber(5.678)).toBe("5.68");
    expect(formatNumber(210.4)).toBe("210");
    expect(formatNumber(-9.1)).toBe("−9.1");
    expect(formatNumber(0)).toBe("0");
    expect(formatNumber(12345)).toBe("12345");
    expect(formatNumber(Number.NaN)).toBe("–");
  });
});

test("a bore is not a pressure, nor a bare number either (compile-time)", () => {
  const takes = (pressurePa: Pascal) => pressurePa;
  // @ts-expect-error a length is refused where a pressure is wanted
  takes(bore(0.0095));
  // @ts-expect-error a number in unknown units is refused
  takes(5);
  expect(takes(pascal(5))).toBe(5);
});
