/**
 * Ways of hoses over a grid: along its lines, at right angles, by A* with direction (Hart, Nilsson and Raphael 1968). A
 * point holds one level and one upright hose, or one bend: so none lies on another, none goes through a body, and
 * crossings are square, by construction.
 */
import type { Cell } from "../plan/types";
import { CELL_PX, type DrawnHose, type DrawnNode, isTee, type Side } from "./nodes";
import type { Box } from "./room";

const STEP = 1;
const BEND = 5;
const CROSSING = 20;
const NAME = 25;
/** Beside a body, where its own hoses come out. */
const LEAD = 30;
/** A little more than the least that is left: of ways of one cost the nearer one is gone on with. */
const DRAWN = 1.02;
/** Over another hose, where there is no other way at all. */
const OVER = 400;
/** Free lines around everything. */
const MARGIN = 8;

/** East, south, west, north. */
const DX = [1, 0, -1, 0] as const;
const DY = [0, 1, 0, -1] as const;
const EAST = 0;
const SOUTH = 1;
const WEST = 2;
const NORTH = 3;

export interface Way {
  /** Corners from its first port to its last, cells; null where there is none. */
  points: Cell[] | null;
  length: number;
  bends: number;
  /** Points where it lies on another hose or over a name, when it was found. */
  faults: number;
}

interface End {
  at: number;
  /** Directions out of it that it may take. */
  outs: number[];
}

/** A heap of states by their cost. */
class Heap {
  private states: number[] = [];
  private costs: number[] = [];
  /** Cost of the state popped last. */
  popped = 0;

  clear(): void {
    this.states.length = 0;
    this.costs.length = 0;
  }

  push(state: number, cost: number): void {
    const { states, costs } = this;
    let at = states.length;
    states.push(state);
    costs.push(cost);
    while (at > 0) {
      const up = (at - 1) >> 1;
      if ((costs[up] as number) <= cost) break;
      states[at] = states[up] as number;
      costs[at] = costs[up] as number;
      at = up;
    }
    states[at] = state;
    costs[at] = cost;
  }

  pop(): number {
    const { states, costs } = this;
    const top = states[0];
    if (top === undefined) return -1;
    this.popped = costs[0] as number;
    const state = states.pop() as number;
    const cost = costs.pop() as number;
    const count = states.length;
    if (count === 0) return top;
    let at = 0;
    for (;;) {
      let child = 2 * at + 1;
      if (child >= count) break;
      if (child + 1 < count && (costs[child + 1] as number) < (costs[child] as number)) child += 1;
      if ((costs[child] as number) >= cost) break;
      states[at] = states[child] as number;
      costs[at] = costs[child] as number;
      at = child;
    }
    states[at] = state;
    costs[at] = cost;
    return top;
  }
}

const heap = new Heap();

/** What a search notes at each state, kept between searches: a turn tells which of it is of this one. */
let scratch = {
  best: new Float64Array(0),
  /** With the least that is left from there. */
  whole: new Float64Array(0),
  from: new Int32Array(0),
  seen: new Int32Array(0),
};
let turns = 0;

/** What keeps one way to one hose: the grid with bodies on it, and the hoses laid on it so far. */
export class Grid {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  private readonly solid: Uint8Array;
  private readonly name: Uint8Array;
  private readonly lead: Uint8Array;
  /** Hoses that lie level, upright and bent at a point. */
  private readonly level: Uint8Array;
  private readonly upright: Uint8Array;
  private readonly bent: Uint8Array;
  private readonly ends = new Map<string, { at: number; side: Side; isTee: boolean }>();
  /** Of a tee, which of its four sides are taken. */
  private readonly taken = new Map<number, number>();

  constructor(nodes: readonly DrawnNode[], places: ReadonlyMap<string, Cell>) {
    let [left, top, right, bottom] = [0, 0, 0, 0];
    for (const node of nodes) {
      const { x, y } = places.get(node.id) as Cell;
      left = Math.min(left, x - node.overhang);
      right = Math.max(right, x + node.columns + node.overhang);
      top = Math.min(top, y - node.above);
      bottom = Math.max(bottom, y + node.foot);
    }
    this.left = left - MARGIN;
    this.top = top - MARGIN;
    this.width = right - left + 2 * MARGIN + 1;
    this.height = bottom - top + 2 * MARGIN + 1;
    const count = this.width * this.height;
    this.solid = new Uint8Array(count);
    this.name = new Uint8Array(count);
    this.lead = new Uint8Array(count);
    this.level = new Uint8Array(count);
    this.upright = new Uint8Array(count);
    this.bent = new Uint8Array(count);
    if (scratch.seen.length < count * 4)
      scratch = {
        best: new Float64Array(count * 5),
        whole: new Float64Array(count * 5),
        from: new Int32Array(count * 5),
        seen: new Int32Array(count * 5),
      };
    for (const node of nodes) this.put(node, places.get(node.id) as Cell);
  }

  private index(x: number, y: number): number {
    return (y - this.top) * this.width + (x - this.left);
  }

  private put(node: DrawnNode, { x, y }: Cell): void {
    for (let row = y - node.above; row <= y + node.below; row++)
      this.solid.fill(1, this.index(x, row), this.index(x + node.columns, row) + 1);
    for (let row = y + node.below + 1; row <= y + node.foot; row++)
      this.name.fill(
        1,
        this.index(x - node.overhang, row),
        this.index(x + node.columns + node.overhang, row) + 1,
      );
    for (const { key, side, row } of node.ports) {
      const at = this.index(side === "WEST" ? x : x + node.columns, y + row);
      this.ends.set(key, { at, side, isTee: isTee(node) });
      if (!isTee(node)) this.lead[at + (side === "WEST" ? -1 : 1)] = 1;
    }
  }

  private endOf(key: string): End {
    const { at, side, isTee: isPoint } = this.ends.get(key) as { at: number; side: Side; isTee: boolean };
    if (!isPoint) return { at, outs: [side === "WEST" ? WEST : EAST] };
    const taken = this.taken.get(at) ?? 0;
    const free = [0, 1, 2, 3].filter((dir) => !(taken & (1 << dir)));
    // A fourth hose at a tee, or one hose twice: whatever it takes.
    return { at, outs: free.length > 0 ? free : [0, 1, 2, 3] };
  }

  /** Lays a hose on the grid, or takes it off again. */
  lay(way: Way, by: 1 | -1 = 1): void {
    const { points } = way;
    if (!points) return;
    for (let i = 1; i < points.length; i++) {
      const [a, b] = [points[i - 1], points[i]] as [Cell, Cell];
      const [dx, dy] = [Math.sign(b.x - a.x), Math.sign(b.y - a.y)];
      const used = dx !== 0 ? this.level : this.upright;
      for (let { x, y } = a; ; x += dx, y += dy) {
        const at = this.index(x, y);
        used[at] = (used[at] as number) + by;
        if (x === b.x && y === b.y) break;
      }
      if (i < points.length - 1) {
        const at = this.index(b.x, b.y);
        this.bent[at] = (this.bent[at] as number) + by;
      }
    }
    this.take(points[0], points[1], by);
    this.take(points.at(-1), points.at(-2), by);
  }

  private take(end: Cell | undefined, next: Cell | undefined, by: 1 | -1): void {
    if (!end || !next) return;
    const at = this.index(end.x, end.y);
    const [dx, dy] = [Math.sign(next.x - end.x), Math.sign(next.y - end.y)];
    const bit = 1 << [0, 1, 2, 3].findIndex((dir) => DX[dir] === dx && DY[dir] === dy);
    const taken = this.taken.get(at) ?? 0;
    this.taken.set(at, by === 1 ? taken | bit : taken & ~bit);
  }

  /** Points where one hose goes over another. */
  crossings(): number {
    let sum = 0;
    for (let at = 0; at < this.level.length; at++)
      if (this.level[at] && this.upright[at] && !this.bent[at] && !this.solid[at]) sum += 1;
    return sum;
  }

  /** Does another hose go over a laid one? */
  isCrossed({ points }: Way): boolean {
    return (points ?? []).some((b, i) => {
      const a = points?.[i - 1];
      if (!a) return false;
      const [dx, dy] = [Math.sign(b.x - a.x), Math.sign(b.y - a.y)];
      const across = dx !== 0 ? this.upright : this.level;
      for (let x = a.x + dx, y = a.y + dy; x !== b.x || y !== b.y; x += dx, y += dy)
        if (across[this.index(x, y)]) return true;
      return false;
    });
  }

  /** The cheapest way between two ports with what is laid; over other hoses only where there is none else. */
  find(hose: DrawnHose): Way {
    const [start, goal] = [this.endOf(hose.from).at, this.endOf(hose.to).at];
    // Two ports of one tee: a small ring beside it.
    if (start === goal) return this.ringAt(start);
    return (
      this.search(hose, false) ?? this.search(hose, true) ?? { points: null, length: 0, bends: 0, faults: 1 }
    );
  }

  /** In the corner beside a tee where it lies on least. */
  private ringAt(at: number): Way {
    const x = (at % this.width) + this.left;
    const y = Math.floor(at / this.width) + this.top;
    const taken = this.taken.get(at) ?? 0;
    const corners = [NORTH, SOUTH].flatMap((upright) =>
      [EAST, WEST].map((level): Way => {
        const [dx, dy] = [DX[level] as number, DY[upright] as number];
        const points = [
          { x, y },
          { x, y: y + dy },
          { x: x + dx, y: y + dy },
          { x: x + dx, y },
          { x, y },
        ];
        const faults = [upright, level].filter((dir) => taken & (1 << dir)).length;
        const lies = points.slice(1, -1).filter((point) => !this.isFree(this.index(point.x, point.y))).length;
        return { points, length: 4, bends: 3, faults: faults + lies };
      }),
    );
    return corners.reduce((a, b) => (b.faults < a.faults ? b : a));
  }

  private isFree(at: number): boolean {
    return !this.solid[at] && !this.name[at] && !this.level[at] && !this.upright[at];
  }

  private search({ from, to }: DrawnHose, over: boolean): Way | null {
    const [start, goal] = [this.endOf(from), this.endOf(to)];
    const { width } = this;
    const { best, whole, seen, from: came } = scratch;
    const turn = ++turns;
    const [goalX, goalY] = [goal.at % width, Math.floor(goal.at / width)];
    // Of what arrives at a port in one direction the bends that are left are known as well.
    const arrival = goal.outs.length === 1 ? ((goal.outs[0] as number) + 2) % 4 : -1;
    const rest = (at: number, dir: number): number => {
      const x = goalX - (at % width);
      const y = goalY - Math.floor(at / width);
      const steps = Math.abs(x) + Math.abs(y);
      const ahead = x * (DX[dir] as number) + y * (DY[dir] as number);
      const isAligned = dir % 2 === 0 ? y === 0 : x === 0;
      if (arrival < 0) return DRAWN * (steps + (isAligned && ahead >= 0 ? 0 : BEND));
      const home = x * (DX[arrival] as number) + y * (DY[arrival] as number);
      const bends =
        dir === arrival
          ? isAligned && ahead >= 0
            ? 0
            : 2
          : dir === (arrival + 2) % 4
            ? 2
            : ahead >= 0 && home > 0
              ? 1
              : 3;
      return DRAWN * (steps + BEND * bends);
    };
    const step = [1, width, -1, -width];
    const last = this.solid.length;
    const leads = [start, goal].flatMap(({ at, outs }) => outs.map((dir) => at + (step[dir] as number)));
    heap.clear();
    const { solid } = this;
    const offer = (at: number, dir: number, cost: number, before: number) => {
      if (solid[at] && at !== goal.at) return;
      const state = at * 4 + dir;
      if (seen[state] === turn && (best[state] as number) <= cost) return;
      seen[state] = turn;
      best[state] = cost;
      came[state] = before;
      whole[state] = cost + rest(at, dir);
      heap.push(state, whole[state] as number);
    };
    for (const dir of start.outs) {
      const next = start.at + (step[dir] as number);
      const cost = STEP + (dir % 2 === 0 ? 0 : 2);
      offer(next, dir, cost, -1);
    }
    const arrives = new Set(goal.outs.map((dir) => (dir + 2) % 4));
    for (let state = heap.pop(); state >= 0; state = heap.pop()) {
      const at = state >> 2;
      const dir = state & 3;
      const cost = best[state] as number;
      if (at === goal.at) {
        if (arrives.has(dir)) return this.wayOf(start.at, state);
        continue;
      }
      if (heap.popped > (whole[state] as number) || at < width || at >= last - width) continue;
      const column = at % width;
      if (column === 0 || column === width - 1) continue;
      const isLevel = dir % 2 === 0;
      const own = (isLevel ? this.level : this.upright)[at] as number;
      const other = (isLevel ? this.upright : this.level)[at] as number;
      const bent = this.bent[at] as number;
      const inTheWay = this.lead[at] && !leads.includes(at) ? LEAD : 0;
      const isStraightFree = own === 0 && bent === 0;
      const isBendFree = own === 0 && other === 0;
      const here = cost + (this.name[at] ? NAME : 0);
      if (isStraightFree || over)
        offer(
          at + (step[dir] as number),
          dir,
          here + STEP + (other > 0 ? CROSSING : 0) + (isLevel ? inTheWay : 0) + (isStraightFree ? 0 : OVER),
          state,
        );
      if (!isBendFree && !over) continue;
      for (const bend of [(dir + 1) % 4, (dir + 3) % 4]) {
        offer(
          at + (step[bend] as number),
          bend,
          here + STEP + BEND + inTheWay + (isBendFree ? 0 : OVER),
          state,
        );
      }
    }
    return null;
  }

  private wayOf(start: number, goal: number): Way {
    const points: Cell[] = [];
    const cell = (at: number): Cell => ({
      x: (at % this.width) + this.left,
      y: Math.floor(at / this.width) + this.top,
    });
    let [length, faults] = [0, 0];
    let dir = goal & 3;
    points.push(cell(goal >> 2));
    for (let state = goal; state >= 0; state = scratch.from[state] as number) {
      length += 1;
      const before = scratch.from[state] as number;
      if (before < 0) break;
      const at = before >> 2;
      const isBend = (before & 3) !== dir;
      const isFree = isBend
        ? this.level[at] === 0 && this.upright[at] === 0
        : (dir % 2 === 0 ? this.level : this.upright)[at] === 0 && this.bent[at] === 0;
      if (!isFree || this.name[at]) faults += 1;
      if (isBend) {
        // Where it turned: at the point that it came from.
        points.push(cell(at));
        dir = before & 3;
      }
    }
    points.push(cell(start));
    points.reverse();
    return { points, length, bends: points.length - 2, faults };
  }
}

/** Where each port stands, cells. */
export function portCells(nodes: readonly DrawnNode[], places: ReadonlyMap<string, Cell>): Map<string, Cell> {
  return new Map(
    nodes.flatMap((node) => {
      const { x, y } = places.get(node.id) as Cell;
      return node.ports.map(({ key, side, row }) => [
        key,
        { x: side === "WEST" ? x : x + node.columns, y: y + row },
      ]);
    }),
  );
}

/** Free around everything, cells. */
const PAD = 2;

/** The sheet that bodies with their names, and ways, take up, cells. */
export function extentOf(
  nodes: readonly DrawnNode[],
  places: ReadonlyMap<string, Cell>,
  ways: ReadonlyMap<string, Way> = new Map(),
): { left: number; top: number; width: number; height: number } {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  const take = (x0: number, y0: number, x1: number, y1: number) => {
    left = Math.min(left, x0);
    top = Math.min(top, y0);
    right = Math.max(right, x1);
    bottom = Math.max(bottom, y1);
  };
  for (const { id, overhang, columns, above, foot } of nodes) {
    const { x, y } = places.get(id) as Cell;
    take(x - overhang, y - above, x + columns + overhang, y + foot);
  }
  for (const { points } of ways.values()) for (const { x, y } of points ?? []) take(x, y, x, y);
  if (!Number.isFinite(left)) return { left: 0, top: 0, width: 1, height: 1 };
  return { left: left - PAD, top: top - PAD, width: right - left + 2 * PAD, height: bottom - top + 2 * PAD };
}

/** The same, px. */
export function boxOf(...of: Parameters<typeof extentOf>): Box {
  const { width, height } = extentOf(...of);
  return { width: width * CELL_PX, height: height * CELL_PX };
}

/** Hoses by how far apart their ports stand; of two alike the same one first each time. */
export function shortFirst(hoses: readonly DrawnHose[], ports: ReadonlyMap<string, Cell>): DrawnHose[] {
  const span = ({ from, to }: DrawnHose): number => {
    const [a, b] = [ports.get(from), ports.get(to)] as [Cell, Cell];
    return Math.abs(a.x - b.x) + Math.abs(a.y - b.y);
  };
  return [...hoses].sort((a, b) => span(a) - span(b) || (a.id < b.id ? -1 : 1));
}

/** What a drawing is priced by, in cells of hose; a hose without a way is worse than anything. */
export const PRICE = { crossing: 60, bend: 14, fault: 80, noWay: 1000 };

export function priceOf({ grid, ways }: Routed): number {
  let sum = PRICE.crossing * grid.crossings();
  for (const { points, bends, length, faults } of ways.values())
    sum += points ? PRICE.bend * bends + length + PRICE.fault * faults : PRICE.noWay;
  return sum;
}

/** So often hoses that lie in the way of one without a clean way are taken up and laid anew. */
const AGAIN = 4;

export interface Routed {
  grid: Grid;
  ways: Map<string, Way>;
}

/** What was routed last: an edit starts from what the one before ended with, and what it ends with is drawn. */
const lately = new Map<string, Routed>();
const MOST_LATELY = 4;

const routingKey = (
  nodes: readonly DrawnNode[],
  places: ReadonlyMap<string, Cell>,
  hoses: readonly DrawnHose[],
): string =>
  JSON.stringify([
    nodes.map(({ id, columns, above, below, foot, overhang, ports }) => {
      const { x, y } = places.get(id) as Cell;
      return [x, y, columns, above, below, foot, overhang, ports];
    }),
    hoses,
  ]);

/** Every hose on its way: the short ones first, each once more when all lie; then room is made for those that need it. */
export function routed(
  nodes: readonly DrawnNode[],
  places: ReadonlyMap<string, Cell>,
  hoses: readonly DrawnHose[],
): Routed {
  const key = routingKey(nodes, places, hoses);
  const known = lately.get(key);
  if (known) return known;
  const ports = portCells(nodes, places);
  const order = shortFirst(hoses, ports);
  const grid = new Grid(nodes, places);
  const ways = new Map<string, Way>();
  const lay = (hose: DrawnHose, way = grid.find(hose)) => {
    grid.lay(way);
    ways.set(hose.id, way);
  };
  const lift = ({ id }: DrawnHose): Way => {
    const way = ways.get(id) as Way;
    grid.lay(way, -1);
    return way;
  };
  for (const hose of order) lay(hose);
  for (const hose of order) {
    const old = ways.get(hose.id) as Way;
    // One that crosses none was laid before those that it could be in the way of.
    if (old.points && old.faults === 0 && !grid.isCrossed(old)) continue;
    lift(hose);
    lay(hose);
  }
  for (let round = 0; round < AGAIN; round++) {
    const bad = order.filter(({ id }) => (ways.get(id) as Way).faults > 0);
    if (bad.length === 0) break;
    for (const hose of bad) {
      const way = ways.get(hose.id) as Way;
      const others = order.filter((one) => one !== hose && lieTogether(way, ways.get(one.id) as Way));
      if (others.length === 0) continue;
      const before = [hose, ...others].map((one) => [one, ways.get(one.id) as Way] as const);
      for (const [one] of before) lift(one);
      for (const [one] of before) lay(one);
      const sum = (of: Iterable<Way>) => [...of].reduce((total, { faults }) => total + faults, 0);
      if (sum(before.map(([one]) => ways.get(one.id) as Way)) < sum(before.map(([, old]) => old))) continue;
      for (const [one] of before) lift(one);
      for (const [one, old] of before) lay(one, old);
    }
  }
  const found = { grid, ways };
  lately.set(key, found);
  const [oldest] = lately.keys();
  if (lately.size > MOST_LATELY && oldest !== undefined) lately.delete(oldest);
  return found;
}

/** Do two ways share a stretch, or a point where one of them bends? */
function lieTogether(a: Way, b: Way): boolean {
  const stretches = ({ points }: Way) =>
    (points ?? []).slice(1).map((to, i) => {
      const from = (points as Cell[])[i] as Cell;
      return {
        left: Math.min(from.x, to.x),
        right: Math.max(from.x, to.x),
        top: Math.min(from.y, to.y),
        bottom: Math.max(from.y, to.y),
        isLevel: from.y === to.y,
      };
    });
  const others = stretches(b);
  return stretches(a).some((one) =>
    others.some(
      (other) =>
        one.left <= other.right &&
        other.left <= one.right &&
        one.top <= other.bottom &&
        other.top <= one.bottom &&
        (one.isLevel === other.isLevel ||
          [one.left, one.right].includes(other.left) ||
          [one.top, one.bottom].includes(other.top)),
    ),
  );
}
