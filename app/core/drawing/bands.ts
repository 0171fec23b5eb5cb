/** A long drawing folded into bands one under the other, cut where few hoses pass. */
import type { Id } from "../kinds/record";
import type { Cell } from "../plan/types";
import { extentOf } from "./grid";
import type { Laid } from "./layers";

/** Against a column off where the bands would be alike, each hose that leads on into the next band. */
const PASSING = 12;
/** Columns by which a band stands in. */
const INSET = 6;

/**
 * Places of a layered drawing folded into so many bands, cells; null where it has too few layers. Its consumers stay
 * at the end of the last band, its tanks at the beginning of the first; between two bands there is a row for each hose that leads on.
 */
export function folded(
  { vertices, segments, nodes }: Pick<Laid, "vertices" | "segments" | "nodes">,
  places: ReadonlyMap<Id, Cell>,
  bands: number,
): Map<Id, Cell> | null {
  const whole = extentOf(nodes, places);
  const passing = new Map<number, number>();
  for (const { left } of segments) {
    const cut = (vertices[left]?.layer ?? 0) + 1;
    passing.set(cut, (passing.get(cut) ?? 0) + 1);
  }
  /** Where each layer begins. */
  const columns = new Map<number, number>();
  for (const { node, layer } of vertices)
    if (node) columns.set(layer, Math.min(columns.get(layer) ?? Infinity, (places.get(node.id) as Cell).x));
  const cuts: number[] = [];
  for (let band = 1; band < bands; band++) {
    const wanted = whole.left + (whole.width * band) / bands;
    let best: { cut: number; cost: number } | null = null;
    for (const [cut, column] of columns) {
      if (cut <= (cuts.at(-1) ?? 1)) continue;
      const cost = Math.abs(column - wanted) + PASSING * (passing.get(cut) ?? 0);
      if (!best || cost < best.cost) best = { cut, cost };
    }
    if (!best) return null;
    cuts.push(best.cut);
  }
  const bandOf = (layer: number) => cuts.filter((cut) => layer >= cut).length;
  const moved = new Map<Id, Cell>();
  let down = 0;
  for (let band = 0; band < bands; band++) {
    const own = vertices.flatMap(({ node, layer }) => (node && bandOf(layer) === band ? [node] : []));
    const { left, top, height } = extentOf(own, places);
    const first = band === 0 ? left : whole.left + INSET;
    for (const { id } of own) {
      const { x, y } = places.get(id) as Cell;
      moved.set(id, { x: x - left + first, y: y - top + down });
    }
    down += height + (passing.get(cuts[band] ?? -1) ?? 0);
  }
  return moved;
}
