/** The plumbing as it is drawn: bodies where they stand, hoses on their ways, px. */
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import type { Cell } from "../plan/types";
import { extentOf, portCells, routed } from "./grid";
import { CELL_PX, type DrawnNode, drawnHoses, drawnNodes, type Side } from "./nodes";
import { type Settled, settled } from "./settle";

export interface Placed {
  width: number;
  height: number;
  /** With the room of their names. */
  nodes: Map<
    Id,
    { x: number; y: number; width: number; height: number; bodyHeight: number; kind: DrawnNode["kind"] }
  >;
  ports: Map<string, { x: number; y: number; side: Side }>;
  edges: Map<Id, { x: number; y: number }[]>;
  /** Where bodies stand by the plan's own places. */
  cells: Map<Id, Cell>;
}

/** A plan's drawing by the places it has; what has none is placed among them. */
export function placedOf(network: Network): Placed {
  return drawn(network, settled(network, network.plan));
}

export function drawn(network: Network, { places, sides }: Settled): Placed {
  const nodes = drawnNodes(network, sides);
  const at = new Map(Object.entries(places));
  const { ways } = routed(nodes, at, drawnHoses(network, nodes));
  const { left, top, width, height } = extentOf(nodes, at, ways);
  const px = (cell: Cell) => ({ x: (cell.x - left) * CELL_PX, y: (cell.y - top) * CELL_PX });
  const ports = portCells(nodes, at);
  return {
    width: width * CELL_PX,
    height: height * CELL_PX,
    nodes: new Map(
      nodes.map(({ id, kind, widthPx, heightPx, rowPx, label }) => {
        const { x, y } = px(at.get(id) as Cell);
        const height = label ? label.topPx + label.heightPx : heightPx;
        return [id, { x, y: y - rowPx, width: widthPx, height, bodyHeight: heightPx, kind }];
      }),
    ),
    ports: new Map(
      nodes.flatMap((node) =>
        node.ports.map(({ key, side }) => [key, { ...px(ports.get(key) as Cell), side }] as const),
      ),
    ),
    edges: new Map([...ways].map(([id, { points }]) => [id, (points ?? []).map(px)] as const)),
    cells: at,
  };
}
