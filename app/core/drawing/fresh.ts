/** A drawing from nothing: of the orders and foldings that cross and bend least, the one that fills its room best. */
import type { Id } from "../kinds/record";
import type { Cell } from "../plan/types";
import { folded } from "./bands";
import { boxOf, priceOf, routed } from "./grid";
import { type Laid, laidOut } from "./layers";
import { type DrawnHose, type DrawnNode, isLast, isTank, ownerOf } from "./nodes";
import type { Oriented } from "./orient";
import { type Box, ROOM, smallness, wholeIn } from "./room";
import { columnsOf, rowsOf } from "./rows";

/** One that is shown at this share of its natural size at least is not folded. */
const LARGE = 0.9;
const MOST_BANDS = 4;
/** Cells over and between loose parts. */
const TRAY = 3;

interface Draft extends Box {
  laid: Laid;
  places: Map<Id, Cell>;
  /** Points where a hose has no clean way. */
  faults: number;
  price: number;
}

/** What a drawing costs by its hoses, and by how small it has to be shown. */
function drafted(laid: Laid, places: Map<Id, Cell>, hoses: readonly DrawnHose[]): Draft {
  const found = routed(laid.nodes, places, hoses);
  const box = boxOf(laid.nodes, places, found.ways);
  const faults = [...found.ways.values()].reduce((sum, way) => sum + way.faults, 0);
  return { laid, places, ...box, faults, price: priceOf(found) + smallness(box) };
}

/** Columns between two names, and where a hose finds no clean way so. */
const APART = { near: 1, far: 2 };

function unfolded(laid: Laid, apart: number): Map<Id, Cell> {
  const rows = rowsOf(laid.vertices, laid.segments, laid.layers);
  const columns = columnsOf(laid.vertices, laid.segments, laid.layers, rows, apart);
  return new Map(
    laid.vertices.flatMap(({ node }, i): [Id, Cell][] =>
      node ? [[node.id, { x: columns[i] as number, y: rows[i] as number }]] : [],
    ),
  );
}

/** The fewest points without a clean way come before anything. */
const cheapest = (drafts: readonly Draft[]): Draft =>
  drafts.reduce((a, b) => ((b.faults - a.faults || b.price - a.price) < 0 ? b : a));

/** Everything placed from nothing, its ports by side; loose parts stand in a tray under the rest. */
export function freshPlaces(
  nodes: readonly DrawnNode[],
  hoses: readonly DrawnHose[],
  oriented: Oriented,
): { places: Map<Id, Cell>; nodes: DrawnNode[] } {
  const joined = new Set(hoses.flatMap(({ from, to }) => [ownerOf(from), ownerOf(to)]));
  const isLoose = (node: DrawnNode) => !joined.has(node.id) && !isTank(node) && !isLast(node);
  const kept = nodes.filter((node) => !isLoose(node));
  const layouts = laidOut(kept, hoses, oriented);
  const at = (one: Laid, apart: number) => drafted(one, unfolded(one, apart), hoses);
  const near = cheapest(layouts.map((one) => at(one, APART.near)));
  const flat = near.faults > 0 ? cheapest([near, at(near.laid, APART.far)]) : near;
  const drafts = [flat];
  const fit = wholeIn(ROOM, flat);
  for (let bands = 2; bands <= MOST_BANDS && fit < LARGE; bands++) {
    if (wholeIn(ROOM, { width: flat.width / bands, height: flat.height * bands }) <= fit) break;
    const places = folded(flat.laid, flat.places, bands);
    if (places) drafts.push(drafted(flat.laid, places, hoses));
  }
  const { laid, places } = cheapest(drafts);
  const top = Math.min(0, ...laid.nodes.map(({ id, above }) => (places.get(id)?.y ?? 0) - above));
  for (const [id, { x, y }] of places) places.set(id, { x, y: y - top });
  const loose = nodes.filter(isLoose);
  const bottom = Math.max(0, ...laid.nodes.map(({ id, foot }) => (places.get(id)?.y ?? 0) + foot));
  let x = 0;
  for (const node of loose) {
    x += node.overhang;
    places.set(node.id, { x, y: bottom + TRAY + node.above });
    x += node.columns + node.overhang + TRAY;
  }
  return { places, nodes: [...laid.nodes, ...loose] };
}
