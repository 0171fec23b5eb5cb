/** Folding by what must be true of it whatever is folded: lines in their order, bands clear of one another. */
import { describe, expect, test } from "@jest/globals";
import type { Cell } from "../plan/types";
import { seeded } from "../random/seeded";
import { folded } from "./bands";
import { bodyWith } from "./body.fixture";
import { extentOf } from "./grid";
import type { Segment, Vertex } from "./layers";

/** A line of bodies, one a layer, each joined to the next, and as many hoses more past a gap as told. */
function line(count: number, extra: Record<number, number> = {}) {
  const random = seeded(count);
  const nodes = Array.from({ length: count }, (_, i) =>
    bodyWith(`n${i}`, { columns: 2 + Math.floor(6 * random()), below: 2, foot: 4, overhang: 1 }),
  );
  const vertices: Vertex[] = nodes.map((one, layer) => ({
    node: one,
    layer,
    above: one.above,
    foot: one.foot,
    model: layer,
  }));
  const join = (left: number): Segment => ({ left, leftRow: 0, right: left + 1, rightRow: 0 });
  const segments = Array.from({ length: count - 1 }, (_, i) => join(i));
  for (const [gap, more] of Object.entries(extra))
    for (let i = 0; i < more; i++) segments.push(join(Number(gap)));
  const places = new Map<string, Cell>();
  let x = 0;
  for (const one of nodes) {
    places.set(one.id, { x, y: 0 });
    x += one.columns + 4;
  }
  return { nodes, vertices, segments, places };
}

/** Ids by the rows that they stand on. */
const bandsOf = (places: ReadonlyMap<string, Cell>): string[][] => {
  const rows = [...new Set([...places.values()].map(({ y }) => y))].sort((a, b) => a - b);
  return rows.map((row) => [...places].filter(([, { y }]) => y === row).map(([id]) => id));
};

describe("folding", () => {
  test.each([2, 3, 4])(
    "into %s bands: the line goes on from each to the next, and nothing is lost",
    (bands) => {
      for (const count of [8, 13, 30]) {
        const all = line(count);
        const places = folded(all, all.places, bands)!;
        const found = bandsOf(places);
        expect(found).toHaveLength(bands);
        expect(found.flat()).toEqual(all.nodes.map(({ id }) => id));
        for (const band of found) {
          const columns = band.map((id) => places.get(id)!.x);
          expect(columns).toEqual([...columns].sort((a, b) => a - b));
        }
      }
    },
  );

  test("bands are about as wide, and narrower than the line by as much", () => {
    const all = line(40);
    const whole = extentOf(all.nodes, all.places).width;
    for (const bands of [2, 3, 4]) {
      const places = folded(all, all.places, bands)!;
      const { width } = extentOf(all.nodes, places);
      expect(width).toBeLessThan((1.25 * whole) / bands);
    }
  });

  test("no band reaches into the next, and each hose that leads on finds a row between them", () => {
    const all = line(12, { 5: 6 });
    for (const bands of [2, 3]) {
      const places = folded(all, all.places, bands)!;
      const boxes = bandsOf(places).map((band) =>
        extentOf(
          all.nodes.filter(({ id }) => band.includes(id)),
          places,
        ),
      );
      boxes.slice(1).forEach((under, i) => {
        const over = boxes[i]!;
        expect(under.top).toBeGreaterThan(over.top + over.height);
      });
    }
  });

  test("it is cut where few hoses pass, though the bands are not quite alike then", () => {
    const even = bandsOf(folded(line(12), line(12).places, 2)!);
    const cutAt = even[0]!.length - 1;
    const all = line(12, { [cutAt]: 4 });
    const found = bandsOf(folded(all, all.places, 2)!);
    expect(found[0]).not.toHaveLength(even[0]!.length);
  });

  test("what has too few layers is not folded", () => {
    const all = line(3);
    expect(folded(all, all.places, 4)).toBeNull();
  });
});
