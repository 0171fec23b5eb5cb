/** Room made in a drawing where a hose finds no clean way. */
import type { Id } from "../kinds/record";
import type { Cell } from "../plan/types";
import { portCells, routed, type Way } from "./grid";
import type { DrawnHose, DrawnNode } from "./nodes";

/** So often at most; each time by so many lines. */
const WIDENED = { times: 6, by: 2 };

/** Where a hose finds no clean way, all that stands beyond one of its ports is moved on by as much as it needs. */
export function makeRoom(
  nodes: readonly DrawnNode[],
  places: Map<Id, Cell>,
  hoses: readonly DrawnHose[],
): void {
  const faultsOf = (at: ReadonlyMap<Id, Cell>) => {
    const { ways } = routed(nodes, at, hoses);
    const bad = hoses.filter(({ id }) => (ways.get(id) as Way).faults > 0);
    return { bad, sum: bad.reduce((total, { id }) => total + (ways.get(id) as Way).faults, 0) };
  };
  let now = faultsOf(places);
  for (let i = 0; i < WIDENED.times && now.sum > 0; i++) {
    const ports = portCells(nodes, places);
    let best: { at: Map<Id, Cell>; found: typeof now } | null = null;
    for (const key of now.bad.slice(0, 2).flatMap(({ from, to }) => [from, to])) {
      const { x, y } = ports.get(key) as Cell;
      for (const beyond of [
        (cell: Cell) => cell.x > x,
        (cell: Cell) => cell.x >= x,
        (cell: Cell) => cell.y > y,
      ]) {
        const isDown = beyond({ x: -Infinity, y: Infinity });
        const at = new Map(
          [...places].map(([id, cell]): [Id, Cell] => [
            id,
            !beyond(cell)
              ? cell
              : isDown
                ? { ...cell, y: cell.y + WIDENED.by }
                : { ...cell, x: cell.x + WIDENED.by },
          ]),
        );
        if ([...at].every(([id, cell]) => places.get(id) === cell)) continue;
        const found = faultsOf(at);
        if (!best || found.sum < best.found.sum) best = { at, found };
      }
    }
    if (!best || best.found.sum >= now.sum) return;
    for (const [id, cell] of best.at) places.set(id, cell);
    now = best.found;
  }
}
