import { execFileSync } from "node:child_process";
import { describe, expect, test } from "@jest/globals";
import { comesTwice, dayText, momentText } from "./when";

test("days and moments are written as the reader's language does (Unicode CLDR, medium and short)", () => {
  const at = new Date(2026, 4, 3, 15, 7);
  expect([dayText(at, "en-GB"), dayText(at, "en-US"), dayText(at, "de-DE"), dayText(at, "fr-FR")]).toEqual([
    "3 May 2026",
    "May 3, 2026",
    "03.05.2026",
    "3 mai 2026",
  ]);
  expect(momentText(at, "en-GB")).toMatch(/^3 May 2026, 15:07$/);
});

describe("the hour that comes twice", () => {
  /** The offsets of a zone round 25 October 2026, 01:00 UTC, when European clocks went back (Directive 2000/84/EC). */
  const back = Date.UTC(2026, 9, 25, 1);
  const european = (ms: number) => (ms < back ? -120 : -60);
  test.each([
    ["an hour before it begins", -3_600_001, false],
    ["its first time, at its beginning", -3_600_000, true],
    ["its first time, at its end", -1, true],
    ["its second time, at its beginning", 0, true],
    ["its second time, at its end", 3_599_999, true],
    ["after it", 3_600_000, false],
  ])("%s", (_what, fromMs, is) => expect(comesTwice(back + fromMs, european)).toBe(is));

  test("is not found where clocks go forward, or stay", () => {
    const forward = (ms: number) => (ms < back ? -60 : -120);
    for (let min = -240; min <= 240; min += 10) {
      expect(comesTwice(back + min * 60_000, forward)).toBe(false);
      expect(comesTwice(back + min * 60_000, () => 0)).toBe(false);
    }
  });

  test("is told apart by its zone, by Node's own time zones", () => {
    const program = `
      import { momentText } from "./app/messages/when.ts";
      console.log(JSON.stringify(["2026-10-25T00:30:00Z", "2026-10-25T01:30:00Z", "2026-10-25T03:30:00Z"].map((at) => momentText(at, "en-GB"))));`;
    const written = execFileSync("npx", ["tsx", "--input-type=module", "-e", program], {
      env: { ...process.env, TZ: "Europe/Berlin" },
      encoding: "utf8",
    });
    expect(JSON.parse(written.split("\n").find((line) => line.startsWith("[")) ?? "")).toEqual([
      "25 Oct 2026, 02:30 CEST",
      "25 Oct 2026, 02:30 CET",
      "25 Oct 2026, 04:30",
    ]);
  });
});
