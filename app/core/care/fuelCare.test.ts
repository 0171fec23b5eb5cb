/** Particles against a course, damp by season, and how long elements lasted: by hand. */
import { describe, expect, test } from "@jest/globals";
import type { ElementChanged } from "../book/entries";
import { elementLives, middleOf } from "./elementLives";
import { iso4406Code, readCode } from "./iso4406";
import { polishProgress } from "./polishProgress";
import { fillShares, seasonsOf } from "./seasons";

describe("a polish by its samples", () => {
  const course = [
    { hours: 0, mixed: 1, tank: 1, line: 1 },
    { hours: 10, mixed: 0.3, tank: 0.5, line: 0.2 },
    { hours: 20, mixed: 0.1, tank: 0.25, line: 0.05 },
  ];
  const sample = (from: "line" | "bottom", code6: number, polishedH: number) => ({
    from,
    code: [code6 + 2, code6, code6 - 3] as [number, number, number],
    polishedH,
  });

  test("a scale number less is half as much (ISO 4406), and each place is held against its own first", () => {
    const found = polishProgress(
      [sample("line", 20, 0), sample("bottom", 22, 0), sample("line", 18, 10), sample("bottom", 21, 10)],
      course,
    );
    expect(found.map(({ share }) => share)).toEqual([1, 1, 0.25, 0.5]);
    expect(found.map(({ computed }) => computed?.toFixed(9))).toEqual(
      [1, 1, 0.2, 0.5].map((share) => share.toFixed(9)),
    );
    expect(found.map(({ isSlow }) => isSlow)).toEqual([false, false, false, false]);
  });

  test("more than a step over the course is slow; between its points it is straight; beyond its end nothing is said", () => {
    const [, slow] = polishProgress([sample("line", 20, 0), sample("line", 19, 10)], course);
    expect(slow).toMatchObject({ share: 0.5, computed: expect.closeTo(0.2, 9), isSlow: true });
    const [, between] = polishProgress([sample("bottom", 20, 0), sample("bottom", 20, 5)], course);
    expect(between?.computed).toBeCloseTo(0.75, 12);
    const [, late] = polishProgress([sample("line", 20, 0), sample("line", 12, 40)], course);
    expect(late).toMatchObject({ computed: null, isSlow: false });
    expect(polishProgress([], course)).toEqual([]);
  });
});

test("a fuller tank breathes less, in proportion to the air over it; warm air brings more than cold", () => {
  const site = { altitudeM: 0, ambientLowC: -5, ambientHighC: 30 };
  const [cold, , warm] = seasonsOf(site, 0.24);
  expect(cold?.warmC).toBe(5);
  expect(warm?.warmC).toBe(30);
  expect(warm!.waterKg[0]).toBeGreaterThan(cold!.waterKg[0]!);
  for (const season of [cold!, warm!])
    expect(season.waterKg[0]! / season.waterKg[2]!).toBeCloseTo((1 - fillShares[0]) / (1 - fillShares[2]), 9);
  // 120 L of air, 20 and 10 degC: 4.09 L a breath of 13.8 g/m3 (0.8 of 2.34 kPa), of which 9.4 g/m3 stay in the air
  // (steam tables: 2.34 kPa at 20 degC, 1.23 kPa at 10 degC).
  const [mild] = seasonsOf({ ...site, ambientLowC: 10 }, 0.24);
  expect(mild!.waterKg[1]! * 1000).toBeCloseTo(30 * 4.09e-3 * (13.8 - 9.4), 1);
});

test("an element's days from its fitting, its hours from the change before", () => {
  const changed = (id: string, at: string, more: Partial<ElementChanged>): ElementChanged => ({
    id,
    at: `${at}T09:00:00Z`,
    planId: "p",
    planHash: "",
    kind: "elementChanged",
    partId: "sep",
    ...more,
  });
  const lives = elementLives([
    changed("b", "2026-09-01", { fittedOn: "2026-03-05", engineH: 410 }),
    changed("a", "2026-03-05", { engineH: 150, loading: 3.2 }),
  ]);
  expect(lives).toEqual([
    { partId: "sep", changedOn: "2026-03-05", days: null, hours: null, loading: 3.2 },
    { partId: "sep", changedOn: "2026-09-01", days: 180, hours: 260, loading: null },
  ]);
  // Of a plan that was not told of the change the fitting is the change before.
  const untold = elementLives([
    changed("a", "2026-03-05", { fittedOn: "2025-03-05" }),
    changed("b", "2026-09-01", { fittedOn: "2025-03-05" }),
  ]);
  expect(untold.map(({ days }) => days)).toEqual([365, 180]);
  expect(middleOf([null, 3, 9, 5])).toBe(5);
  expect(middleOf([2, 4])).toBe(3);
  expect(middleOf([null])).toBeNull();
});

test.each([
  ["22/20/17", [22, 20, 17]],
  [" 18 / 16 / 13 ", [18, 16, 13]],
  ["0/0/0", [0, 0, 0]],
  ["28/28/28", [28, 28, 28]],
  // Beyond the scale, rising, too few, too many, no numbers.
  ["29/20/17", null],
  ["17/20/22", null],
  ["20/17", null],
  ["22/20/17/12", null],
  ["22-20-17", null],
  ["", null],
])("%p is the code %p", (text, code) => {
  expect(readCode(text)).toEqual(code);
});

test("a code is read back from the counts that it stands for", () => {
  for (const perMl of [
    [25_000, 6_000, 900],
    [1_300, 320, 40],
  ] as const)
    expect(readCode(iso4406Code(perMl)!)?.join("/")).toBe(iso4406Code(perMl));
});
