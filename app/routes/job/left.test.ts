/** A job opens where it was left, and where the work starts when nothing that is known was kept. */
import { beforeEach, describe, expect, test } from "@jest/globals";
import { leave, leftAt } from "./left";

const stored = new Map<string, string>();
const open = {
  getItem: (key: string) => stored.get(key) ?? null,
  setItem: (key: string, value: string) => stored.set(key, value),
};
const closed = {
  getItem: () => {
    throw new Error("closed");
  },
  setItem: () => {
    throw new Error("closed");
  },
};
const browser = globalThis as unknown as { localStorage: typeof open | typeof closed };

beforeEach(() => {
  stored.clear();
  browser.localStorage = open;
});

describe("where a job was left", () => {
  test("is kept by job, with what was chosen there", () => {
    leave("a", "/job/a/care", "?part=service");
    leave("b", "/job/b/prove", "");
    expect([leftAt("a"), leftAt("b"), leftAt("c")]).toEqual(["care?part=service", "prove", "survey"]);
  });

  test("is no sheet, and nothing that this application has no place for", () => {
    leave("a", "/job/a/layout", "");
    leave("a", "/job/a/print/work", "");
    leave("a", "/job/a", "");
    expect(leftAt("a")).toBe("layout");
    stored.set("iron-keel-left:a", "elsewhere?x=1");
    expect(leftAt("a")).toBe("survey");
  });

  test("is forgotten where the browser keeps nothing", () => {
    browser.localStorage = closed;
    leave("a", "/job/a/care", "");
    expect(leftAt("a")).toBe("survey");
  });
});
