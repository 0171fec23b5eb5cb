/** Rows and columns by what any drawing must keep: orders, room, straight lines, and no body in another's. */
import { describe, expect, test } from "@jest/globals";
import { seeded } from "../random/seeded";
import { bodyWith } from "./body.fixture";
import type { Segment, Vertex } from "./layers";
import type { DrawnNode } from "./nodes";
import { columnsOf, rowsOf } from "./rows";

const node = (id: string, columns: number, above: number, foot: number, overhang = 1): DrawnNode =>
  bodyWith(id, { columns, above, foot, overhang });
const vertex = (of: DrawnNode | null, layer: number, model = 0): Vertex => ({
  node: of,
  layer,
  above: of?.above ?? 0,
  foot: of?.foot ?? 0,
  model,
});
const join = (left: number, right: number, leftRow = 0, rightRow = 0): Segment => ({
  left,
  leftRow,
  right,
  rightRow,
});

/** Bodies of many sizes in layers, each fed by one of the layer before. */
function atRandom(seed: number) {
  const random = seeded(seed);
  const upTo = (most: number) => Math.floor(random() * most);
  const vertices: Vertex[] = [];
  const layers: number[][] = [];
  const segments: Segment[] = [];
  for (let layer = 0; layer < 5; layer++) {
    const own: number[] = [];
    for (let i = 0; i <= upTo(4); i++) {
      const passes = layer > 0 && layer < 4 && random() < 0.2;
      own.push(vertices.length);
      vertices.push(
        vertex(
          passes ? null : node(`n${vertices.length}`, 2 + upTo(6), 1 + upTo(3), 2 + upTo(4), upTo(3)),
          layer,
        ),
      );
    }
    const before = layers.at(-1);
    // In their order, so that none crosses another.
    own.forEach((one, i) => {
      if (before) segments.push(join(before[Math.min(before.length - 1, i)]!, one));
    });
    layers.push(own);
  }
  const rows = rowsOf(vertices, segments, layers);
  return { vertices, layers, segments, rows };
}

describe("rows", () => {
  test("keep the order of each layer, with room for every body, its name, and a line between", () => {
    for (let seed = 1; seed <= 60; seed++) {
      const { vertices, layers, rows } = atRandom(seed);
      for (const layer of layers)
        layer.slice(1).forEach((under, i) => {
          const over = layer[i]!;
          const free = rows[under]! - vertices[under]!.above - (rows[over]! + vertices[over]!.foot);
          expect(free).toBeGreaterThanOrEqual(1);
        });
    }
  });

  test("a chain is one straight line, its ports level however high each body's port stands", () => {
    const count = 8;
    const vertices = Array.from({ length: count }, (_, i) => vertex(node(`n${i}`, 4, 1 + (i % 3), 3), i));
    // Each is left by a port one row lower than the one that it is entered by.
    const segments = Array.from({ length: count - 1 }, (_, i) => join(i, i + 1, 1, 0));
    const layers = vertices.map((_, i) => [i]);
    const rows = rowsOf(vertices, segments, layers);
    for (const { left, leftRow, right, rightRow } of segments)
      expect(rows[left]! + leftRow).toBe(rows[right]! + rightRow);
  });

  test("of two chains side by side both are straight; a hose between them is not what bends them", () => {
    const count = 5;
    const vertices = Array.from({ length: 2 * count }, (_, i) =>
      vertex(node(`n${i}`, 4, 1, 3), Math.floor(i / 2)),
    );
    const layers = Array.from({ length: count }, (_, i) => [2 * i, 2 * i + 1]);
    const along = (i: number) => [join(2 * i, 2 * i + 2), join(2 * i + 1, 2 * i + 3)];
    const chains = Array.from({ length: count - 1 }, (_, i) => along(i)).flat();
    const rows = rowsOf(vertices, [...chains, join(2, 5)], layers);
    for (const { left, right } of chains) expect(rows[left]).toBe(rows[right]);
    expect(rows[1]! - rows[0]!).toBeGreaterThanOrEqual(1 + 3 + 2);
  });

  test("a hose that passes layers runs straight through them", () => {
    const vertices = [
      vertex(node("a", 4, 1, 3), 0),
      vertex(null, 1),
      vertex(null, 2),
      vertex(node("b", 4, 1, 3), 3),
      vertex(node("c", 4, 1, 3), 1),
    ];
    const rows = rowsOf(
      vertices,
      [join(0, 1), join(1, 2), join(2, 3), join(0, 4, 2)],
      [[0], [1, 4], [2], [3]],
    );
    expect(rows[1]).toBe(rows[2]);
    expect(rows[2]).toBe(rows[3]);
  });
});

describe("columns", () => {
  const meets = (a: DrawnNode, x: number, y: number, b: DrawnNode, otherX: number, otherY: number) =>
    x - a.overhang < otherX + b.columns + b.overhang &&
    otherX - b.overhang < x + a.columns + a.overhang &&
    y - a.above < otherY + b.foot &&
    otherY - b.above < y + a.foot;

  test("go on from layer to layer, and no body or name lies in another's, near or far apart", () => {
    for (let seed = 1; seed <= 60; seed++) {
      const { vertices, layers, segments, rows } = atRandom(seed);
      for (const apart of [1, 2]) {
        const columns = columnsOf(vertices, segments, layers, rows, apart);
        layers.slice(1).forEach((layer, i) => {
          const before = layers[i]!.filter((one) => vertices[one]!.node);
          const own = layer.filter((one) => vertices[one]!.node);
          for (const one of own)
            for (const other of before) expect(columns[one]!).toBeGreaterThan(columns[other]!);
        });
        vertices.forEach(({ node: one }, i) => {
          for (let k = 0; k < i; k++) {
            const other = vertices[k]!.node;
            if (!one || !other) continue;
            expect([seed, i, k, meets(one, columns[i]!, rows[i]!, other, columns[k]!, rows[k]!)]).toEqual([
              seed,
              i,
              k,
              false,
            ]);
          }
        });
      }
    }
  });

  test("names farther apart make a drawing no narrower", () => {
    for (let seed = 1; seed <= 30; seed++) {
      const { vertices, layers, segments, rows } = atRandom(seed);
      const widest = (apart: number) => Math.max(...columnsOf(vertices, segments, layers, rows, apart));
      expect(widest(2)).toBeGreaterThanOrEqual(widest(1));
    }
  });

  test("few bodies are spread over the sheet at even steps, many are not pushed together for it", () => {
    const line = (count: number) => {
      const vertices = Array.from({ length: count }, (_, i) => vertex(node(`n${i}`, 4, 1, 3, 0), i));
      const segments = Array.from({ length: count - 1 }, (_, i) => join(i, i + 1));
      const layers = vertices.map((_, i) => [i]);
      return columnsOf(vertices, segments, layers, rowsOf(vertices, segments, layers), 1);
    };
    const three = line(3);
    expect(three[1]! - three[0]!).toBe(three[2]! - three[1]!);
    expect(three[2]! + 4).toBe(66);
    const many = line(30);
    many.slice(1).forEach((x, i) => expect(x - many[i]!).toBeGreaterThanOrEqual(4 + 2));
    expect(many.at(-1)!).toBeGreaterThan(66);
  });

  test("a tank and an engine alone leave room for what is let in between", () => {
    const vertices = [vertex(node("t", 11, 1, 8), 0), vertex(node("e", 11, 1, 8), 1)];
    const columns = columnsOf(vertices, [join(0, 1)], [[0], [1]], [0, 0], 1);
    expect(columns[1]! - (columns[0]! + 11)).toBeGreaterThanOrEqual(7);
  });

  test("upright hoses in a gap each get a line of their own, up to five", () => {
    const gap = (count: number) => {
      const vertices = [
        ...Array.from({ length: count }, (_, i) => vertex(node(`a${i}`, 22, 1, 3, 0), 0)),
        ...Array.from({ length: count }, (_, i) => vertex(node(`b${i}`, 22, 1, 3, 0), 1)),
        ...Array.from({ length: count }, (_, i) => vertex(node(`c${i}`, 22, 1, 3, 0), 2)),
      ];
      const row = (letter: number) => Array.from({ length: count }, (_, i) => letter * count + i);
      const segments = row(0).flatMap((one, i) => [join(one, count + i), join(count + i, 2 * count + i)]);
      // All of the first gap go down a row, those of the second run level.
      const rows = vertices.map((_, i) => 8 * (i % count) + (i < count ? 0 : 1));
      const columns = columnsOf(vertices, segments, [row(0), row(1), row(2)], rows, 1);
      return columns[count]! - columns[0]! - (columns[2 * count]! - columns[count]!);
    };
    expect([1, 2, 4, 6, 9].map(gap)).toEqual([0, 1, 3, 5, 5]);
  });
});
