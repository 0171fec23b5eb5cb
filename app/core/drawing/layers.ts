/**
 * A drawing from nothing: layers from the tanks to the consumers, in each an order with few crossings, chains straight
 * (after Sugiyama, Tagawa and Toda 1981, and Brandes and Koepf 2002, on whole cells).
 */
import type { Id } from "../kinds/record";
import type { Cell } from "../plan/types";
import { priceOf, routed } from "./grid";
import { type DrawnHose, type DrawnNode, isLast, isTank, ownerOf } from "./nodes";
import type { Oriented } from "./orient";

/** A node of a layer, or the place where a long hose passes it. */
interface Vertex {
  node: DrawnNode | null;
  layer: number;
  above: number;
  foot: number;
  /** Place by the list of the plan: supply over return. */
  model: number;
}

/** Part of a hose between two layers, by the rows of its ports under those of its vertices. */
interface Segment {
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

const apartRows = (a: Vertex, b: Vertex) => (a.node && b.node ? 2 : a.node || b.node ? 2 : 1);

/** Rows: what can be straight is one block; blocks are packed, then drawn to where their hoses come from. */
function rowsOf(
  vertices: readonly Vertex[],
  segments: readonly Segment[],
  layers: readonly number[][],
): number[] {
  const place = new Int32Array(vertices.length);
  for (const layer of layers) layer.forEach((vertex, i) => (place[vertex] = i));
  const count = (side: "left" | "right") => {
    const sum = new Int32Array(vertices.length);
    for (const one of segments) sum[one[side]] = (sum[one[side]] as number) + 1;
    return sum;
  };
  const [outs, ins] = [count("left"), count("right")];
  const rank = (one: Segment) => {
    const isPassing = !vertices[one.left]?.node && !vertices[one.right]?.node;
    return isPassing ? 0 : outs[one.left] === 1 && ins[one.right] === 1 ? 1 : 2;
  };
  const block = vertices.map((_, i) => i);
  /** Of a vertex under its block's row. */
  const off = new Int32Array(vertices.length);
  const members = vertices.map((_, i) => [i]);
  const alignedRight = new Set<number>();
  const alignedLeft = new Set<number>();
  const accepted = new Map<number, Segment[]>();
  for (const one of [...segments].sort((a, b) => rank(a) - rank(b))) {
    if (alignedRight.has(one.left) || alignedLeft.has(one.right)) continue;
    const gap = vertices[one.left]?.layer ?? 0;
    const others = accepted.get(gap) ?? [];
    const crosses = others.some(
      (other) =>
        ((place[one.left] as number) - (place[other.left] as number)) *
          ((place[one.right] as number) - (place[other.right] as number)) <
        0,
    );
    if (crosses) continue;
    alignedRight.add(one.left);
    alignedLeft.add(one.right);
    accepted.set(gap, [...others, one]);
    const [to, from] = [block[one.left] as number, block[one.right] as number];
    const shift = (off[one.left] as number) + one.leftRow - one.rightRow - (off[one.right] as number);
    for (const member of members[from] as number[]) {
      block[member] = to;
      off[member] = (off[member] as number) + shift;
      members[to]?.push(member);
    }
    members[from] = [];
  }
  const row = new Int32Array(vertices.length);
  const at = (vertex: number) => (row[block[vertex] as number] as number) + (off[vertex] as number);
  const apart = (a: number, b: number) => {
    const [upper, lower] = [vertices[a], vertices[b]] as [Vertex, Vertex];
    return upper.foot + lower.above + apartRows(upper, lower);
  };
  // Packed to the top.
  for (let round = 0, moved = true; moved && round < 400; round++) {
    moved = false;
    for (const layer of layers)
      for (let i = 1; i < layer.length; i++) {
        const [a, b] = [layer[i - 1], layer[i]] as [number, number];
        const short = at(a) + apart(a, b) - at(b);
        if (short <= 0) continue;
        row[block[b] as number] = (row[block[b] as number] as number) + short;
        moved = true;
      }
  }
  const pulls: { other: number; by: number }[][] = vertices.map(() => []);
  for (const { left, right, leftRow, rightRow } of segments) {
    if (block[left] === block[right]) continue;
    pulls[left]?.push({ other: right, by: rightRow - leftRow });
    pulls[right]?.push({ other: left, by: leftRow - rightRow });
  }
  const blocks = vertices.flatMap((_, i) => ((members[i] as number[]).length > 0 ? [i] : []));
  for (let round = 0; round < 16; round++) {
    const isDown = round % 2 === 0;
    const order = [...blocks].sort((a, b) => (isDown ? -1 : 1) * ((row[a] as number) - (row[b] as number)));
    for (const one of order) {
      let [low, high] = [-Infinity, Infinity];
      const wishes: number[] = [];
      for (const member of members[one] as number[]) {
        const layer = layers[vertices[member]?.layer ?? 0] as number[];
        const i = place[member] as number;
        const [over, under] = [layer[i - 1], layer[i + 1]];
        if (over !== undefined) low = Math.max(low, at(over) + apart(over, member) - (off[member] as number));
        if (under !== undefined)
          high = Math.min(high, at(under) - apart(member, under) - (off[member] as number));
        for (const { other, by } of pulls[member] as { other: number; by: number }[])
          wishes.push(at(other) + by - (off[member] as number));
      }
      if (wishes.length === 0) continue;
      wishes.sort((a, b) => a - b);
      const wish = wishes[(wishes.length - 1) >> 1] as number;
      row[one] = Math.min(high, Math.max(low, wish));
    }
  }
  return vertices.map((_, i) => at(i));
}

const GAP = 2;
const MOST_TRACKS = 5;
/** A drawing that is narrower than this is spread, cells. */
const SHEET = 74;
/** Room between tanks and consumers, so that parts can be let in. */
const LEAST_SPAN = 18;

/** Columns: each layer as near to the one before as bodies, names and upright hoses between let it. */
function columnsOf(
  vertices: readonly Vertex[],
  segments: readonly Segment[],
  layers: readonly number[][],
  rows: readonly number[],
): number[] {
  const real = layers.map((layer) => layer.filter((vertex) => vertices[vertex]?.node));
  const widest = real.map((layer) =>
    Math.max(0, ...layer.map((vertex) => vertices[vertex]?.node?.columns ?? 0)),
  );
  const tracks = new Int32Array(layers.length);
  for (const { left, right, leftRow, rightRow } of segments) {
    const gap = vertices[left]?.layer ?? 0;
    if ((rows[left] as number) + leftRow !== (rows[right] as number) + rightRow)
      tracks[gap] = (tracks[gap] as number) + 1;
  }
  const start = new Int32Array(layers.length);
  const columnOf = (vertex: number, layer: number) =>
    (start[layer] as number) +
    Math.floor(((widest[layer] as number) - (vertices[vertex]?.node?.columns ?? 0)) / 2);
  for (let layer = 1; layer < layers.length; layer++) {
    let at =
      (start[layer - 1] as number) +
      (widest[layer - 1] as number) +
      GAP +
      Math.min(MOST_TRACKS, Math.max(0, (tracks[layer - 1] as number) - 1));
    for (const mine of real[layer] as number[]) {
      const own = vertices[mine]?.node as DrawnNode;
      const inset = columnOf(mine, layer) - (start[layer] as number);
      for (let before = Math.max(0, layer - 3); before < layer; before++)
        for (const other of real[before] as number[]) {
          const node = vertices[other]?.node as DrawnNode;
          const [y, otherY] = [rows[mine] as number, rows[other] as number];
          if (y - own.above > otherY + node.foot || otherY - node.above > y + own.foot) continue;
          const right = columnOf(other, before) + node.columns + node.overhang;
          at = Math.max(at, right + 2 + own.overhang - inset);
        }
    }
    start[layer] = at;
  }
  const last = layers.length - 1;
  const width = (start[last] ?? 0) + (widest[last] ?? 0);
  const spare = Math.max(SHEET - width, last === 1 ? LEAST_SPAN - (start[1] as number) : 0);
  if (last > 0 && spare > 0)
    for (let layer = 1; layer <= last; layer++)
      start[layer] = (start[layer] as number) + Math.round((spare * layer) / last);
  return vertices.map((vertex, i) => columnOf(i, vertex.layer));
}

/** From this many times as wide as high on, a drawing is folded into bands. */
const LONG = 3;
const MOST_BANDS = 3;

/** A long drawing in bands one under the other, cut where few hoses pass. */
function folded(
  vertices: readonly Vertex[],
  segments: readonly Segment[],
  places: Map<Id, Cell>,
  nodes: readonly DrawnNode[],
): void {
  const box = (of: readonly DrawnNode[]) => {
    const all = of.map((node) => ({ node, at: places.get(node.id) as Cell }));
    return {
      left: Math.min(...all.map(({ node, at }) => at.x - node.overhang)),
      right: Math.max(...all.map(({ node, at }) => at.x + node.columns + node.overhang)),
      top: Math.min(...all.map(({ node, at }) => at.y - node.above)),
      bottom: Math.max(...all.map(({ node, at }) => at.y + node.foot)),
    };
  };
  const whole = box(nodes);
  const [width, height] = [whole.right - whole.left, whole.bottom - whole.top];
  if (width < LONG * height || width < 1.3 * SHEET) return;
  const bands = Math.min(MOST_BANDS, Math.max(2, Math.round(Math.sqrt(width / (1.6 * height)))));
  const last = Math.max(...vertices.map(({ layer }) => layer));
  const passing = (cut: number) => segments.filter(({ left }) => vertices[left]?.layer === cut - 1).length;
  const columnOf = (layer: number) =>
    Math.min(
      ...vertices.flatMap(({ node, layer: own }) =>
        node && own === layer ? [places.get(node.id)?.x ?? 0] : [],
      ),
    );
  const cuts: number[] = [];
  for (let band = 1; band < bands; band++) {
    const wanted = whole.left + (width * band) / bands;
    let best: { cut: number; cost: number } | null = null;
    for (let cut = (cuts.at(-1) ?? 1) + 1; cut <= last; cut++) {
      const column = columnOf(cut);
      if (!Number.isFinite(column)) continue;
      const cost = Math.abs(column - wanted) + 12 * passing(cut);
      if (!best || cost < best.cost) best = { cut, cost };
    }
    if (best) cuts.push(best.cut);
  }
  const bandOf = (layer: number) => cuts.filter((cut) => layer >= cut).length;
  let down = 0;
  for (let band = 0; band <= cuts.length; band++) {
    const own = vertices.flatMap(({ node, layer }) => (node && bandOf(layer) === band ? [node] : []));
    if (own.length === 0) continue;
    const { left, top, bottom } = box(own);
    const first = band === 0 ? left : whole.left + 6;
    for (const node of own) {
      const at = places.get(node.id) as Cell;
      places.set(node.id, { x: at.x - left + first, y: at.y - top + down });
    }
    down += bottom - top + 4 + (cuts[band] === undefined ? 0 : passing(cuts[band] as number));
  }
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

interface Laid {
  nodes: readonly DrawnNode[];
  vertices: Vertex[];
  segments: Segment[];
  layers: number[][];
  cost: number;
}

/** So many drawings of the least crossings are really routed, and the best of them taken. */
const TRIED = 4;

/** Layers in their best orders, with the ports of selectors and manifolds turned to what they lead to; the best first. */
function laidOut(nodes: readonly DrawnNode[], hoses: readonly DrawnHose[], oriented: Oriented): Laid[] {
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

/** Everything placed from nothing, its ports by side; loose parts stand in a tray under the rest. */
export function freshPlaces(
  nodes: readonly DrawnNode[],
  hoses: readonly DrawnHose[],
  oriented: Oriented,
): { places: Map<Id, Cell>; nodes: DrawnNode[] } {
  const joined = new Set(hoses.flatMap(({ from, to }) => [ownerOf(from), ownerOf(to)]));
  const isLoose = (node: DrawnNode) => !joined.has(node.id) && !isTank(node) && !isLast(node);
  const drawings = laidOut(
    nodes.filter((node) => !isLoose(node)),
    hoses,
    oriented,
  ).map((one) => {
    const rows = rowsOf(one.vertices, one.segments, one.layers);
    const columns = columnsOf(one.vertices, one.segments, one.layers, rows);
    const places = new Map<Id, Cell>();
    one.vertices.forEach(({ node }, i) => {
      if (node) places.set(node.id, { x: columns[i] as number, y: rows[i] as number });
    });
    if (one.nodes.length > 0) folded(one.vertices, one.segments, places, one.nodes);
    return { laid: one.nodes, places, price: priceOf(routed(one.nodes, places, hoses)) };
  });
  const { laid, places } = drawings.reduce((a, b) => (b.price < a.price ? b : a));
  const top = Math.min(0, ...laid.map(({ id, above }) => (places.get(id)?.y ?? 0) - above));
  for (const [id, { x, y }] of places) places.set(id, { x, y: y - top });
  const loose = nodes.filter(isLoose);
  const bottom = Math.max(0, ...laid.map(({ id, foot }) => (places.get(id)?.y ?? 0) + foot));
  let at = 0;
  for (const node of loose) {
    at += node.overhang;
    places.set(node.id, { x: at, y: bottom + 3 + node.above });
    at += node.columns + node.overhang + 3;
  }
  return { places, nodes: [...laid, ...loose] };
}
