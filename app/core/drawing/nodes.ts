/** What is drawn of a plan: bodies on a grid with ports on its lines, and hoses and joints between their ports. */
import { isConsumer, isConsumerKind } from "../kinds/families";
import type { Part } from "../kinds/index";
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import { partsOf, portKey, portsOf } from "../plan/ports";
import type { Cell, Plan, PortSides, Tank } from "../plan/types";
import { heightsOf } from "../tanks/tank";
import { BANK_HEAD_PX, bodyOf } from "./bodies";
import { labelRoom } from "./labels";

/** Between two lines of the grid, px. */
export const CELL_PX = 12;

export type Side = "WEST" | "EAST";

export const toCells = (px: number): number => Math.round(px / CELL_PX);

export interface DrawnPort {
  /** `part.port`. */
  key: string;
  side: Side;
  /** Rows under the row that its node stands on. */
  row: number;
}

/** A body by cells: it stands at a column, its left edge, and a row, that of its middle port. */
export interface DrawnNode {
  id: Id;
  kind: Part["kind"] | "tank";
  widthPx: number;
  heightPx: number;
  /** Its row from its top, px. */
  rowPx: number;
  /** Room under it for its name, px; it may be wider than the body. */
  label: { widthPx: number; heightPx: number; topPx: number } | null;
  /** Columns from its left edge to its right one; a tee has none. */
  columns: number;
  /** Rows of the body over and under its own row. */
  above: number;
  below: number;
  /** Rows under its own with its name, and columns by which the name stands out on each side. */
  foot: number;
  overhang: number;
  ports: DrawnPort[];
}

export interface DrawnHose {
  id: Id;
  from: string;
  to: string;
}

export const isTank = ({ kind }: DrawnNode): boolean => kind === "tank";
/** What burns fuel stands last. */
export const isLast = ({ kind }: DrawnNode): boolean => kind !== "tank" && isConsumerKind(kind);
export const isTee = ({ columns }: DrawnNode): boolean => columns === 0;

const cells = (px: number) => Math.ceil(px / CELL_PX - 1e-9);

function sized(
  of: Pick<DrawnNode, "id" | "kind" | "widthPx" | "heightPx" | "rowPx" | "label" | "ports">,
): DrawnNode {
  const { widthPx, heightPx, rowPx, label } = of;
  return {
    ...of,
    columns: cells(widthPx),
    above: cells(rowPx),
    below: cells(heightPx - rowPx),
    foot: cells(Math.max(heightPx, label ? label.topPx + label.heightPx : 0) - rowPx),
    overhang: label ? cells(Math.max(0, (label.widthPx - widthPx) / 2)) : 0,
  };
}

const TANK = { widthPx: 132, heightPx: 108, edgePx: 12 };
/** Rows between two hoses at a tank: apart enough to be seen and to be touched. */
const TANK_ROWS = 2;

/** Hoses go on where they really do, high or low on the tank, kept apart; one with many hoses is drawn higher. */
function tankNode(tank: Tank): DrawnNode {
  const { lowM, highM } = heightsOf(tank);
  const rows = Math.max(
    (TANK.heightPx - 2 * TANK.edgePx) / CELL_PX,
    TANK_ROWS * Math.max(0, tank.ports.length - 1),
  );
  const wanted = tank.ports.map((port) => {
    const share = Math.min(1, Math.max(0, (port.outside.zM - lowM) / (highM - lowM)));
    return { key: `${tank.id}.${port.id}`, row: Math.round((1 - share) * rows) };
  });
  wanted.sort((a, b) => a.row - b.row);
  wanted.forEach((port, i) => {
    const before = wanted[i - 1];
    if (before) port.row = Math.max(port.row, before.row + TANK_ROWS);
  });
  // Pushed off the foot they go up again, as far as they must.
  wanted.reduceRight((lowest, port) => {
    port.row = Math.min(port.row, lowest);
    return port.row - TANK_ROWS;
  }, rows);
  return sized({
    id: tank.id,
    kind: "tank",
    widthPx: TANK.widthPx,
    heightPx: rows * CELL_PX + 2 * TANK.edgePx,
    rowPx: TANK.edgePx,
    label: null,
    ports: wanted.map((port) => ({ ...port, side: "EAST" })),
  });
}

export type Sides = NonNullable<Plan["sides"]>;

/** Ports of a part by side: as they are known, and what is not known as it comes. */
export function sidesOf(part: Part, known: PortSides | undefined): PortSides {
  const ids = portsOf(part).map(({ id }) => id);
  if (isConsumer(part)) return { west: ids, east: [] };
  const [west, east] = [known?.west ?? [], known?.east ?? []].map((list) =>
    list.filter((id, i) => ids.includes(id) && list.indexOf(id) === i),
  ) as [Id[], Id[]];
  const held = east.filter((id) => !west.includes(id));
  for (const id of ids) {
    if (west.includes(id) || held.includes(id)) continue;
    // One way through has a port on each side; of more the first is to the left.
    const toWest = ids.length === 2 ? west.length === 0 : west.length + held.length === 0;
    (toWest ? west : held).push(id);
  }
  return { west, east: held };
}

function partNode(part: Part, sides: Sides): DrawnNode {
  const { width, height, portY, pitch: ownPitch, hangs } = bodyOf(part);
  const { west, east } = sidesOf(part, sides[part.id]);
  const pitch = ownPitch ?? 0;
  const rows = Math.max(west.length, east.length, 1);
  const rowPx = part.kind === "bank" ? portY + ((rows - 1) * pitch) / 2 : portY;
  const on = (side: Side, ids: readonly Id[]) =>
    ids.map((id, i) => ({
      key: `${part.id}.${id}`,
      side,
      row: Math.round(((i - (hangs ? 0 : (ids.length - 1) / 2)) * pitch) / CELL_PX),
    }));
  const room = labelRoom(part);
  return sized({
    id: part.id,
    kind: part.kind,
    widthPx: width,
    heightPx:
      part.kind === "bank" ? Math.max(height, rows * pitch + BANK_HEAD_PX + 10) : (room?.top ?? height),
    rowPx,
    label: room && { widthPx: room.width, heightPx: room.height, topPx: room.top },
    ports: [...on("WEST", west), ...on("EAST", east)],
  });
}

/** A tank that this plan leaves alone and another uses is the other's business. */
function tanksShown({ job, plan }: Network): Tank[] {
  const used = (one: Plan) =>
    new Set([...one.runs, ...one.joints].flatMap(({ from, to }) => [from.part, to.part]));
  const mine = used(plan);
  const elsewhere = new Set(job.plans.flatMap((one) => (one.id === plan.id ? [] : [...used(one)])));
  return job.tanks.filter(({ id }) => mine.has(id) || !elsewhere.has(id));
}

/** Everything that is drawn, tanks first, by the sides that its ports are on. */
export function drawnNodes(network: Network, sides: Sides): DrawnNode[] {
  const { job, plan } = network;
  return [...tanksShown(network).map(tankNode), ...partsOf(job, plan).map((part) => partNode(part, sides))];
}

/** Hoses and joints whose two ports are drawn. */
export function drawnHoses({ plan }: Network, nodes: readonly DrawnNode[]): DrawnHose[] {
  const keys = new Set(nodes.flatMap(({ ports }) => ports.map(({ key }) => key)));
  return [...plan.runs, ...plan.joints]
    .map(({ id, from, to }) => ({ id, from: portKey(from), to: portKey(to) }))
    .filter(({ from, to }) => keys.has(from) && keys.has(to) && from !== to);
}

export const ownerOf = (key: string): Id => key.slice(0, key.indexOf("."));

/** Lines between two bodies, so that a hose finds its way out of a port between them. */
const APART = { columns: 3, rows: 2 };

/** To its side: between names two lines are enough, since no port is there. */
const reach = ({ overhang }: DrawnNode) => Math.max(APART.columns, overhang + 1);

/** Do two bodies, their names with them, stand in one another's room? */
export function meet(a: DrawnNode, at: Cell, b: DrawnNode, other: Cell): boolean {
  return (
    at.x - reach(a) < other.x + b.columns + b.overhang &&
    other.x - reach(b) < at.x + a.columns + a.overhang &&
    at.y - a.above - APART.rows < other.y + b.foot &&
    other.y - b.above - APART.rows < at.y + a.foot
  );
}
