import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { currentPlan } from "~/core/plan/ports";
import type { Job } from "~/core/plan/types";
import { settingText } from "~/messages/settingText";
import { edgePath } from "./edges";

const marram = (JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job }).job;

describe("the way of a hose on the drawing", () => {
  const none = { x: 0, y: 0 };
  const points = (d: string) =>
    [...d.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map(([, x, y]) => [Number(x), Number(y)]);

  test("goes from end to end over its corners", () => {
    const d = edgePath([none, { x: 50, y: 0 }, { x: 50, y: 40 }, { x: 90, y: 40 }], none, none);
    expect(points(d)[0]).toEqual([0, 0]);
    expect(points(d).at(-1)).toEqual([90, 40]);
    expect(d.match(/Q/g)).toHaveLength(2);
  });

  test("follows a part that the hand holds, and stays at right angles", () => {
    const straight = edgePath([none, { x: 90, y: 0 }], none, { x: 10, y: 30 });
    expect(points(straight).at(-1)).toEqual([100, 30]);
    expect(straight.match(/Q/g)).toHaveLength(2);
    const bent = edgePath([none, { x: 50, y: 0 }, { x: 50, y: 40 }, { x: 90, y: 40 }], { x: 0, y: 12 }, none);
    expect(points(bent)[0]).toEqual([0, 12]);
    expect(bent).toContain("Q50 12");
    // At a tee it comes in from above.
    const upright = edgePath([none, { x: 50, y: 0 }, { x: 50, y: 40 }], none, none);
    expect(upright).toContain("Q50 0");
    expect(points(upright).at(-1)).toEqual([50, 40]);
  });
});

test("a setting is said in the valve's own words", () => {
  const part = (id: string) => currentPlan(marram).parts.find((one) => one.id === id)!;
  expect(settingText(part("returns"), { kind: "branches", open: ["port", "day"] })).toBe("open: port, day");
  expect(settingText(part("returns"), { kind: "branches", open: [] })).toBe("all shut");
  expect(settingText(part("valveP"), { kind: "position", position: "open" })).toBe("open");
  expect(settingText(part("valveP"), undefined)).toBe("not set");
});
