import { describe, expect, test } from "@jest/globals";
import { newRun } from "../plan/blank";
import type { HoseSurvey } from "../plan/types";
import { readMarking } from "./marking";
import { hoseName, judgeHose, permeationKgDay } from "./survey";

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
    ['SAE 30R7 1/4" 2012', { standard: "SAE J30", fire: null, made: { year: 2012, month: 1 } }],
    [
      "SAE J1527 TYPE B1 1 1/2 in 2021-03",
      { fire: "B", permeationGM2Day: 100, boreM: 0.0381, made: { year: 2021, month: 3 } },
    ],
    // As they are really printed, by family; standards and their order from memory of such hose.
    ["ISO 7840:2013 A1 10 mm", { standard: "ISO 7840", type: "A1", boreM: 0.01, made: null }],
    [
      "EN ISO 7840:2021 A1-15 DN12 2023-02",
      { permeationGM2Day: 15, boreM: 0.012, made: { year: 2023, month: 2 } },
    ],
    [
      "SAE J1527-2011 TYPE A1-15 1/2 IN",
      { standard: "SAE J1527", type: "A1-15", permeationGM2Day: 15, boreM: 0.0127, made: null },
    ],
    [
      "J30 R9 5/16 2023",
      { standard: "SAE J30", type: "R9", boreM: 0.0079375, made: { year: 2023, month: 1 } },
    ],
    // By dash size: of the bore, but for hose that is sized by its tube. SAE J517, from memory.
    ["SAE 100R6 -8 2022", { type: "100R6", boreM: 0.0127, made: { year: 2022, month: 1 } }],
    ["100R5-8 3Q19", { type: "100R5", boreM: (13 / 32) * 0.0254, made: { year: 2019, month: 7 } }],
    ["SAE 100R14 -16", { type: "100R14", boreM: (7 / 8) * 0.0254, made: null }],
    ["SAE 30R7 KX 3/8 12/05/2021", { standard: "SAE J30", boreM: 0.009525, made: { year: 2021, month: 5 } }],
    [
      "USCG TYPE A1-15",
      { standard: "33 CFR 183", type: "A1-15", fire: "A", permeationGM2Day: 15, made: null },
    ],
    ["USCG TYPE B1 1991", { standard: "33 CFR 183", fire: "B", made: { year: 1991, month: 1 } }],
    [
      "USCG TYPE A1 SAE J1527 .375 IN W23 2019",
      { standard: "SAE J1527", boreM: 0.009525, made: { year: 2019, month: 6 } },
    ],
    ["ISO 8469 B1 16 mm 19W05", { boreM: 0.016, made: { year: 2019, month: 1 } }],
    ['SAE J1527 A2 1-1/2" MAY 2016', { boreM: 0.0381, made: { year: 2016, month: 5 } }],
    [
      "DIN 73379 2A 5 mm 25.11.2020",
      { standard: "DIN 73379", boreM: 0.005, made: { year: 2020, month: 11 } },
    ],
    ["SAE 100R5 -8 3Q18", { standard: "SAE 100R", type: "100R5", made: { year: 2018, month: 7 } }],
    ["ISO7840 A2 8MM 05/16", { boreM: 0.008, made: { year: 2016, month: 5 } }],
    ["EPA 15 g/m2/day SAE J1527 B1-15", { permeationGM2Day: 15, fire: "B" }],
    ["A1-15 1/2 98", { type: "A1-15", boreM: 0.0127, made: null }],
    ["worn off", { standard: null, fire: null, permeationGM2Day: null, boreM: null, made: null }],
  ])("%s", (printed, wanted) => {
    const marking = readMarking(printed);
    for (const [key, value] of Object.entries(wanted)) {
      if (typeof value === "number") expect(marking[key as "boreM"]).toBeCloseTo(value, 9);
      else expect(marking[key as keyof typeof marking]).toEqual(value);
    }
  });
  test("a day and month that cannot be told apart are unsure, and the earlier stands", () => {
    expect(readMarking("SAE J1527 12/05/2021")).toMatchObject({
      made: { year: 2021, month: 5 },
      isDateUnsure: true,
    });
    expect(readMarking("SAE J1527 25/05/2021")).toMatchObject({
      made: { year: 2021, month: 5 },
      isDateUnsure: false,
    });
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
  test("what is printed but names no standard is told apart from nothing printed", () => {
    expect(codes(survey("FUEL LINE 2022-01"))).toEqual(["noStandard"]);
    expect(codes(survey("  "))).toContain("noMarking");
    expect(codes(survey("USCG TYPE B1 1991"))).toEqual(["notFireTested", "old"]);
  });
  test("one hose has one name: as read off it, else as the plan has it", () => {
    const plan = newRun("r", { part: "a", port: "b" }, { part: "c", port: "d" }, 1, 0.01);
    expect(hoseName(plan)).toBe("ISO 7840 A1");
    expect(hoseName({ ...plan, survey: survey("USCG TYPE A1-15 3/8 IN 2019") })).toBe("USCG A1-15");
    expect(hoseName({ ...plan, survey: survey("") })).toBe("ISO 7840 A1");
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
