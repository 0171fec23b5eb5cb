/** Room that is made, by what it leaves: hoses with a clean way, what stood beyond moved on as one, the rest where it was. */
import { describe, expect, test } from "@jest/globals";
import type { Cell } from "../plan/types";
import { seeded } from "../random/seeded";
import { bodyWith } from "./body.fixture";
import { routed } from "./grid";
import type { DrawnNode } from "./nodes";
import { makeRoom } from "./widen";

const body = (id: string, ports = 1): DrawnNode =>
  bodyWith(id, {
    columns: 3,
    above: 1,
    foot: 2 * ports,
    ports: Array.from({ length: ports }, (_, i) => [
      { key: `${id}.w${i}`, side: "WEST" as const, row: 2 * i },
      { key: `${id}.e${i}`, side: "EAST" as const, row: 2 * i },
    ]).flat(),
  });
const faults = (
  nodes: DrawnNode[],
  places: Map<string, Cell>,
  hoses: { id: string; from: string; to: string }[],
) => [...routed(nodes, places, hoses).ways.values()].reduce((sum, way) => sum + way.faults, 0);

/** Two columns of bodies with many ports, their hoses each to another row, so near that not all pass between them. */
function tight(ports: number, apart: number) {
  const nodes = [body("a", ports), body("b", ports)];
  const places = new Map<string, Cell>([
    ["a", { x: 0, y: 4 }],
    ["b", { x: 3 + apart, y: 4 }],
  ]);
  const hoses = Array.from({ length: ports }, (_, i) => ({
    id: `h${i}`,
    from: `a.e${i}`,
    to: `b.w${ports - 1 - i}`,
  }));
  return { nodes, places, hoses };
}

describe("room", () => {
  test("is made between two bodies for hoses that do not pass, and no more than they need", () => {
    const { nodes, places, hoses } = tight(4, 3);
    expect(faults(nodes, places, hoses)).toBeGreaterThan(0);
    const before = new Map(places);
    makeRoom(nodes, places, hoses);
    expect(faults(nodes, places, hoses)).toBe(0);
    expect(places.get("a")).toEqual(before.get("a"));
    const moved = places.get("b")!.x - before.get("b")!.x;
    expect(moved).toBeGreaterThan(0);
    // By steps of two lines: one step less would not have done.
    const less = new Map(places).set("b", { ...places.get("b")!, x: places.get("b")!.x - 2 });
    expect(faults(nodes, less, hoses)).toBeGreaterThan(0);
  });

  test("is not made where every hose has a clean way: nothing moves", () => {
    const { nodes, places, hoses } = tight(3, 20);
    const before = new Map(places);
    expect(faults(nodes, places, hoses)).toBe(0);
    makeRoom(nodes, places, hoses);
    expect(places).toEqual(before);
  });

  test("what stands beyond is moved on as one: no distance among it changes, and nothing goes back", () => {
    const random = seeded(11);
    for (let round = 0; round < 12; round++) {
      const { nodes, places, hoses } = tight(3 + (round % 3), 3);
      for (let i = 0; i < 4; i++) {
        const one = body(`o${i}`);
        nodes.push(one);
        places.set(one.id, { x: 14 + Math.floor(30 * random()), y: 30 + 8 * i });
      }
      const before = new Map(places);
      makeRoom(nodes, places, hoses);
      expect(faults(nodes, places, hoses)).toBe(0);
      const moves = [...places].map(([id, { x, y }]) => ({
        x: x - before.get(id)!.x,
        y: y - before.get(id)!.y,
      }));
      expect(moves.every(({ x, y }) => x >= 0 && y >= 0)).toBe(true);
      // All that stood right of the second body went as far as it did.
      const far = moves[1]!.x;
      for (const [id, { x }] of before) if (x >= before.get("b")!.x) expect(places.get(id)!.x - x).toBe(far);
    }
  });
});
