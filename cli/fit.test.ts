/** Joints, cuts, holes, lines and boards against values computed apart from this project, each with its source. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { laws } from "~/schemas/calc";
import { CalcFault } from "~/schemas/law";

interface Check {
  law: string;
  input: Record<string, unknown>;
  output: Record<string, unknown>;
  relativeTolerance: number;
  source: string;
}
const checks = JSON.parse(readFileSync("cli/fit-checks.json", "utf8")) as Check[];
const run = (name: string, input: unknown) => {
  const law = laws[name];
  if (!law) throw new Error(name);
  return law.run(law.input.parse(input) as never);
};

/** Equal, numbers within a share of their size. */
function near(found: unknown, wanted: unknown, tolerance: number): void {
  if (typeof wanted === "number") {
    expect(Math.abs((found as number) - wanted)).toBeLessThanOrEqual(tolerance * Math.abs(wanted) + 1e-9);
  } else if (typeof wanted === "object" && wanted !== null) {
    expect(Object.keys(found as object)).toEqual(expect.arrayContaining(Object.keys(wanted)));
    if (Array.isArray(wanted)) expect(found).toHaveLength(wanted.length);
    for (const [key, one] of Object.entries(wanted))
      near((found as Record<string, unknown>)[key], one, tolerance);
  } else expect(found).toBe(wanted);
}

test.each(checks.map((check, i) => [i, check.law, check.source, check] as const))(
  "%d %s: %s",
  (_i, name, _source, { input, output, relativeTolerance }) => {
    const found = run(name, input);
    for (const [key, wanted] of Object.entries(output)) near(found[key], wanted, relativeTolerance);
  },
);

describe("what cannot be", () => {
  const npt = { family: "npt", size: "1/2", form: "m" };

  test.each([
    ["an unknown size", { from: { ...npt, size: "5/8" }, to: npt }, "from.size"],
    ["a form that the family has not", { from: npt, to: { ...npt, form: "bolt" } }, "to.form"],
    ["a branch of no family's size", { from: npt, to: npt, branch: { ...npt, size: "M9" } }, "branch.size"],
  ])("a chain with %s is refused at its place", (_, input, path) => {
    expect(() => run("chain", input)).toThrow(CalcFault);
    try {
      run("chain", input);
    } catch (fault) {
      expect((fault as CalcFault).path).toBe(path);
    }
  });

  test("an unknown family, sizes of nothing and boards that are none do not pass", () => {
    expect(laws.chain?.input.safeParse({ from: { ...npt, family: "wood" }, to: npt }).success).toBe(false);
    expect(laws.holeSaw?.input.safeParse({ passMm: 0, clearanceMm: 3, series: "inch" }).success).toBe(false);
    expect(laws.cuts?.input.safeParse({ stockM: [1], lengthsM: [0], kerfMm: 1 }).success).toBe(false);
    expect(() => run("bend", { legsMm: [100, 100], bendsDeg: [], radiusMm: 20 })).toThrow(CalcFault);
  });

  test("pieces that are too long, or more than there is, are told apart", () => {
    expect(run("cuts", { stockM: [1, 2], lengthsM: [2.5], kerfMm: 1 })).toMatchObject({ outcome: "tooLong" });
    expect(run("cuts", { stockM: [1, 2], lengthsM: [1.4, 1.4], kerfMm: 1 })).toMatchObject({
      outcome: "notEnough",
    });
    const list = { offcutsM: [1], coilsM: [2], kerfMm: 1, keepM: 0.3 };
    expect(run("cutList", { ...list, lengthsM: [3] })).toMatchObject({ outcome: "tooLong" });
    expect(run("cutList", { ...list, lengthsM: [1.9, 1.9] })).toMatchObject({ outcome: "notEnough" });
  });

  test("no saw reaches beyond the series; a part larger than its board clashes with its edge", () => {
    expect(run("holeSaw", { passMm: 300, clearanceMm: 3, series: "inch" })).toMatchObject({
      saw: null,
      fits: false,
    });
    const big = {
      id: "a",
      w: 200,
      h: 50,
      turns: [0],
      ports: {},
      bodies: [{ x: 0, z: 0, w: 200, h: 50, y0: 0, y1: 9 }],
    };
    const board = { x: 0, z: 0, w: 150, h: 100 };
    const input = {
      board,
      opening: board,
      hoseArea: board,
      parts: [big],
      hoses: [],
      at: [{ x: 0, z: 0, t: 0 }],
      gapMm: 6,
    };
    expect(run("panel", input)).toEqual({ clashes: [{ code: "offBoard", a: "a", b: null, mm: 50 }] });
    expect(() => run("panel", { ...input, at: [] })).toThrow(CalcFault);
  });
});
