/** The list in words: every kind of line in both systems of units, with no figure of the other. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { planJoints } from "~/core/joints/joints";
import { type BuyLine, type BuyWhat, buyLines } from "~/core/parts/buying";
import { currentPlan } from "~/core/plan/ports";
import type { Job } from "~/core/plan/types";
import { metricUnits, type UnitChoice, usUnits } from "~/core/units/format";
import { buyText, checkInTexts, lineTitle, spareText } from "./buying";

const jobs = ["marram", "unit-12", "reading-van"].map(
  (name) => (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job,
);
const lines = jobs.flatMap((job) => {
  const plan = currentPlan(job);
  return buyLines(job, plan, planJoints(job, plan));
});

/** Kinds of which no demo job needs one. */
const made: BuyWhat[] = [
  { kind: "washer" },
  { kind: "fixing" },
  { kind: "epoxy" },
  { kind: "edgePaint" },
  { kind: "sleeve" },
  { kind: "relay" },
  { kind: "antiSeize" },
  { kind: "flareTool" },
  { kind: "bender" },
  { kind: "grommet", passM: 0.0127, wallM: 0.002 },
  { kind: "holeSaw", diameterM: 0.0254, name: "1 in" },
];

const systems: [string, UnitChoice, RegExp][] = [
  ["metric", metricUnits, /\d ?(in|ft|AWG|gph|gal|psi|inHg)\b|″/],
  ["US", usUnits, /\d ?(mm|cm|m|L\/h|kPa|bar|mm²)(?![a-zé])/],
];

describe.each(systems)("in %s units", (_, units, other) => {
  test("every line of the demo jobs and every kind reads whole, without a figure of the other system", () => {
    for (const what of [...lines.map((line) => line.what), ...made]) {
      const text = buyText(what, units);
      expect(text.length).toBeGreaterThan(3);
      expect(text).not.toMatch(/undefined|NaN|null|\[object/);
      // What stands printed on a hose, a saw's own name and the size of a thread are what they are.
      if (!["hose", "holeSaw", "adapter"].includes(what.kind)) expect(text).not.toMatch(other);
    }
  });
});

test("clamps, clips and bores are those of the system", () => {
  expect(buyText({ kind: "clamp", outsideM: 0.0254 }, metricUnits)).toBe("hose clamp for 25.4 mm");
  expect(buyText({ kind: "clamp", outsideM: 0.0254 }, usUnits)).toMatch(/^hose clamp for 1(″| in)$/);
  expect(buyText({ kind: "wire", areaM2: 2.5e-6, pole: "positive" }, metricUnits)).toBe("wire 2.5 mm², red");
  expect(buyText({ kind: "wire", areaM2: 2.5e-6, pole: "negative" }, usUnits)).toMatch(/^wire .*AWG, black$/);
  expect(buyText({ kind: "hose", marking: "ISO 7840 A1", boreM: 0.0127 }, metricUnits)).toBe(
    "ISO 7840 A1, 12.7 mm",
  );
});

test("a title begins large; what is in reserve and what is a spare is told apart, and none is nothing", () => {
  const line = (what: BuyWhat, spare: number): BuyLine => ({
    key: "k:",
    group: "parts",
    what,
    count: 3,
    lengthM: null,
    spare,
    for: [],
  });
  expect(lineTitle(line({ kind: "washer" }, 0), metricUnits)).toBe("Sealing washer, new");
  expect(spareText(line({ kind: "washer" }, 0))).toBe("");
  expect(spareText(line({ kind: "washer" }, 2))).toBe("2 of it in reserve");
  expect(spareText(line({ kind: "fuse", amperes: 10 }, 1))).toBe("1 of it spare");
  expect([checkInTexts.count(1), checkInTexts.count(4)]).toEqual([
    "One came, as ordered",
    "4 came, as ordered",
  ]);
});
