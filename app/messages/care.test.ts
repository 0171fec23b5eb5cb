/** Care in words: where a filter stands, when it is due, and whether a reading fits. */
import { describe, expect, test } from "@jest/globals";
import { weighedTrend } from "~/core/care/blocking";
import type { GaugeTrend, TrendPoint } from "~/core/care/gaugeTrend";
import { fitOf } from "~/core/care/instruments";
import type { Treatment } from "~/core/care/treatments";
import type { PartOf } from "~/core/kinds/index";
import { newPart } from "~/core/plan/blank";
import { metricUnits } from "~/core/units/format";
import { tradeIn } from "~/core/units/trade";
import { fitText, treatmentHoursText, treatmentTexts, trendText, whenText } from "./care";

const filter = {
  ...(newPart("filter", "f", { xM: 0, yM: 0, zM: 0 }) as PartOf<"filter">),
  name: "Separator",
};
const START = Date.UTC(2026, 0, 1);
function trend(loadings: readonly number[], by: "days" | "hours" = "days"): GaugeTrend {
  const points: TrendPoint[] = loadings.map((loading, i) => ({
    entryId: `${i}`,
    at: new Date(START + i * 30 * 86_400_000).toISOString(),
    x: i * 30,
    loading,
    plusMinus: 0.05,
    isOutlier: false,
  }));
  return {
    gaugeId: "g",
    filter,
    by,
    limitPa: 20_000,
    lastPa: 9000,
    target: 4,
    points,
    weighed: weighedTrend(points, 4, 0.9),
    changedAt: null,
  };
}

const kPa = (pa: number) => `${pa / 1000} kPa`;

describe("a trend in words", () => {
  test("says where it stands, between when it is due, and by when to act", () => {
    const text = trendText(trend([1, 1.4, 1.8, 2.2, 2.6]), kPa);
    expect(text).toMatch(
      /^Separator: 9 kPa read, 20 kPa is its limit; due between \d+ \w+ 2026 and .*Act by \d+ \w+ 2026\.$/,
    );
    expect(text).not.toContain("NaN");
  });
  test("in hours says hours", () => {
    expect(trendText(trend([1, 1.4, 1.8, 2.2, 2.6], "hours"), kPa)).toMatch(
      /due between \d+ h and .*Act by \d+ h\.$/,
    );
    expect(whenText(trend([1, 1.4, 1.8], "hours"), 123.4)).toBe("123 h");
  });
  test("that hardly grows, that falls, that has too little, and that is over, say so", () => {
    expect(trendText(trend([1.2, 1.2, 1.21, 1.19, 1.2]), kPa)).toContain("and an open date");
    expect(trendText(trend([2, 1.7, 1.4, 1.1, 0.8]), kPa)).toContain("does not grow enough");
    expect(trendText(trend([1.2, 1.4]), kPa)).toContain("three readings on different days");
    expect(trendText(trend([2, 3, 4.1]), kPa)).toMatch(/change it\.$/);
    const over = { ...trend([1.2, 1.4]), lastPa: 21_000 };
    expect(trendText(over, kPa)).toBe("Separator: 21 kPa read, 20 kPa is its limit: change it now.");
  });
});

test("a reading within what the dial can tell is as it should be; beyond it is told by how much and which way", () => {
  const kPa = tradeIn(metricUnits);
  expect(fitText("vacuum", fitOf({ quantity: "vacuum" }, 9000, 9500), kPa)).toBe("as it should be");
  // Over the dial's 0.64 kPa and a seventh of the plan's: 1.56 kPa.
  expect(fitText("vacuum", fitOf({ quantity: "vacuum" }, 12_500, 9500), kPa)).toBe(
    "3 kPa more than the plan computes: look for the cause",
  );
  expect(fitText("vacuum", fitOf({ quantity: "vacuum" }, 7500, 9500), kPa)).toBe(
    "2 kPa less than the plan computes: look for the cause",
  );
  expect(fitOf({ quantity: "vacuum" }, 600, 0).fits).toBe(true);
  expect(fitOf({ quantity: "vacuum" }, 700, 0).fits).toBe(false);
});

describe("treatments in words", () => {
  const one = (change: Partial<Treatment>): Treatment => ({
    kind: "polish",
    hours: [1, 3],
    lostM3: 0,
    elements: 0,
    remains: 1,
    doseM3: 0,
    ...change,
  });
  test("hours from the kindest case to the worst, in days where it takes longer than two", () => {
    expect(treatmentHoursText(one({}))).toBe("1 h 0 min to 3 h 0 min");
    expect(treatmentHoursText(one({ hours: [0.5, 0.5] }))).toBe("30 min");
    expect(treatmentHoursText(one({ hours: [1, 72] }))).toBe("1 h 0 min to 3 days");
  });
  test("what is never reached, not known or the maker's is said so", () => {
    expect(treatmentHoursText(one({ hours: [2, null] }))).toBe(
      "2 h 0 min, or never where a part stands still",
    );
    expect(treatmentHoursText(one({ hours: [null, null] }))).toBe("no polishing line-up draws from it");
    expect(treatmentHoursText(one({ kind: "settle", hours: [null, null] }))).toBe(
      "water does not sink in it",
    );
    expect(treatmentHoursText(one({ kind: "treat", hours: [null, null] }))).toBe("by the maker");
  });
  test("drops are told in micron, with no length of either system of units", () => {
    expect(treatmentTexts.settle.but).toContain("100 to 20 µm");
    for (const { but } of Object.values(treatmentTexts)) expect(but).not.toMatch(/\d+ ?(mm|in\b|mL|fl oz)/);
  });
});
