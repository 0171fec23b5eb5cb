import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { inFallingOrder, inOrder } from "./inOrder";

const rises = (values: readonly number[]) =>
  values.every((one, i) => i === 0 || one > (values[i - 1] as number));

describe("a figure typed out of its order", () => {
  test.each([
    ["between its neighbours moves nothing", [0, 50, 100], 1, 60, [0, 60, 100]],
    ["past the next takes it along", [0, 50, 100], 1, 150, [0, 150, 200]],
    ["under the one before takes it along", [10, 50, 100], 2, 20, [-70, -30, 20]],
  ])("%s", (_, values, at, value, wanted) => {
    expect(inOrder(values, at, value)).toEqual(wanted);
  });

  test("at an end that holds, the others are squeezed in their shares", () => {
    expect(inOrder([0, 50, 100], 2, 20, 0)).toEqual([0, 10, 20]);
    expect(inOrder([0, 0.5, 0.75, 1], 1, 0.8, 0, 1)).toEqual([0, 0.8, 0.9, 1]);
  });

  test("a list that falls", () => {
    expect(inFallingOrder([300, 200, 100], 1, 350)).toEqual([450, 350, 100]);
    expect(inFallingOrder([300, 200, 100], 1, 50)).toEqual([300, 50, -50]);
  });

  test("every list still rises, keeps its length and holds what was typed, within its ends", () => {
    const share = fc.integer({ min: 1, max: 999 });
    fc.assert(
      fc.property(
        fc.uniqueArray(share, { minLength: 2, maxLength: 9 }),
        fc.nat(),
        share,
        (drawn, index, value) => {
          const values = [...drawn].sort((a, b) => a - b);
          const at = index % values.length;
          const next = inOrder(values, at, value, 0, 1000);
          expect(next[at]).toBe(value);
          expect(rises(next)).toBe(true);
          expect(next[0]).toBeGreaterThanOrEqual(0);
          expect(next.at(-1)).toBeLessThanOrEqual(1000);
        },
      ),
    );
  });
});
