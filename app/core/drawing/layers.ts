/**
 * Layers of a drawing from nothing, from the tanks to the consumers, in each an order with few crossings (after
 * Sugiyama, Tagawa and Toda 1981).
 */
import { type DrawnHose, type DrawnNode, isLast, isTank, ownerOf } from "./nodes";
import type { Oriented } from "./orient";

/** A node of a layer, or the place where a long hose passes it. */
export interface Vertex {
  node: DrawnNode | null;
  layer: number;
  above: number;
  foot: number;
  /** Place by the list of the plan: supply over return. */
  model: number;
}

/** Part of a hose between two layers, by the rows of its ports under those of its vertices. */
export interface Segment {
  left: number;
  leftRow: number;
  right: number;
  rightRow: number;
}

interface Edge {
  left: number;
  leftRow: number;
  right: number;
  rightRow: number;
}

/** Layers by the longest way from the tanks; what hangs before something stands right before it. */
function layersOf(nodes: readonly DrawnNode[], edges: readonly Edge[]): number[] {
  const out: number[][] = nodes.map(() => []);
  for (const { left, right } of edges) out[left]?.push(right);
  // Rings are cut where a walk from the tanks comes back.
  const state = new Uint8Array(nodes.length);
  const order: number[] = [];
  const kept: number[][] = nodes.map(() => []);
  const visit = (start: number) => {
    const stack: [number, number][] = [[start, 0]];
    state[start] = 1;
    while (stack.length > 0) {
      const top = stack.at(-1) as [number, number];
      const next = (out[top[0]] as number[])[top[1]++];
      if (next === undefined) {
        state[top[0]] = 2;
        order.push(top[0]);
        stack.pop();
      } else if (state[next] !== 1) {
        kept[top[0]]?.push(next);
        if (state[next] === 0) {
          state[next] = 1;
          stack.push([next, 0]);
        }
      }
    }
  };
  const tanksFirst = nodes
    .map((node, i) => [isTank(node) ? 0 : 1, i] as const)
    .sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  for (const [, i] of tanksFirst) if (state[i] === 0) visit(i);
  const layer: number[] = nodes.map((node) => (isTank(node) ? 0 : 1));
  order.reverse();
  for (const i of order)
    for (const next of kept[i] as number[])
      layer[next] = Math.max(layer[next] as number, (layer[i] as number) + 1);
  const last = Math.max(1, ...layer);
  nodes.forEach((node, i) => {
    if (isLast(node)) layer[i] = last;
  });
  const comesFrom = new Set(kept.flat());
  for (const i of [...order].reverse()) {
    const node = nodes[i] as DrawnNode;
    if (isTank(node) || isLast(node) || comesFrom.has(i) || kept[i]?.length === 0) continue;
    layer[i] = Math.max(1, Math.min(...(kept[i] as number[]).map((next) => layer[next] as number)) - 1);
  }
  return layer;
}

/** Vertices and segments with a vertex in each layer that a hose passes. */
function stretched(nodes: readonly DrawnNode[], edges: readonly Edge[], { returnOnly }: Oriented) {
  const layer = layersOf(nodes, edges);
  const vertices: Vertex[] = nodes.map((node, i) => ({
    node,
    layer: layer[i] as number,
    above: node.above,
    foot: node.foot,
    model: i + (returnOnly.has(node.id) ? nodes.length : 0),
  }));
  const segments: Segment[] = [];
  for (const edge of edges) {
    const [from, to] = [layer[edge.left] as number, layer[edge.right] as number];
    // One that runs back is left to find its way.
    if (to <= from) continue;
    let [left, leftRow] = [edge.left, edge.leftRow];
    for (let at = from + 1; at < to; at++) {
      const passing = vertices.length;
      vertices.push({ node: null, layer: at, above: 0, foot: 0, model: vertices[edge.left]?.model ?? 0 });
      segments.push({ left, leftRow, right: passing, rightRow: 0 });
      [left, leftRow] = [passing, 0];
    }
    segments.push({ left, leftRow, right: edge.right, rightRow: edge.rightRow });
  }
  return { vertices, segments };
}

interface Start {
  isUpsideDown: boolean;
  isFromRight: boolean;
}
const starts: readonly Start[] = [false, true].flatMap((isUpsideDown) =>
  [false, true].map((isFromRight) => ({ isUpsideDown, isFromRight })),
);
const ROUNDS = 8;
/** Against a crossing. */
const UPSET = 0.04;

/** The order of each layer from top to bottom: barycentres to and fro, then neighbours exchanged, by crossings. */
function ordered(
  vertices: readonly Vertex[],
  segments: readonly Segment[],
  start: Start,
): { layers: number[][]; cost: number } {
  const count = Math.max(0, ...vertices.map(({ layer }) => layer + 1));
  const into: Segment[][] = vertices.map(() => []);
  const outOf: Segment[][] = vertices.map(() => []);
  for (const one of segments) {
    outOf[one.left]?.push(one);
    into[one.right]?.push(one);
  }
  const layers: number[][] = Array.from({ length: count }, (_, at) =>
    vertices
      .flatMap((vertex, i) => (vertex.layer === at ? [i] : []))
      .sort(
        (a, b) => (start.isUpsideDown ? -1 : 1) * ((vertices[a]?.model ?? 0) - (vertices[b]?.model ?? 0)),
      ),
  );
  const place = new Float64Array(vertices.length);
  const settle = (layer: readonly number[]) => layer.forEach((vertex, i) => (place[vertex] = i * 1000));
  layers.forEach(settle);
  const crossings = (): number => {
    let sum = 0;
    const byGap = new Map<number, Segment[]>();
    for (const one of segments) {
      const gap = vertices[one.left]?.layer ?? 0;
      byGap.set(gap, [...(byGap.get(gap) ?? []), one]);
    }
    for (const gap of byGap.values())
      for (let i = 0; i < gap.length; i++)
        for (let k = 0; k < i; k++) if (cross(gap[i] as Segment, gap[k] as Segment)) sum += 1;
    return sum;
  };
  const cross = (a: Segment, b: Segment): boolean => {
    const left = (place[a.left] as number) + a.leftRow - (place[b.left] as number) - b.leftRow;
    const right = (place[a.right] as number) + a.rightRow - (place[b.right] as number) - b.rightRow;
    return left * right < 0;
  };
  const centre = (vertex: number, isRightward: boolean): number | null => {
    const near = isRightward ? (into[vertex] as Segment[]) : (outOf[vertex] as Segment[]);
    if (near.length === 0) return null;
    const sum = near.reduce(
      (total, one) =>
        total +
        (isRightward
          ? (place[one.left] as number) + one.leftRow
          : (place[one.right] as number) + one.rightRow) -
        (isRightward ? one.rightRow : one.leftRow) * 1e-3,
      0,
    );
    return sum / near.length;
  };
  const sweep = (isRightward: boolean) => {
    const at = layers.map((_, i) => i);
    for (const i of isRightward ? at.slice(1) : at.reverse().slice(1)) {
      const layer = layers[i] as number[];
      const wish = new Map(layer.map((vertex) => [vertex, centre(vertex, isRightward) ?? place[vertex]]));
      layer.sort((a, b) => (wish.get(a) as number) - (wish.get(b) as number));
      settle(layer);
    }
  };
  const exchange = () => {
    for (const layer of layers) {
      for (let i = 1; i < layer.length; i++) {
        const [a, b] = [layer[i - 1], layer[i]] as [number, number];
        const between = (): number => {
          let sum = 0;
          for (const near of [into, outOf])
            for (const one of near[a] as Segment[])
              for (const other of near[b] as Segment[]) if (cross(one, other)) sum += 1;
          return sum;
        };
        const before = between();
        if (before === 0) continue;
        [place[a], place[b]] = [place[b] as number, place[a] as number];
        if (between() < before) {
          layer[i - 1] = b;
          layer[i] = a;
        } else [place[a], place[b]] = [place[b] as number, place[a] as number];
      }
    }
  };
  /** Return over supply, and tanks out of their order. */
  const upsets = () =>
    layers.reduce(
      (sum, layer) =>
        sum +
        layer.filter((vertex, i) => {
          const before = layer[i - 1];
          return before !== undefined && (vertices[before]?.model ?? 0) > (vertices[vertex]?.model ?? 0);
        }).length,
      0,
    );
  const state = () => ({ layers: layers.map((layer) => [...layer]), cost: crossings() + UPSET * upsets() });
  let best = state();
  for (let round = 0; round < ROUNDS && best.cost >= 1; round++) {
    sweep((round % 2 === 0) !== start.isFromRight);
    exchange();
    exchange();
    const now = state();
    if (now.cost < best.cost) best = now;
  }
  return best;
}

/** May its ports change places on their side? A tank's and an engine's are where they are. */
const isFree = (node: DrawnNode) => !isTank(node) && !isLast(node) && node.ports.length > 2;

/** A node with the ports of each side in the order of what they lead to. */
function portsTurned(node: DrawnNode, towards: ReadonlyMap<string, number>): DrawnNode {
  const bySide = (["WEST", "EAST"] as const).flatMap((side) => {
    const own = node.ports.filter((port) => port.side === side);
    const rows = own.map(({ row }) => row).sort((a, b) => a - b);
    const at = (key: string) => towards.get(key) ?? Infinity;
    const order = [...own].sort((a, b) => (at(a.key) === at(b.key) ? a.row - b.row : at(a.key) - at(b.key)));
    return order.map((port, i) => ({ ...port, row: rows[i] as number }));
  });
  return { ...node, ports: bySide };
}

export interface Laid {
  nodes: readonly DrawnNode[];
  vertices: Vertex[];
  segments: Segment[];
  layers: number[][];
  cost: number;
}

/** So many drawings of the least crossings are really routed, and the best of them taken. */
const TRIED = 4;

/** Layers in their best orders, with the ports of selectors and manifolds turned to what they lead to; the best first. */
export function laidOut(
  nodes: readonly DrawnNode[],
  hoses: readonly DrawnHose[],
  oriented: Oriented,
): Laid[] {
  const index = new Map(nodes.map(({ id }, i) => [id, i]));
  const found = new Map<string, Laid>();
  let now = nodes;
  for (let round = 0; round < 3; round++) {
    const rowOf = new Map(now.flatMap(({ ports }) => ports.map(({ key, row }) => [key, row])));
    const edges = hoses.flatMap(({ id, from, to }): Edge[] => {
      const [a, b] = oriented.forward.get(id) ? [from, to] : [to, from];
      const [left, right] = [index.get(ownerOf(a)), index.get(ownerOf(b))];
      if (left === undefined || right === undefined || left === right) return [];
      if (isTank(now[right] as DrawnNode)) return [];
      return [{ left, right, leftRow: rowOf.get(a) ?? 0, rightRow: rowOf.get(b) ?? 0 }];
    });
    const { vertices, segments } = stretched(now, edges, oriented);
    const ports = now.map((node) => node.ports.map(({ row }) => row));
    for (const start of starts) {
      const { layers, cost } = ordered(vertices, segments, start);
      found.set(JSON.stringify([layers, ports]), { nodes: now, vertices, segments, layers, cost });
    }
    const best = [...found.values()].reduce((a, b) => (b.cost < a.cost ? b : a));
    if (best.cost < 1) break;
    now = turned(best);
  }
  return [...found.values()].sort((a, b) => a.cost - b.cost).slice(0, TRIED);
}

/** The nodes of an order with their ports turned by it. */
function turned({ nodes, segments, layers }: Laid): DrawnNode[] {
  const place = new Map(layers.flatMap((layer) => layer.map((vertex, i) => [vertex, i])));
  const bySide = new Map<string, number>();
  for (const { left, leftRow, right, rightRow } of segments) {
    bySide.set(`${left} EAST ${leftRow}`, (place.get(right) ?? 0) * 1000 + rightRow);
    bySide.set(`${right} WEST ${rightRow}`, (place.get(left) ?? 0) * 1000 + leftRow);
  }
  return nodes.map((node, i) => {
    if (!isFree(node)) return node;
    const towards = node.ports.flatMap(({ key, side, row }): [string, number][] => {
      const at = bySide.get(`${i} ${side} ${row}`);
      return at === undefined ? [] : [[key, at]];
    });
    return portsTurned(node, new Map(towards));
  });
}
