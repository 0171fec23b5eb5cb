import { describe, expect, test } from "@jest/globals";
import { LEAST_FIT } from "./labels";
import { ROOM, shownIn, smallness, wholeIn } from "./room";

describe("the size at which a drawing is shown", () => {
  test("fills its room by the side that is short, and is never blown up", () => {
    expect(shownIn({ width: 800, height: 400 }, { width: 1000, height: 100 })).toBeCloseTo(0.8, 12);
    expect(shownIn({ width: 800, height: 400 }, { width: 900, height: 500 })).toBeCloseTo(0.8, 12);
    expect(shownIn(ROOM, { width: 10, height: 10 })).toBe(1.15);
  });

  test("a tall one is scrolled before its names can no longer be read; a wide one is not cut off", () => {
    const tall = { width: 100, height: 10 * ROOM.height };
    expect(shownIn(ROOM, tall)).toBe(LEAST_FIT);
    expect(wholeIn(ROOM, tall)).toBeCloseTo(0.1, 12);
    expect(shownIn(ROOM, { width: ROOM.width / 0.6, height: 100 })).toBeCloseTo(0.6, 12);
    expect(shownIn(ROOM, { width: 100 * ROOM.width, height: 100 })).toBe(0.5);
  });

  test("one in full size costs nothing, each smaller one more, the same in whatever direction it is too large", () => {
    expect(smallness({ width: 100, height: 100 })).toBe(0);
    expect(smallness(ROOM)).toBe(0);
    const by = [1.1, 1.5, 2, 3].map((times) => smallness({ width: times * ROOM.width, height: 1 }));
    expect(by).toEqual([...by].sort((a, b) => a - b));
    expect(by[0]).toBeGreaterThan(0);
    expect(smallness({ width: 2 * ROOM.width, height: 1 })).toBeCloseTo(
      smallness({ width: 1, height: 2 * ROOM.height }),
      9,
    );
    // In a room twice as large it fits.
    expect(smallness({ width: 2 * ROOM.width, height: 1 }, { width: 2 * ROOM.width, height: 9 })).toBe(0);
  });
});
