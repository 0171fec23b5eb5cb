/**
 * Where everything stands: what has a place keeps it, what is new is put where it costs least, by really routing what
 * changes. A plan without places is laid out from nothing.
 */
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import { onSheet } from "../plan/places";
import type { Cell, Plan } from "../plan/types";
import { freshPlaces } from "./fresh";
import { Grid, portCells, priceOf, routed, shortFirst, type Way } from "./grid";
import {
  type DrawnHose,
  type DrawnNode,
  drawnHoses,
  drawnNodes,
  isLast,
  isTank,
  meet,
  ownerOf,
  type Side,
  type Sides,
} from "./nodes";
import { orient, sidesFor } from "./orient";
import { makeRoom } from "./widen";

export interface Settled {
  places: NonNullable<Plan["places"]>;
  sides: Sides;
}

/** Against a cell of hose, a cell that something is moved by. */
const MOVED = 1.8;
/** Cells between a port and what is put before it, and how far an engine stands from the tanks. */
const BESIDE = 3;
const SPAN = 46;
const UNDER = 3;
/** So many free rooms are tried, and so far around. */
const ROOMS = 4;
const FAR = 60;
/** So many cells a part may need where the drawing is cut for it. */
const MOST_CUT = 24;

/** The sides of all parts as their nodes have them, from the top down. */
function sidesAsDrawn(nodes: readonly DrawnNode[]): Sides {
  return Object.fromEntries(
    nodes
      .filter((node) => !isTank(node) && !isLast(node))
      .map(({ id, ports }) => {
        const on = (side: Side) =>
          ports
            .filter((port) => port.side === side)
            .sort((a, b) => a.row - b.row)
            .map(({ key }) => key.slice(id.length + 1));
        return [id, { west: on("WEST"), east: on("EAST") }];
      }),
  );
}

/** A plan laid out from nothing. */
export function fresh(network: Network): Settled {
  const oriented = orient(network);
  const sides = sidesFor(network, oriented, {});
  const nodes = drawnNodes(network, sides);
  const laid = freshPlaces(nodes, drawnHoses(network, nodes), oriented);
  const places = Object.fromEntries([...laid.places].map(([id, cell]) => [id, onSheet(cell)]));
  return { places, sides: sidesAsDrawn(laid.nodes) };
}

/** What is drawn and where it stands so far. */
interface Sheet {
  nodes: DrawnNode[];
  places: Map<Id, Cell>;
  ways: ReadonlyMap<Id, Way>;
  /** What nothing moves. */
  fixed?: ReadonlySet<Id> | undefined;
}

/** Does a laid way go through a body or the room of its name? */
function isBarred({ points }: Way, node: DrawnNode, at: Cell): boolean {
  if (!points) return true;
  return points.some((b, i) => {
    const a = points[i - 1];
    if (!a) return false;
    const [left, right] = [Math.min(a.x, b.x), Math.max(a.x, b.x)];
    const [top, bottom] = [Math.min(a.y, b.y), Math.max(a.y, b.y)];
    const isInBody =
      left <= at.x + node.columns && right >= at.x && top <= at.y + node.below && bottom >= at.y - node.above;
    const isOverName =
      left <= at.x + node.columns + node.overhang &&
      right >= at.x - node.overhang &&
      top <= at.y + node.foot &&
      bottom > at.y + node.below;
    return isInBody || isOverName;
  });
}

/** What a drawing costs with the ways that stand, and new ones for the rest. */
function priceWith(
  nodes: readonly DrawnNode[],
  places: ReadonlyMap<Id, Cell>,
  hoses: readonly DrawnHose[],
  standing: ReadonlyMap<Id, Way>,
): number {
  const grid = new Grid(nodes, places);
  const ways = new Map<Id, Way>();
  const lay = (id: Id, way: Way) => {
    grid.lay(way);
    ways.set(id, way);
  };
  for (const { id } of hoses) {
    const way = standing.get(id);
    if (way) lay(id, way);
  }
  const rest = hoses.filter(({ id }) => !standing.has(id));
  for (const hose of shortFirst(rest, portCells(nodes, places))) lay(hose.id, grid.find(hose));
  return priceOf({ grid, ways });
}

const boxOf = ({ nodes, places }: Pick<Sheet, "nodes" | "places">) => {
  const all = nodes.map((node) => ({ node, at: places.get(node.id) as Cell }));
  return {
    left: Math.min(0, ...all.map(({ at }) => at.x)),
    right: Math.max(0, ...all.map(({ node, at }) => at.x + node.columns)),
    bottom: Math.max(0, ...all.map(({ node, at }) => at.y + node.foot)),
  };
};

const isFree = (sheet: Pick<Sheet, "nodes" | "places">, node: DrawnNode, at: Cell): boolean =>
  !sheet.nodes.some(
    (other) => other.id !== node.id && meet(node, at, other, sheet.places.get(other.id) as Cell),
  );

/** Free places around one, the nearest first. */
function roomsNear(
  sheet: Pick<Sheet, "nodes" | "places">,
  node: DrawnNode,
  wish: Cell,
  count = ROOMS,
): Cell[] {
  const rooms: Cell[] = [];
  for (let far = 0; far <= FAR && rooms.length < count; far++) {
    for (let dx = -far; dx <= far && rooms.length < count; dx++)
      for (const dy of far === Math.abs(dx) ? range(far) : [-far, far]) {
        const at = { x: wish.x + dx, y: wish.y + dy };
        if (
          isFree(sheet, node, at) &&
          !rooms.some((one) => Math.abs(one.x - at.x) + Math.abs(one.y - at.y) < 4)
        )
          rooms.push(at);
      }
  }
  return rooms;
}
const range = (far: number) => Array.from({ length: 2 * far + 1 }, (_, i) => i - far);

/** Where something stands that no hose has met yet: tanks under tanks, engines to the right, parts in a tray. */
function standing(sheet: Sheet, node: DrawnNode): Cell {
  const { nodes, places } = sheet;
  const box = boxOf(sheet);
  const under = (is: (one: DrawnNode) => boolean): Cell | null => {
    const own = nodes.filter(is);
    if (own.length === 0) return null;
    const at = own.map(({ id, foot }) => ({ at: places.get(id) as Cell, foot }));
    return {
      x: Math.min(...at.map((one) => one.at.x)),
      y: Math.max(...at.map((one) => one.at.y + one.foot)) + UNDER + node.above,
    };
  };
  const wish = isTank(node)
    ? (under(isTank) ?? { x: box.left, y: node.above })
    : isLast(node)
      ? (under(isLast) ?? { x: Math.max(box.right + BESIDE, box.left + SPAN), y: node.above })
      : { x: box.left + node.overhang, y: box.bottom + UNDER + node.above };
  return roomsNear(sheet, node, wish, 1)[0] ?? wish;
}

/** The drawing cut at a point of a hose, all beyond it moved on by as much as a part needs; null where there is no room. */
function cutAt(
  { nodes, places, fixed }: Sheet,
  node: DrawnNode,
  { x: left, y }: Cell,
): { places: Map<Id, Cell>; moved: number } | null {
  const isBeyond = ({ id }: DrawnNode) => (places.get(id) as Cell).x > left;
  const [beyond, before] = [nodes.filter(isBeyond), nodes.filter((one) => !isBeyond(one))];
  const spread = Array.from({ length: MOST_CUT }, (_, i) => i);
  const x = spread
    .map((by) => left + BESIDE + by)
    .find((at) => isFree({ nodes: before, places }, node, { x: at, y }));
  if (x === undefined) return null;
  const by = spread.find((short) =>
    beyond.every((one) => {
      const at = places.get(one.id) as Cell;
      return !meet(node, { x, y }, one, { x: at.x + short, y: at.y });
    }),
  );
  if (by === undefined || (by > 0 && beyond.some(({ id }) => fixed?.has(id)))) return null;
  const moved = new Map(places).set(node.id, { x, y });
  for (const { id } of beyond) {
    const at = places.get(id) as Cell;
    moved.set(id, { ...at, x: at.x + by });
  }
  return { places: moved, moved: by * beyond.length };
}

/** A new part among those that stand: on its hose, before a port, or in the nearest rooms; the cheapest. */
function placeJoined(sheet: Sheet, node: DrawnNode, hoses: readonly DrawnHose[]): Map<Id, Cell> {
  const ids = new Set(sheet.nodes.map(({ id }) => id));
  const nodes = [...sheet.nodes, node];
  const among = hoses.filter(({ from, to }) =>
    [from, to].every((key) => ids.has(ownerOf(key)) || ownerOf(key) === node.id),
  );
  const ports = portCells(sheet.nodes, sheet.places);
  const sideOf = new Map(nodes.flatMap((one) => one.ports.map(({ key, side, row }) => [key, { side, row }])));
  const ends = among.flatMap(({ from, to }) => {
    const [mine, other] = ownerOf(from) === node.id ? [from, to] : [to, from];
    return ownerOf(mine) === node.id && ownerOf(other) !== node.id ? [{ mine, other }] : [];
  });
  const tries: Cell[] = [];
  const offer = (at: Cell) => {
    if (isFree(sheet, node, at)) tries.push(at);
  };
  /** At which the node's port meets a point from the side that it is on. */
  const against = (mine: string, { x, y }: Cell): Cell => {
    const { side, row } = sideOf.get(mine) as { side: Side; row: number };
    return { x: side === "WEST" ? x : x - node.columns, y: y - row };
  };
  for (const { mine, other } of ends) {
    const at = ports.get(other) as Cell;
    const out = sideOf.get(other)?.side === "WEST" ? -1 : 1;
    for (const beside of [BESIDE, 2 * BESIDE, 4 * BESIDE])
      offer(against(mine, { x: at.x + out * (beside + node.overhang), y: at.y }));
  }
  const stretches: { a: Cell; b: Cell; mine: string }[] = [];
  const [one, two] = ends;
  if (one && two) {
    const grid = new Grid(sheet.nodes, sheet.places);
    for (const way of sheet.ways.values()) grid.lay(way);
    const points = grid.find({ id: "", from: one.other, to: two.other }).points ?? [];
    points.forEach((b, i) => {
      const a = points[i - 1];
      if (a && a.y === b.y && a.x !== b.x) stretches.push({ a, b, mine: one.mine });
    });
    for (const { a, b, mine } of stretches) {
      const [left, right] = [Math.min(a.x, b.x), Math.max(a.x, b.x)];
      if (right - left < node.columns + 2) continue;
      const x = Math.round((left + right - node.columns) / 2);
      const y = a.y - (sideOf.get(mine)?.row ?? 0);
      offer({ x, y });
      offer({ x: left + BESIDE, y });
    }
  }
  if (ends.length > 0) {
    const all = ends.map(({ other }) => ports.get(other) as Cell);
    const mean = (of: (cell: Cell) => number) =>
      Math.round(all.reduce((sum, cell) => sum + of(cell), 0) / all.length);
    const middle = { x: mean(({ x }) => x) - Math.round(node.columns / 2), y: mean(({ y }) => y) };
    tries.push(...roomsNear(sheet, node, middle));
  }
  const priced = (places: Map<Id, Cell>, ways: ReadonlyMap<Id, Way>, moved: number) => ({
    places,
    price: priceWith(nodes, places, among, ways) + MOVED * moved,
  });
  // What it costs without the new part.
  const stood = priceWith(
    sheet.nodes,
    sheet.places,
    among.filter(({ id }) => sheet.ways.has(id)),
    sheet.ways,
  );
  const options = tries.map((at) => {
    const places = new Map(sheet.places).set(node.id, at);
    const kept = new Map([...sheet.ways].filter(([, way]) => !isBarred(way, node, at)));
    return priced(places, kept, 0);
  });
  const cuts = [
    ...stretches.map(({ a, b, mine }) => ({ x: Math.min(a.x, b.x), y: a.y, mine })),
    ...ends.flatMap(({ mine, other }) =>
      sideOf.get(other)?.side === "EAST" && ends.length === 1
        ? [{ ...(ports.get(other) as Cell), mine }]
        : [],
    ),
  ];
  for (const { x, y, mine } of cuts) {
    const cut = cutAt(sheet, node, { x, y: y - (sideOf.get(mine)?.row ?? 0) });
    const cheapest = Math.min(...options.map(({ price }) => price));
    if (cut && cheapest > stood + MOVED * cut.moved) options.push(priced(cut.places, new Map(), cut.moved));
  }
  const best = options.reduce<(typeof options)[number] | null>(
    (a, b) => (a && a.price <= b.price ? a : b),
    null,
  );
  return best?.places ?? new Map(sheet.places).set(node.id, standing(sheet, node));
}

function withWays(
  nodes: DrawnNode[],
  places: Map<Id, Cell>,
  hoses: readonly DrawnHose[],
  fixed?: ReadonlySet<Id>,
): Sheet {
  return { nodes, places, ways: routed(nodes, places, hoses).ways, fixed };
}

/** Has every port of every part a side already? */
const isKnown = ({ plan }: Network, nodes: readonly DrawnNode[], sides: Sides): boolean =>
  nodes.every(
    (node) =>
      isTank(node) ||
      isLast(node) ||
      node.ports.length === (sides[node.id]?.west.length ?? 0) + (sides[node.id]?.east.length ?? 0),
  ) || plan.parts.length === 0;

interface Known {
  places?: Settled["places"];
  sides?: Sides;
  /** Of these places the ones that are given up where there is not room enough. */
  loosely?: ReadonlySet<Id>;
  /** Is what stands moved on where a hose finds no clean way? */
  makesRoom?: boolean;
  /** What nothing moves, whatever room is wanted. */
  fixed?: ReadonlySet<Id>;
}

/** Places and sides of all that is drawn: what is known stays. */
export function settled(network: Network, known: Known): Settled {
  const held = known.sides ?? {};
  const places = new Map(Object.entries(known.places ?? {}));
  const first = drawnNodes(network, held);
  if (!first.some(({ id }) => places.has(id))) return fresh(network);
  const sides = isKnown(network, first, held) ? held : sidesFor(network, orient(network), held);
  const nodes = drawnNodes(network, sides);
  const hoses = drawnHoses(network, nodes);
  for (const id of known.loosely ?? []) {
    const node = nodes.find((one) => one.id === id);
    const others = nodes.filter((one) => one.id !== id && places.has(one.id));
    if (node && !isFree({ nodes: others, places }, node, places.get(id) as Cell)) places.delete(id);
  }
  const stand = nodes.filter(({ id }) => places.has(id));
  const waiting = new Set(nodes.filter(({ id }) => !places.has(id)));
  if (waiting.size > 0) {
    const ids = new Set(stand.map(({ id }) => id));
    const whole = (one: DrawnHose) => ids.has(ownerOf(one.from)) && ids.has(ownerOf(one.to));
    let sheet = withWays(
      stand,
      new Map(stand.map(({ id }) => [id, places.get(id) as Cell])),
      hoses.filter(whole),
      known.fixed,
    );
    while (waiting.size > 0) {
      const joins = (node: DrawnNode) =>
        hoses.filter(({ from, to }) => {
          const [a, b] = [ownerOf(from), ownerOf(to)];
          return (a === node.id && ids.has(b)) || (b === node.id && ids.has(a));
        }).length;
      const next = [...waiting].reduce((a, b) => (joins(b) > joins(a) ? b : a));
      waiting.delete(next);
      const isJoined = joins(next) > 0 && !isTank(next) && !isLast(next);
      const at = isJoined
        ? placeJoined(sheet, next, hoses)
        : new Map(sheet.places).set(next.id, standing(sheet, next));
      ids.add(next.id);
      const all = [...sheet.nodes, next];
      sheet =
        waiting.size > 0
          ? withWays(all, at, hoses.filter(whole), known.fixed)
          : { nodes: all, places: at, ways: sheet.ways };
    }
    for (const [id, cell] of sheet.places) places.set(id, cell);
  }
  if (known.makesRoom) makeRoom(nodes, places, hoses);
  const drawnIds = new Set(nodes.map(({ id }) => id));
  return {
    places: Object.fromEntries(
      [...places].flatMap(([id, cell]) => (drawnIds.has(id) ? [[id, onSheet(cell)]] : [])),
    ),
    sides: sidesAsDrawn(nodes),
  };
}

/** The nearest free place to where the hand let go of something. */
export function placeNear(network: Network, now: Settled, id: Id, wish: Cell): Cell {
  const nodes = drawnNodes(network, now.sides);
  const node = nodes.find((one) => one.id === id);
  const places = new Map(Object.entries(now.places));
  return (node && roomsNear({ nodes, places }, node, wish, 1)[0]) ?? wish;
}
