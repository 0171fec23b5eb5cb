/**
 * Layers and their order held against what is found without any method: the longest way by walking all of them, and the
 * fewest crossings by trying every order of every layer.
 */
import { describe, expect, test } from "@jest/globals";
import { seeded } from "../random/seeded";
import { bodyWith } from "./body.fixture";
import { type Laid, laidOut } from "./layers";
import type { DrawnHose, DrawnNode, Side } from "./nodes";

const node = (id: string, kind: DrawnNode["kind"], west: number, east: number): DrawnNode => {
  const on = (side: Side, count: number) =>
    Array.from({ length: count }, (_, i) => ({ key: `${id}.${side}${i}`, side, row: i }));
  return bodyWith(id, {
    kind,
    columns: 3,
    above: 0,
    foot: Math.max(west, east, 1),
    ports: [...on("WEST", west), ...on("EAST", east)],
  });
};

/** Tanks, parts in between and an engine, each joined from left to right; the hoses as pairs of ids. */
function drawn(pairs: readonly (readonly [string, string])[]) {
  const ids = [...new Set(pairs.flat())];
  const [outs, ins] = [new Map<string, number>(), new Map<string, number>()];
  const hoses: DrawnHose[] = pairs.map(([from, to], i) => {
    const [out, into] = [outs.get(from) ?? 0, ins.get(to) ?? 0];
    outs.set(from, out + 1);
    ins.set(to, into + 1);
    return { id: `h${i}`, from: `${from}.EAST${out}`, to: `${to}.WEST${into}` };
  });
  const kindOf = (id: string): DrawnNode["kind"] =>
    id.startsWith("t") ? "tank" : id.startsWith("e") ? "engine" : "tee";
  const nodes = ids.map((id) => node(id, kindOf(id), ins.get(id) ?? 0, outs.get(id) ?? 0));
  const forward = new Map(hoses.map(({ id }) => [id, true]));
  return { nodes, hoses, pairs, oriented: { forward, returnOnly: new Set<string>() } };
}
const laid = (of: ReturnType<typeof drawn>) => laidOut(of.nodes, of.hoses, of.oriented);
const layerOf = ({ vertices }: Laid, id: string) => vertices.find(({ node: one }) => one?.id === id)?.layer;

/** Crossings of a layered drawing by the places in its layers, the rows of ports under those. */
function crossings({ vertices, segments }: Laid, layers: readonly (readonly number[])[]): number {
  const place = new Map(layers.flatMap((layer) => layer.map((vertex, i) => [vertex, 100 * i] as const)));
  const ends = segments.map(({ left, leftRow, right, rightRow }) => ({
    gap: vertices[left]!.layer,
    from: place.get(left)! + leftRow,
    to: place.get(right)! + rightRow,
  }));
  let sum = 0;
  ends.forEach((a, i) => {
    for (const b of ends.slice(0, i)) if (a.gap === b.gap && (a.from - b.from) * (a.to - b.to) < 0) sum += 1;
  });
  return sum;
}

const orders = <T>(items: readonly T[]): T[][] =>
  items.length < 2
    ? [[...items]]
    : items.flatMap((one, i) => orders(items.filter((_, k) => k !== i)).map((rest) => [one, ...rest]));

/** The fewest that any order of any layer has, with the ports as they stand. */
function fewest(of: Laid): number {
  let least = Infinity;
  const go = (at: number, chosen: number[][]) => {
    if (at === of.layers.length) {
      least = Math.min(least, crossings(of, chosen));
      return;
    }
    for (const order of orders(of.layers[at]!)) go(at + 1, [...chosen, order]);
  };
  go(0, []);
  return least;
}

/** Hoses between neighbouring layers at random: every part is fed and feeds on. */
function atRandom(seed: number) {
  const random = seeded(seed);
  const pick = (from: readonly string[]) => from[Math.floor(random() * from.length)]!;
  const row = (letter: string, count: number) => Array.from({ length: count }, (_, i) => `${letter}${i}`);
  const layers = [row("t", 2), row("a", 3), row("b", 3), row("e", 2)];
  const pairs = new Map<string, [string, string]>();
  const add = (from: string, to: string) => pairs.set(`${from} ${to}`, [from, to]);
  layers.slice(1).forEach((layer, i) => {
    for (const one of layer) add(pick(layers[i]!), one);
    for (const one of layers[i]!) add(one, pick(layer));
  });
  return drawn([...pairs.values()]);
}

describe("layers", () => {
  test("tanks stand first, consumers last, and every hose leads on to the right", () => {
    for (let seed = 1; seed <= 40; seed++) {
      const of = atRandom(seed);
      const [best] = laid(of);
      const last = Math.max(...best!.vertices.map(({ layer }) => layer));
      for (const [from, to] of of.pairs) expect(layerOf(best!, to)!).toBeGreaterThan(layerOf(best!, from)!);
      for (const { id } of of.nodes) {
        if (id.startsWith("t")) expect(layerOf(best!, id)).toBe(0);
        if (id.startsWith("e")) expect(layerOf(best!, id)).toBe(last);
      }
    }
  });

  test("a part stands as many layers from the tanks as the longest way there has hoses", () => {
    const of = drawn([
      ["t0", "a"],
      ["a", "b"],
      ["b", "c"],
      ["t0", "c"],
      ["a", "c"],
      ["c", "e0"],
    ]);
    const [best] = laid(of);
    const longest = (id: string): number =>
      Math.max(0, ...of.pairs.filter(([, to]) => to === id).map(([from]) => 1 + longest(from)));
    for (const { id } of of.nodes) expect([id, layerOf(best!, id)]).toEqual([id, longest(id)]);
    // The hose from the tank to the third passes two layers, and has a place in each.
    expect(best!.vertices.filter(({ node: one }) => one === null)).toHaveLength(2 + 1);
  });

  test("a ring is cut where it comes back to itself, and nothing is lost", () => {
    const of = drawn([
      ["t0", "a"],
      ["a", "b"],
      ["b", "c"],
      ["c", "a"],
      ["c", "e0"],
    ]);
    const [best] = laid(of);
    const own = best!.vertices.filter(({ node: one }) => one !== null);
    expect(own.map(({ node: one }) => one!.id).sort()).toEqual(["a", "b", "c", "e0", "t0"]);
    expect(layerOf(best!, "b")!).toBeGreaterThan(layerOf(best!, "a")!);
    expect(layerOf(best!, "c")!).toBeGreaterThan(layerOf(best!, "b")!);
  });

  test("what leads nowhere back to a tank stands right before what it leads to", () => {
    const of = drawn([
      ["t0", "a"],
      ["a", "b"],
      ["b", "c"],
      ["c", "e0"],
      ["x", "c"],
    ]);
    const [best] = laid(of);
    expect(layerOf(best!, "x")).toBe(layerOf(best!, "c")! - 1);
  });
});

describe("the order of a layer", () => {
  test("each node stands once in its layer, whatever was exchanged", () => {
    for (let seed = 1; seed <= 40; seed++)
      for (const one of laid(atRandom(seed))) {
        const all = one.layers.flat();
        expect([...all].sort((a, b) => a - b)).toEqual(one.vertices.map((_, i) => i));
        one.layers.forEach((layer, i) => {
          for (const vertex of layer) expect(one.vertices[vertex]!.layer).toBe(i);
        });
      }
  });

  test("has as many crossings as it says: counted by every pair of hoses", () => {
    for (let seed = 1; seed <= 40; seed++)
      for (const one of laid(atRandom(seed))) expect(Math.floor(one.cost)).toBe(crossings(one, one.layers));
  });

  test("has in nearly all plans the fewest that any order has, tried one by one; in sum a tenth more at most", () => {
    let [found, least, met] = [0, 0, 0];
    const count = 30;
    for (let seed = 1; seed <= count; seed++) {
      const [best] = laid(atRandom(seed));
      const [own, any] = [crossings(best!, best!.layers), fewest(best!)];
      expect(own).toBeGreaterThanOrEqual(any);
      found += own;
      least += any;
      if (own === any) met += 1;
    }
    expect(least).toBeGreaterThan(0);
    expect(found).toBeLessThanOrEqual(1.1 * least);
    expect(met / count).toBeGreaterThanOrEqual(0.9);
  });

  test("ports of a selector turn to what they lead to, so that two hoses that need not cross do not", () => {
    const of = drawn([
      ["t0", "a"],
      ["t1", "a"],
      ["a", "b"],
      ["a", "c"],
      ["b", "e0"],
      ["c", "e0"],
    ]);
    const crossed = { ...of, hoses: of.hoses.map((hose) => ({ ...hose })) };
    // The first tank at the lower port, the second at the upper one.
    [crossed.hoses[0]!.to, crossed.hoses[1]!.to] = [crossed.hoses[1]!.to, crossed.hoses[0]!.to];
    const [best] = laid(crossed);
    expect(crossings(best!, best!.layers)).toBe(0);
  });

  test("drawings come best first, and no two are alike", () => {
    for (let seed = 1; seed <= 20; seed++) {
      const all = laid(atRandom(seed));
      expect(all.map(({ cost }) => cost)).toEqual(all.map(({ cost }) => cost).sort((a, b) => a - b));
      const said = all.map(({ layers, nodes }) => JSON.stringify([layers, nodes.map(({ ports }) => ports)]));
      expect(new Set(said).size).toBe(said.length);
    }
  });
});
