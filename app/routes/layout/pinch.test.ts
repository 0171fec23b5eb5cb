/** Held against where points of the drawing are on the screen: as its picture is turned by CSS, and as it is drawn anew. */
import { describe, expect, test } from "@jest/globals";
import { seeded } from "~/core/random/seeded";
import { type Fingers, fingersAt, type Held, pinchedTo, scrolledBy, transformOf } from "./pinch";

const touch = (clientX: number, clientY: number) => ({ clientX, clientY });
const held: Held = { at: { x: 112, y: 90 }, scale: 0.8, mid: { x: 400, y: 300 }, apart: 120 };
const numbers = (text: string) => (text.match(/-?[\d.]+(?:e-?\d+)?/g) ?? []).map(Number);

/** Where a point of the drawing, natural px, is seen while its picture is transformed (CSS Transforms 1: about its origin). */
function seen(of: Held, fingers: Fingers, point: { x: number; y: number }) {
  const { origin, transform } = transformOf(of, fingers);
  const [originX, originY] = numbers(origin) as [number, number];
  const [dx, dy, times] = numbers(transform) as [number, number, number];
  return {
    x: of.at.x + originX + dx + times * (point.x * of.scale - originX),
    y: of.at.y + originY + dy + times * (point.y * of.scale - originY),
  };
}

describe("two fingers", () => {
  test("are told by their middle and how far apart they are; one or three are none", () => {
    expect(fingersAt([touch(100, 200), touch(130, 240)])).toEqual({ mid: { x: 115, y: 220 }, apart: 50 });
    expect(fingersAt([touch(1, 2)])).toBeNull();
    expect(fingersAt([touch(1, 2), touch(3, 4), touch(5, 6)])).toBeNull();
    expect(fingersAt([])).toBeNull();
  });

  test("half as far apart again make it half as large again, within what can be read and seen", () => {
    const apart = (px: number) => pinchedTo(held, { mid: held.mid, apart: px });
    expect(apart(120)).toBeCloseTo(0.8, 12);
    expect(apart(180)).toBeCloseTo(1.2, 12);
    expect(apart(60)).toBeCloseTo(0.4, 12);
    expect(apart(10_000)).toBe(2);
    expect(apart(1)).toBe(0.3);
    // Laid on one another they are a pixel apart, not none.
    expect(pinchedTo({ ...held, apart: 0 }, { mid: held.mid, apart: 2 })).toBeCloseTo(1.6, 12);
  });

  test("what was between them stays between them, wherever they go; what is beside moves as it grows", () => {
    const random = seeded(3);
    for (let i = 0; i < 50; i++) {
      const fingers = {
        mid: { x: 1000 * random(), y: 700 * random() },
        apart: 60 + 150 * random(),
      };
      const between = {
        x: (held.mid.x - held.at.x) / held.scale,
        y: (held.mid.y - held.at.y) / held.scale,
      };
      const now = seen(held, fingers, between);
      expect(now.x).toBeCloseTo(fingers.mid.x, 6);
      expect(now.y).toBeCloseTo(fingers.mid.y, 6);
      // A point of the drawing 10 px right of it lies as much to the right as the drawing is then large.
      const beside = seen(held, fingers, { x: between.x + 10, y: between.y });
      expect(beside.x - now.x).toBeCloseTo(10 * pinchedTo(held, fingers), 6);
    }
  });

  test("let go, it is scrolled so that it is drawn where its picture was", () => {
    const random = seeded(5);
    for (let i = 0; i < 50; i++) {
      const last = { mid: { x: 900 * random(), y: 700 * random() }, apart: 40 + 200 * random() };
      // Wherever the browser lays the larger drawing: its corner is asked then.
      const corner = { x: 112 - 300 * random(), y: 90 - 300 * random() };
      const by = scrolledBy(held, last, corner);
      const point = { x: 250 * random(), y: 250 * random() };
      const drawn = {
        x: corner.x - by.x + point.x * pinchedTo(held, last),
        y: corner.y - by.y + point.y * pinchedTo(held, last),
      };
      const was = seen(held, last, point);
      expect(drawn.x).toBeCloseTo(was.x, 6);
      expect(drawn.y).toBeCloseTo(was.y, 6);
    }
  });

  test("that never moved leave it where it was", () => {
    const { transform } = transformOf(held, held);
    expect(numbers(transform)).toEqual([0, 0, 1]);
    expect(scrolledBy(held, held, held.at)).toEqual({ x: 0, y: 0 });
  });
});
