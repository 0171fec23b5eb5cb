/** Laws of the work order against values computed apart from this project: an integer programme, fine cells, hydrostatics. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { laws } from "~/schemas/calc";
import { CalcFault } from "~/schemas/law";

interface Check {
  law: string;
  input: Record<string, unknown>;
  output: Record<string, number> & { finishMin?: Record<string, number> };
  source: string;
  absoluteToleranceMl?: number;
  relativeTolerance?: number;
}
const checks = JSON.parse(readFileSync("cli/work-checks.json", "utf8")) as Check[];
const run = (name: string, input: unknown) => {
  const law = laws[name];
  if (!law) throw new Error(name);
  return law.run(law.input.parse(input) as never) as Check["output"];
};
const of = (law: string) => checks.filter((check) => check.law === law);

describe("work scheduled", () => {
  test.each(of("workSchedule").map((check, i) => [i, check] as const))(
    "%d: the longest way is exact; no finish is under the best there is, nor a tenth over it",
    (_, { input, output }) => {
      const found = run("workSchedule", input);
      expect(found.criticalMin).toBe(output.criticalMin);
      for (const people of ["1", "2"]) {
        const [best, own] = [output.finishMin?.[people] ?? 0, found.finishMin?.[people] ?? 0];
        expect(own).toBeGreaterThanOrEqual(best);
        expect(own).toBeLessThanOrEqual(1.1 * best);
      }
    },
  );

  test("nine of ten are the best there is", () => {
    const pairs = of("workSchedule").flatMap(({ input, output }) => {
      const found = run("workSchedule", input);
      return ["1", "2"].map((people) => found.finishMin?.[people] === output.finishMin?.[people]);
    });
    expect(pairs.filter(Boolean).length / pairs.length).toBeGreaterThanOrEqual(0.9);
  });

  const step = (id: string, needs: string[]) => ({
    id,
    needs,
    workMin: 1,
    waitMin: 0,
    people: 1,
    notBeforeMin: 0,
    place: "a",
  });
  test.each([
    ["a ring of needs", [step("a", ["b"]), step("b", ["a"])], "steps"],
    ["a need that is not there", [step("a", ["x"])], "steps[0].needs"],
    ["a step twice", [step("a", []), step("a", [])], "steps"],
  ])("%s is refused at its place", (_, steps, path) => {
    try {
      run("workSchedule", { steps });
      throw new Error("passed");
    } catch (fault) {
      expect(fault).toBeInstanceOf(CalcFault);
      expect((fault as CalcFault).path).toBe(path);
    }
  });
});

test.each(of("drained").map((check, i) => [i, check] as const))(
  "%d a line drained",
  (_, { input, output, absoluteToleranceMl = 0 }) => {
    const found = run("drained", input);
    for (const key of ["outMl", "staysMl"])
      expect(Math.abs((found[key] ?? 0) - (output[key] ?? 0))).toBeLessThanOrEqual(absoluteToleranceMl);
  },
);

test("what runs out and what stays is what was in it, whichever ends are open", () => {
  for (const { input } of of("drained"))
    for (const open of [[], ["from"], ["to"], ["from", "to"]]) {
      const found = run("drained", { ...input, open });
      const points = input.pointsM as [number, number][];
      const allMl = (Math.PI / 4) * ((input.boreMm as number) / 10) ** 2 * (points.at(-1)?.[0] ?? 0) * 100;
      expect((found.outMl ?? 0) + (found.staysMl ?? 0)).toBeCloseTo(allMl, 6);
      if (open.length === 0) expect(found.outMl).toBe(0);
    }
});

test.each(of("siphon").map((check, i) => [i, check] as const))(
  "%d a tank siphoned",
  (_, { input, output, relativeTolerance = 0 }) => {
    const { litres = 0 } = run("siphon", input);
    expect(Math.abs(litres - (output.litres ?? 0))).toBeLessThanOrEqual(
      relativeTolerance * (output.litres ?? 0) + 1e-9,
    );
  },
);

test("a line that turns back and a level over the tank's top are refused at their places", () => {
  expect(() =>
    run("drained", {
      boreMm: 8,
      pointsM: [
        [0, 0],
        [1, 0],
        [0.5, 0],
      ],
      open: ["from"],
    }),
  ).toThrow("pointsM[2]");
  expect(() =>
    run("siphon", { boxM: [1, 1, 0.5], floorZM: 0, levelM: 0.6, mouthM: 0, openingZM: 0, shut: false }),
  ).toThrow("levelM");
});
