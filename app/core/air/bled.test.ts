/** A real bleed read off the book: what was ticked since it was begun, of this plan and line-up, and no practice. */
import { describe, expect, test } from "@jest/globals";
import type { BledStep } from "../book/entries";
import { bledSoFar, pumpShareOf, stepKey } from "./bled";
import type { ProcedureStep } from "./procedure";

const entry = (id: string, step: string, came: BledStep["came"], more: Partial<BledStep> = {}): BledStep => ({
  id,
  kind: "bled",
  at: `2026-11-01T10:0${id}:00Z`,
  planId: "p",
  planHash: "",
  lineUpId: "l",
  step,
  came,
  ...more,
});

describe("what was ticked", () => {
  test("counts from the last time it was begun, the last word of a step stands", () => {
    const book = [
      entry("1", "1:sep.lid", "solid"),
      entry("2", "begin", "begun"),
      entry("3", "1:sep.lid", "foam"),
      entry("4", "1:sep.lid", "solid", { seconds: 12 }),
      entry("5", "2:engine.feed", "air"),
    ];
    const found = bledSoFar(book, "p", "l");
    expect([...found.keys()]).toEqual(["1:sep.lid", "2:engine.feed"]);
    expect(found.get("1:sep.lid")).toMatchObject({ came: "solid", seconds: 12 });
  });
  test("is of its plan and line-up alone, and practice is not of it", () => {
    const book = [
      entry("1", "1:a", "done", { planId: "other" }),
      entry("2", "1:b", "done", { lineUpId: "other" }),
      entry("3", "practice", "done", { isPractice: true }),
    ];
    expect(bledSoFar(book, "p", "l").size).toBe(0);
    expect(bledSoFar([], "p", "l").size).toBe(0);
  });
});

test("a step is known by its number and what it opens: of another procedure it is another", () => {
  const fill = (ids: string[]): ProcedureStep => ({
    kind: "fill",
    isAgain: false,
    vessels: ids.map((partId) => ({ partId, name: partId, pouredM3: 1e-4, shutIds: [], isToInlet: false })),
    actions: [],
  });
  expect(stepKey(fill(["sep1", "sep2"]), 0)).toBe("1:sep1+sep2");
  expect(stepKey({ kind: "valves", isBack: false, ids: ["v"], actions: [] }, 3)).toBe("4:valves");
  // The book keeps sixty letters.
  expect(stepKey(fill(Array.from({ length: 12 }, (_, i) => `filter${i}`)), 8).length).toBe(60);
});

describe("what the pump gives, by earlier bleeds", () => {
  const timed = (id: string, seconds: number, computedS: number, came: BledStep["came"] = "solid") =>
    entry(id, `${id}:lift.out`, came, { seconds, computedS });
  const begun = (id: string) => entry(id, "begin", "begun");

  test("is told by seconds against seconds, a bleed at a time; the one that goes on tells nothing yet", () => {
    const first = [begun("0"), timed("1", 10, 8), timed("2", 40, 32)];
    expect(pumpShareOf(first, "p", "l")).toBeNull();
    expect(pumpShareOf([...first, begun("3")], "p", "l")).toEqual({
      share: expect.closeTo(0.8, 12),
      bleeds: 1,
    });
    // The second was computed with four fifths, and took a tenth less than that.
    const second = [...first, begun("3"), timed("4", 45, 50), begun("5")];
    expect(pumpShareOf(second, "p", "l")).toEqual({ share: expect.closeTo(0.8 / 0.9, 12), bleeds: 2 });
  });

  test("nothing is made of steps that did not run solid, of seconds too few, or of a hand that looked away", () => {
    expect(pumpShareOf([begun("0"), timed("1", 20, 8, "air"), begun("2")], "p", "l")).toBeNull();
    expect(pumpShareOf([begun("0"), timed("1", 1, 2), begun("2")], "p", "l")).toBeNull();
    expect(pumpShareOf([begun("0"), timed("1", 4000, 8), begun("2")], "p", "l")?.share).toBe(0.3);
  });
});
