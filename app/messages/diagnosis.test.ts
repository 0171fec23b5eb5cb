/** What may be wrong, in words: a stretch is told as one and no joint of it is named as the one. */
import { describe, expect, test } from "@jest/globals";
import { faultKinds } from "~/core/book/entries";
import {
  groupText,
  lookTexts,
  mendTexts,
  outcomeTexts,
  shareText,
  stateTexts,
  symptomTexts,
  visitText,
} from "./diagnosis";

const names: Record<string, string> = { a: "Tank valve", b: "Tee", c: "Separator", d: "Lift pump" };
const nameOf = (id: string) => names[id] ?? id;

describe("a group", () => {
  test("of one place is at it, of two at either, of more a stretch from its first to its last", () => {
    expect(groupText({ kind: "airLeak", ids: ["a"] }, nameOf)).toBe("Air comes in at Tank valve");
    expect(groupText({ kind: "airLeak", ids: ["a", "b"] }, nameOf)).toBe(
      "Air comes in at Tank valve, or Tee",
    );
    const stretch = groupText({ kind: "airLeak", ids: ["a", "b", "c", "d"] }, nameOf);
    expect(stretch).toBe("Air comes in somewhere from Tank valve on to Lift pump");
    expect(stretch).not.toContain("Separator");
  });
  test("names a part once that it has twice", () => {
    expect(groupText({ kind: "restricted", ids: ["a", "a"] }, nameOf)).toBe("Something narrow at Tank valve");
  });
  test.each(faultKinds)(
    "%s reads whole, has a mend that begins with what is done, and without a place says so",
    (kind) => {
      const text = groupText({ kind, ids: ["a"] }, nameOf);
      expect(text).not.toMatch(/undefined|\[object/);
      expect(text.length).toBeGreaterThan(10);
      expect(groupText({ kind, ids: [] }, nameOf)).not.toContain("undefined");
      expect(mendTexts[kind]).toMatch(/^[A-Z].*\.$/);
    },
  );
});

test("a share is a word, and no figure that nobody can defend", () => {
  const said = [1, 0.96, 0.95, 0.94, 0.8, 0.79, 0.35, 0.34, 0].map(shareText);
  expect(said).toEqual([
    "nearly certain",
    "nearly certain",
    "nearly certain",
    "likely",
    "likely",
    "one of two or three",
    "one of two or three",
    "possible",
    "possible",
  ]);
  for (const text of said) expect(text).not.toMatch(/\d/);
});

describe("a visit", () => {
  test("says what is read and where, or what is looked at", () => {
    const minutes = 1;
    expect(visitText({ kind: "state", state: "capOff", minutes } as never, nameOf)).toBe(
      "Read every gauge at full load, the tank's cap off",
    );
    expect(visitText({ kind: "gauge", port: "c", minutes } as never, nameOf)).toBe(
      "Put a gauge in at Separator, full load",
    );
    expect(visitText({ kind: "look", look: "bubbles", port: "b", minutes } as never, nameOf)).toBe(
      "Look: bubbles in a clear line at Tee",
    );
    expect(visitText({ kind: "look", look: "puddle", minutes } as never, nameOf)).toBe(
      "Look: a puddle overnight",
    );
  });
  test("every state, look, symptom and outcome has its words, each its own", () => {
    for (const texts of [stateTexts, lookTexts, symptomTexts, outcomeTexts]) {
      const all = Object.values(texts);
      expect(new Set(all).size).toBe(all.length);
      for (const text of all) expect(text.length).toBeGreaterThan(5);
    }
  });
});
