import { describe, expect, test } from "@jest/globals";
import { newRun } from "../plan/blank";
import type { HoseSurvey } from "../plan/types";
import { readMarking } from "./marking";
import { judgeHose, permeationKgDay } from "./survey";

describe("what is printed on a hose", () => {
  test.each([
    [
      "USCG TYPE A1-15 SAE J1527 3/8 IN 3Q14",
      { standard: "SAE J1527", fire: "A", permeationGM2Day: 15, made: { year: 2014, month: 7 } },
    ],
    [
      "ISO 7840-A1 DN10 10 mm 05/2019",
      { standard: "ISO 7840", fire: "A", permeationGM2Day: 100, boreM: 0.01, made: { year: 2019, month: 5 } },
    ],
    [
      "ISO 8469 B2 WK 23 2016",
      { standard: "ISO 8469", fire: "B", permeationGM2Day: 300, made: { year: 2016, month: 6 } },
    ],
    ['SAE 30R7 1/4" 2012', { standard: "SAE 30R", fire: null, made: { year: 2012, month: 1 } }],
    [
      "SAE J1527 TYPE B1 1 1/2 in 2021-03",
      { fire: "B", permeationGM2Day: 100, boreM: 0.0381, made: { year: 2021, month: 3 } },
    ],
    ["worn off", { standard: null, fire: null, permeationGM2Day: null, boreM: null, made: null }],
  ])("%s", (printed, wanted) => {
    const marking = readMarking(printed);
    for (const [key, value] of Object.entries(wanted)) {
      if (typeof value === "number") expect(marking[key as "boreM"]).toBeCloseTo(value, 9);
      else expect(marking[key as keyof typeof marking]).toEqual(value);
    }
  });
  test("3/8 in is 9.525 mm", () => {
    expect(readMarking("A1-15 3/8 IN").boreM).toBeCloseTo(0.009525, 12);
  });
});

describe("keep, watch or replace", () => {
  const now = new Date("2026-06-01T00:00:00Z");
  const survey = (printed: string, more: Partial<HoseSurvey> = {}): HoseSurvey => ({
    printed,
    place: "engineRoom",
    feel: "sound",
    ...more,
  });
  const codes = (one: HoseSurvey, grade: "en590" | "petrol" = "en590") =>
    judgeHose(one, 0.0095, { grade }, now).reasons.map(({ code }) => code);
  test("a fire-tested hose of five years is kept", () => {
    expect(judgeHose(survey("ISO 7840 A1 2021-06 9.5 mm"), 0.0095, { grade: "en590" }, now).verdict).toBe(
      "keep",
    );
  });
  test("B in an engine room goes, outside it stays", () => {
    expect(codes(survey("ISO 8469 B1 2022-01"))).toEqual(["notFireTested"]);
    expect(codes(survey("ISO 8469 B1 2022-01", { place: "outside" }))).toEqual([]);
  });
  test("ten years: a day over is replaced, nine is watched, no date is watched", () => {
    expect(judgeHose(survey("ISO 7840 A1 2016-05"), 0.0095, { grade: "en590" }, now).verdict).toBe("replace");
    expect(judgeHose(survey("ISO 7840 A1 2017-06"), 0.0095, { grade: "en590" }, now).verdict).toBe("watch");
    expect(codes(survey("ISO 7840 A1"))).toEqual(["noDate"]);
  });
  test("nothing printed, bad to the hand, another bore, petrol without low permeation", () => {
    expect(codes(survey(""))).toContain("noMarking");
    expect(codes(survey("ISO 7840 A1 2024-01", { feel: "cracked" }))).toEqual(["feels"]);
    expect(codes(survey("ISO 7840 A1 12.7 mm 2024-01"))).toEqual(["boreDiffers"]);
    expect(codes(survey("SAE J1527 A1 2024-01"), "petrol")).toEqual(["notLowPermeation"]);
    expect(codes(survey("SAE J1527 A1-15 2024-01"), "petrol")).toEqual([]);
  });
  test("permeation by hand: 10 m of 10 mm bore of class 1 pass at most pi d L times 100 g a day", () => {
    const run = {
      ...newRun("r", { part: "a", port: "b" }, { part: "c", port: "d" }, 10, 0.01),
      survey: survey("ISO 7840 A1 2024"),
    };
    expect(permeationKgDay([{ run, lengthM: 10 }])).toBeCloseTo(Math.PI * 0.01 * 10 * 0.1, 12);
  });
});
