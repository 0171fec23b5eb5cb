import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { applyCommand, playPatches } from "../edit/commands";
import { derive } from "../order/derive";
import { ordered } from "../order/facts";
import { currentPlan } from "../plan/ports";
import type { Job, Passage } from "../plan/types";
import { bundleM, passageHoles } from "./passages";

const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };
const hole: Passage = {
  id: "h1",
  name: "Bulkhead",
  through: "bulkhead",
  made: "cored",
  wallM: 0.02,
  runs: ["run1"],
  behind: "free",
};
const withHoles = (...passages: Passage[]) =>
  applyCommand(job, { name: "editPlan", change: { passages } }).job;
const judged = (passage: Passage) => passageHoles(currentPlan(withHoles(passage)), "metric")[0]!;

describe("the circle round hoses side by side", () => {
  test("is their own for one, both across for two, and for equal ones what is known of them", () => {
    expect(bundleM([])).toBe(0);
    expect(bundleM([0.02])).toBe(0.02);
    expect(bundleM([0.02, 0.01])).toBeCloseTo(0.03, 12);
    // Closed forms: 3: 1 + 2/sqrt 3; 4: 1 + sqrt 2; 6 and 7: 3; 8: 1 + 1/sin(pi/7); 9: 1 + sqrt(4 + 2 sqrt 2);
    // 10 and 12 best known (R. L. Graham and others 1998, from memory).
    const ones = (n: number) => Array.from({ length: n }, () => 1);
    const known: [number, number][] = [
      [3, 1 + 2 / Math.sqrt(3)],
      [4, 1 + Math.SQRT2],
      [5, 1 + Math.sqrt(2 * (1 + 1 / Math.sqrt(5)))],
      [6, 3],
      [7, 3],
      [8, 1 + 1 / Math.sin(Math.PI / 7)],
      [9, 1 + Math.sqrt(4 + 2 * Math.SQRT2)],
      [10, 3.813],
      [11, 1 + 1 / Math.sin(Math.PI / 9)],
      [12, 4.029],
    ];
    for (const [n, ratio] of known) {
      expect(bundleM(ones(n))).toBeGreaterThanOrEqual(ratio - 5e-5);
      expect(bundleM(ones(n))).toBeLessThan(ratio + 2e-3);
    }
  });
  test("is never smaller than the two largest side by side, nor than the area of what is in it", () => {
    const size = fc.double({ min: 0.005, max: 0.05, noNaN: true });
    fc.assert(
      fc.property(fc.array(size, { minLength: 2, maxLength: 40 }), (all) => {
        const round = bundleM(all);
        const [first = 0, second = 0] = [...all].sort((a, b) => b - a);
        expect(round).toBeGreaterThanOrEqual(first + second - 1e-12);
        expect(round ** 2).toBeGreaterThanOrEqual(all.reduce((sum, one) => sum + one ** 2, 0) - 1e-12);
      }),
    );
  });
});

describe("a hole in a wall", () => {
  test("takes the next saw over its hose and 3 mm, or over its grommet's walls", () => {
    // run1: 12.7 mm hose of 20.7 mm over all.
    const outer = currentPlan(job).runs.find(({ id }) => id === "run1")!.product.outerDiameterM * 1000;
    const bare = judged(hole);
    expect(bare.saw.needM * 1000).toBeCloseTo(outer + 3, 6);
    expect(bare.saw.saw!.diameterM).toBeGreaterThanOrEqual(bare.saw.needM - 1e-9);
    expect(judged({ ...hole, grommetM: 0.004 }).saw.needM * 1000).toBeCloseTo(outer + 8, 6);
    expect(bare.faults).toEqual([]);
    expect(bare.edge).toBe("sealCore");
  });
  const faulty: [string, Partial<Passage>, string][] = [
    ["nothing passes", { runs: [] }, "nothingPasses"],
    ["over 6 in", { alsoM: 0.2 }, "noSaw"],
    ["nearer an edge than its own radius and half itself", { fromEdgeM: [0.02, 0.3] }, "nearEdge"],
    ["a tank behind", { behind: "tank" }, "behind"],
    ["bare metal", { made: "metal" }, "bareMetal"],
    ["a sleeve as long as the wall", { sleeveM: 0.02 }, "sleeveShort"],
    ["a sleeve that stands out far", { sleeveM: 0.09 }, "sleeveLong"],
  ];
  test.each(faulty)("%s is told", (_, change, code) => {
    expect(judged({ ...hole, ...change }).faults).toContain(code);
  });
  test("nobody has looked behind it: told until somebody has", () => {
    const { behind: _, ...unlooked } = hole;
    expect(judged(unlooked).faults).toEqual(["notLooked"]);
  });
});

describe("holes in the job", () => {
  test("a hose that goes leaves its holes, and undo puts it back into each where it was", () => {
    const two = withHoles({ ...hole, runs: ["run1", "run2", "run3"] }, { ...hole, id: "h2", runs: ["run2"] });
    const gone = applyCommand(two, { name: "disconnect", id: "run2" });
    expect(currentPlan(gone.job).passages?.map(({ runs }) => runs)).toEqual([["run1", "run3"], []]);
    expect(playPatches(gone.job, gone.inverse)).toEqual(two);
  });
  test("a new hole is cut and its edge cured before the new hose is laid through it", () => {
    const run = currentPlan(job).runs.find(({ id }) => id === "run1")!;
    const next = applyCommand(withHoles(hole), {
      name: "editRun",
      id: "run1",
      change: { product: { ...run.product, marking: "new" } },
    }).job;
    const { steps, found } = derive(next, currentPlan(job), currentPlan(next));
    const order = ordered(steps, found);
    if (order.outcome !== "order") throw new Error(order.outcome);
    const ids = order.steps.map(({ id }) => id);
    expect(ids.indexOf("cutHole:h1")).toBeLessThan(ids.indexOf("careEdge:h1"));
    expect(ids.indexOf("careEdge:h1")).toBeLessThan(ids.indexOf("lay:run1"));
    expect(order.steps.find(({ id }) => id === "careEdge:h1")?.waitMin).toBe(45);
  });
});
