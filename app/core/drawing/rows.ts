/** Rows and columns of a layered drawing: chains straight (after Brandes and Koepf 2002, on whole cells). */
import type { Segment, Vertex } from "./layers";
import type { DrawnNode } from "./nodes";

const apartRows = (a: Vertex, b: Vertex) => (a.node && b.node ? 2 : a.node || b.node ? 2 : 1);

/** Rows: what can be straight is one block; blocks are packed, then drawn to where their hoses come from. */
export function rowsOf(
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
const SHEET = 66;
/** Room between tanks and consumers, so that parts can be let in. */
const LEAST_SPAN = 18;

/**
 * Columns: each layer as near to the one before as bodies, their names so many columns apart, and upright hoses between
 * let it.
 */
export function columnsOf(
  vertices: readonly Vertex[],
  segments: readonly Segment[],
  layers: readonly number[][],
  rows: readonly number[],
  apart: number,
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
          at = Math.max(at, right + apart + own.overhang - inset);
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
