/**
 * Ways over the grid held against a search that knows nothing of it: Dijkstra's (1959) over the same points, every
 * state looked at, without an estimate and without a heap.
 */
import { describe, expect, test } from "@jest/globals";
import type { Cell } from "../plan/types";
import { seeded } from "../random/seeded";
import { bodyWith } from "./body.fixture";
import { Grid, priceOf, routed } from "./grid";
import { type DrawnNode, meet } from "./nodes";

/** A body of so many columns and rows with a port on each side. */
const body = (id: string, columns: number, rows: number): DrawnNode =>
  bodyWith(id, {
    columns,
    foot: rows - 1,
    ports: [
      { key: `${id}.in`, side: "WEST", row: 0 },
      { key: `${id}.out`, side: "EAST", row: 0 },
    ],
  });
const hose = (from: string, to: string, id = `${from}-${to}`) => ({
  id,
  from: `${from}.out`,
  to: `${to}.in`,
});
const MARGIN = 8;

/** The least of steps and five a bend from one body's outlet to another's inlet, with nothing else laid. */
function leastCost(
  nodes: readonly DrawnNode[],
  places: ReadonlyMap<string, Cell>,
  from: string,
  to: string,
): number {
  const at = (id: string) => places.get(id)!;
  const node = (id: string) => nodes.find((one) => one.id === id)!;
  const solid = (x: number, y: number) =>
    nodes.some((one) => {
      const { x: left, y: row } = at(one.id);
      return x >= left && x <= left + one.columns && y >= row - one.above && y <= row + one.below;
    });
  const all = nodes.map((one) => ({ one, place: at(one.id) }));
  const [left, right] = [
    Math.min(0, ...all.map(({ place }) => place.x)) - MARGIN,
    Math.max(...all.map(({ one, place }) => place.x + one.columns)) + MARGIN,
  ];
  const [top, bottom] = [
    Math.min(0, ...all.map(({ one, place }) => place.y - one.above)) - MARGIN,
    Math.max(...all.map(({ one, place }) => place.y + one.foot)) + MARGIN,
  ];
  const goal = at(to);
  const start = { x: at(from).x + node(from).columns, y: at(from).y };
  const steps = [
    [1, 0],
    [0, 1],
    [-1, 0],
    [0, -1],
  ] as const;
  const open = new Map<string, number>([[`${start.x + 1},${start.y},0`, 1]]);
  const shut = new Set<string>();
  while (open.size > 0) {
    const [key, cost] = [...open].reduce((a, b) => (b[1] < a[1] ? b : a));
    open.delete(key);
    shut.add(key);
    const [x, y, dir] = key.split(",").map(Number) as [number, number, number];
    // Into the inlet, on the west, from the west.
    if (x === goal.x && y === goal.y) {
      if (dir === 0) return cost;
      continue;
    }
    if (x <= left || x >= right || y <= top || y >= bottom || solid(x, y)) continue;
    for (const turn of [0, 1, 3]) {
      const next = (dir + turn) % 4;
      const [dx, dy] = steps[next]!;
      const to = `${x + dx},${y + dy},${next}`;
      const price = cost + 1 + (turn === 0 ? 0 : 5);
      if (!shut.has(to) && price < (open.get(to) ?? Infinity)) open.set(to, price);
    }
  }
  return Infinity;
}

describe("a hose by itself", () => {
  test("takes a way as cheap as any, past two hundred bodies at random", () => {
    let looked = 0;
    for (let seed = 0; seed < 25; seed++) {
      const random = seeded(400 + seed);
      const between = (low: number, high: number) => low + Math.floor(random() * (high - low));
      const nodes: DrawnNode[] = [];
      const places = new Map<string, Cell>();
      for (let i = 0; i < 8; i++) {
        const one = body(`b${i}`, between(2, 6), between(2, 6));
        const place = { x: between(0, 40), y: between(0, 26) };
        if (nodes.some((other) => meet(one, place, other, places.get(other.id)!))) continue;
        nodes.push(one);
        places.set(one.id, place);
      }
      const [a, b] = [nodes[0]!, nodes.at(-1)!];
      if (a === b) continue;
      const grid = new Grid(nodes, places);
      const way = grid.find(hose(a.id, b.id));
      const least = leastCost(nodes, places, a.id, b.id);
      looked += 1;
      // By the estimate it may be dearer by two in a hundred, and beside a foreign port it keeps away.
      expect(way.faults).toBe(0);
      expect(way.length + 5 * way.bends).toBeGreaterThanOrEqual(least);
      expect(way.length + 5 * way.bends).toBeLessThanOrEqual(1.02 * least + 6);
    }
    expect(looked).toBeGreaterThan(20);
  });

  test("is straight where its ports face one another, and turns twice where they do not", () => {
    const nodes = [body("a", 3, 3), body("b", 3, 3), body("c", 3, 3)];
    const places = new Map([
      ["a", { x: 0, y: 5 }],
      ["b", { x: 12, y: 5 }],
      ["c", { x: 24, y: 11 }],
    ]);
    const { ways } = routed(nodes, places, [hose("a", "b"), hose("b", "c")]);
    expect(ways.get("a-b")).toMatchObject({ bends: 0, length: 9, faults: 0 });
    expect(ways.get("b-c")).toMatchObject({ bends: 2, length: 9 + 6, faults: 0 });
  });
});

describe("hoses together", () => {
  test("what is laid and taken off again leaves nothing behind", () => {
    const nodes = [body("a", 3, 3), body("b", 3, 3)];
    const places = new Map([
      ["a", { x: 0, y: 5 }],
      ["b", { x: 12, y: 9 }],
    ]);
    const grid = new Grid(nodes, places);
    const first = grid.find(hose("a", "b"));
    grid.lay(first);
    expect(grid.find(hose("a", "b", "again"))).not.toEqual(first);
    grid.lay(first, -1);
    expect(grid.find(hose("a", "b"))).toEqual(first);
    expect(grid.crossings()).toBe(0);
  });

  test("two that must cross do so once, and it is priced", () => {
    const nodes = [body("a", 3, 3), body("b", 3, 3), body("c", 3, 3), body("d", 3, 3)];
    const places = new Map([
      ["a", { x: 0, y: 4 }],
      ["b", { x: 0, y: 14 }],
      ["c", { x: 30, y: 4 }],
      ["d", { x: 30, y: 14 }],
    ]);
    const crossed = routed(nodes, places, [hose("a", "d"), hose("b", "c")]);
    const plain = routed(nodes, places, [hose("a", "c"), hose("b", "d")]);
    expect([crossed.grid.crossings(), plain.grid.crossings()]).toEqual([1, 0]);
    expect(priceOf(crossed)).toBeGreaterThan(priceOf(plain) + 60);
  });

  test("what did not change is not routed again; what moved, grew or was joined otherwise is", () => {
    const nodes = [body("a", 3, 3), body("b", 3, 3), body("c", 3, 3)];
    const places = new Map([
      ["a", { x: 0, y: 4 }],
      ["b", { x: 30, y: 4 }],
      ["c", { x: 30, y: 14 }],
    ]);
    const first = routed(nodes, places, [hose("a", "b", "h")]);
    expect(routed(structuredClone(nodes), new Map(places), [hose("a", "b", "h")])).toBe(first);
    const level = first.ways.get("h")!.points!;
    const moved = routed(nodes, new Map(places).set("b", { x: 30, y: 9 }), [hose("a", "b", "h")]);
    expect(moved.ways.get("h")!.points!.at(-1)).toEqual({ x: 30, y: 9 });
    const otherwise = routed(nodes, places, [hose("a", "c", "h")]);
    expect(otherwise.ways.get("h")!.points!.at(-1)).toEqual({ x: 30, y: 14 });
    const wide = [body("a", 6, 3), ...nodes.slice(1)];
    expect(routed(wide, places, [hose("a", "b", "h")]).ways.get("h")!.points![0]).toEqual({ x: 6, y: 4 });
    // However much was routed meanwhile, the first is found as it was.
    for (let x = 31; x < 40; x++) routed(nodes, new Map(places).set("b", { x, y: 4 }), [hose("a", "b", "h")]);
    expect(routed(nodes, places, [hose("a", "b", "h")]).ways.get("h")!.points).toEqual(level);
  });

  test("of two that cross the one laid first is laid once more, round the other where that is cheaper", () => {
    const nodes = [body("a", 3, 3), body("b", 3, 3), body("c", 3, 3), body("d", 3, 3)];
    const places = new Map([
      ["a", { x: 0, y: 4 }],
      ["b", { x: 40, y: 4 }],
      ["c", { x: 12, y: 4 }],
      ["d", { x: 26, y: 4 }],
    ]);
    const both = [hose("a", "b", "long"), hose("c", "d", "short")];
    const { ways, grid } = routed(nodes, places, both);
    expect(grid.crossings()).toBe(0);
    expect(ways.get("short")!.bends).toBe(0);
    expect(ways.get("long")!.faults).toBe(0);
    expect(grid.isCrossed(ways.get("short")!)).toBe(false);
    expect(grid.isCrossed(ways.get("long")!)).toBe(false);
    const crossed = routed(nodes.slice(0, 2), places, [hose("a", "b", "level")]);
    const over = {
      points: [
        { x: 20, y: 0 },
        { x: 20, y: 9 },
      ],
      length: 9,
      bends: 0,
      faults: 0,
    };
    crossed.grid.lay(over);
    expect(crossed.grid.isCrossed(crossed.ways.get("level")!)).toBe(true);
    crossed.grid.lay(over, -1);
  });

  test("two ports of one tee are joined by a ring beside it, in the corner that is free", () => {
    const tee: DrawnNode = {
      ...body("t", 0, 0),
      kind: "tee",
      above: 0,
      below: 0,
      foot: 0,
      ports: ["in", "out", "third"].map((port) => ({ key: `t.${port}`, side: "WEST" as const, row: 0 })),
    };
    const places = new Map([
      ["t", { x: 4, y: 4 }],
      ["b", { x: 8, y: 4 }],
      ["c", { x: -4, y: 1 }],
    ]);
    const nodes = [tee, body("b", 3, 3), body("c", 3, 3)];
    const ring = hose("t", "t");
    for (const third of ["b", "c"]) {
      const grid = new Grid(nodes, places);
      const other = grid.find({ id: "o", from: "t.third", to: third === "b" ? "b.in" : "c.out" });
      grid.lay(other);
      const way = grid.find(ring);
      expect(way.points?.[0]).toEqual(way.points?.at(-1));
      expect(way.faults).toBe(0);
      const beside = other.points![1]!;
      // It lies on no line that the other hose leaves the tee by.
      const [dx, dy] = [Math.sign(beside.x - 4), Math.sign(beside.y - 4)];
      for (const { x, y } of way.points!.slice(1, -1)) expect([x - 4, y - 4]).not.toEqual([dx, dy]);
    }
    // With every side of the tee taken it says that it lies on something.
    const full = new Grid(nodes, places);
    for (const [dx, dy] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
    ] as const) {
      const points = [
        { x: 4, y: 4 },
        { x: 4 + dx, y: 4 + dy },
      ];
      full.lay({ points, length: 1, bends: 0, faults: 0 });
    }
    expect(full.find(ring).faults).toBeGreaterThan(0);
  });
});
