import { expect, test } from "@jest/globals";
import { contentOf, wordOf } from "../air/content";
import type { WorkStep } from "../order/facts";
import { contentAfter } from "./opened";

const step = (verb: WorkStep["verb"], of: string, port?: string): WorkStep => ({
  id: `${verb}:${of}`,
  verb,
  of: [of],
  ...(port === undefined ? {} : { port }),
  place: "line",
  pre: [],
  post: [],
  litresM3: 0,
  workMin: 1,
  waitMin: 0,
  people: 1,
  notBeforeMin: 0,
  needs: [],
});
test("one element, one joint, or all dry", () => {
  expect(contentAfter([step("element", "sep1"), step("look", "x")])).toEqual({
    kind: "filterChanged",
    partId: "sep1",
  });
  expect(contentAfter([step("join", "lift", "in")])).toEqual({ kind: "opened", joint: "lift.in" });
  expect(contentAfter([step("join", "lift", "in"), step("join", "lift", "out")])).toEqual({ kind: "dry" });
  expect(contentAfter([step("join", "lift", "in"), step("element", "sep1")])).toEqual({ kind: "dry" });
});

test("one element, one joint, or all dry", () => {
  expect(contentAfter([step("element", "sep1"), step("look", "x")])).toEqual({
    kind: "filterChanged",
    partId: "sep1",
  });
  expect(contentAfter([step("join", "lift", "in")])).toEqual({ kind: "opened", joint: "lift.in" });
  expect(contentAfter([step("join", "lift", "in"), step("join", "lift", "out")])).toEqual({ kind: "dry" });
  expect(contentAfter([step("join", "lift", "in"), step("element", "sep1")])).toEqual({ kind: "dry" });
  expect(contentAfter([])).toEqual({ kind: "dry" });
});

test("goes to Bleed as a word and is read back the same", () => {
  for (const steps of [[step("element", "sep1")], [step("join", "lift", "in")], []])
    expect(contentOf(wordOf(contentAfter(steps)))).toEqual(contentAfter(steps));
});
