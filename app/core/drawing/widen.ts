/** Room made in a drawing where a hose finds no clean way. */
import type { Id } from "../kinds/record";
import type { Cell } from "../plan/types";
import { portCells, routed, type Way } from "./grid";
import type { DrawnHose, DrawnNode } from "./nodes";

/** So often at most; each time by so many lines. */
const WIDENED = { times: 6, by: 2 };

/** What stands beyond a port, and the way that it is moved on. */
const beyonds = [
  { dx: WIDENED.by, dy: 0, is: (cell: Cell, port: Cell) => cell.x > port.x },
  { dx: WIDENED.by, dy: 0, is: (cell: Cell, port: Cell) => cell.x >= port.x },
  { dx: 0, dy: WIDENED.by, is: (cell: Cell, port: Cell) => cell.y > port.y },
] as const;

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
    const tried = new Set<string>();
    let best: { at: Map<Id, Cell>; found: typeof now } | null = null;
    for (const key of now.bad.slice(0, 2).flatMap(({ from, to }) => [from, to]))
      for (const { dx, dy, is } of beyonds) {
        const port = ports.get(key) as Cell;
        const moved = [...places].filter(([, cell]) => is(cell, port));
        // What stands in one column is beyond the same.
        const what = JSON.stringify([dx, moved.map(([id]) => id)]);
        if (moved.length === 0 || tried.has(what) || best?.found.sum === 0) continue;
        tried.add(what);
        const at = new Map(places);
        for (const [id, cell] of moved) at.set(id, { ...cell, x: cell.x + dx, y: cell.y + dy });
        const found = faultsOf(at);
        if (!best || found.sum < best.found.sum) best = { at, found };
      }
    if (!best || best.found.sum >= now.sum) return;
    for (const [id, cell] of best.at) places.set(id, cell);
    now = best.found;
  }
}
