/**
 * Parts on a board: what clashes, by how much. Boxes in the board's frame: x to the right, z up, y out of the board.
 * A turn is a quarter, anticlockwise seen from the front; a part stays in the corner that it is put in.
 */

const TOUCHING = 1e-9;

export interface Box {
  x: number;
  z: number;
  w: number;
  h: number;
}
export interface Solid extends Box {
  y0: number;
  y1: number;
}
export interface Service extends Solid {
  kind: string;
}

export interface PanelPart {
  id: string;
  w: number;
  h: number;
  serviced?: boolean;
  bodies: readonly Solid[];
  service?: readonly Service[];
}

export interface Hung {
  x: number;
  z: number;
  /** Quarters. */
  t: number;
}

export interface Panel {
  board: Box;
  opening: Box;
  parts: readonly PanelPart[];
  at: readonly Hung[];
  gap: number;
  /** What stands on the board and is no part of the plan. */
  fixed?: readonly (Solid & { id?: string })[] | undefined;
}

export type ClashCode = "bodies" | "serviceBlocked" | "outOfReach" | "offBoard";

export interface Clash {
  code: ClashCode;
  a: string;
  /** The other part, or the service that is out of reach; null off the board. */
  b: string | null;
  /** The least move that frees them, in the panel's own unit. */
  by: number;
  /** What they both want; null where they are only too near, or where nobody else is concerned. */
  where: Box | null;
  /** Kinds of the service rooms that are taken, or out of reach. */
  rooms: readonly string[];
}

const sharedBox = (a: Box, b: Box): Box | null => {
  const [x, z] = [Math.max(a.x, b.x), Math.max(a.z, b.z)];
  const [w, h] = [Math.min(a.x + a.w, b.x + b.w) - x, Math.min(a.z + a.h, b.z + b.h) - z];
  return w > TOUCHING && h > TOUCHING ? { x, z, w, h } : null;
};

/** A box of a part that is turned, in the part's own frame of then. */
export function turned<B extends Box>(box: B, { w, h }: Pick<PanelPart, "w" | "h">, t: number): B {
  let [one, width, height] = [box, w, h];
  for (let i = 0; i < ((t % 4) + 4) % 4; i++) {
    one = { ...one, x: height - one.z - one.h, z: one.x, w: one.h, h: one.w };
    [width, height] = [height, width];
  }
  return one;
}

/** A box of a part that hangs there, in the board's frame. */
export const placedIn = <B extends Box>(box: B, part: PanelPart, { x, z, t }: Hung): B => {
  const one = turned(box, part, t);
  return { ...one, x: one.x + x, z: one.z + z };
};

/** Room between two boxes along one axis: less than nothing is the least way out of each other. */
const apart = (a0: number, a1: number, b0: number, b1: number) => Math.max(b0 - a1, a0 - b1);

/** How far two boxes must be moved to stand `gap` apart, across or up; nothing where they do. */
export function tooNear(a: Solid, b: Solid, gap: number): number {
  if (Math.min(a.y1, b.y1) - Math.max(a.y0, b.y0) <= TOUCHING) return 0;
  const across = apart(a.x, a.x + a.w, b.x, b.x + b.w);
  const up = apart(a.z, a.z + a.h, b.z, b.z + b.h);
  return Math.max(0, Math.min(gap - across, gap - up));
}

/** How far a box stands out of another. */
const outOf = (box: Box, frame: Box): number =>
  Math.max(
    0,
    frame.x - box.x,
    frame.z - box.z,
    box.x + box.w - frame.x - frame.w,
    box.z + box.h - frame.z - frame.h,
  );

/** Every clash of a board, parts in their order: bodies, service rooms, reach through the opening, the board's edge. */
export function panelClashes({ board, opening, parts, at, gap, fixed = [] }: Panel): Clash[] {
  const placed = parts.map((part, i) => {
    const where = at[i] ?? { x: 0, z: 0, t: 0 };
    return {
      id: part.id,
      serviced: part.serviced ?? false,
      bodies: part.bodies.map((body) => placedIn(body, part, where)),
      service: (part.service ?? []).map((one) => placedIn(one, part, where)),
    };
  });
  type Near = { by: number; where: Box | null; rooms?: readonly string[] };
  const worst = (as: readonly Solid[], bs: readonly Solid[], least: number): Near => {
    let found: Near = { by: 0, where: null };
    for (const a of as)
      for (const b of bs) {
        const by = tooNear(a, b, least);
        if (by > found.by) found = { by, where: sharedBox(a, b) };
      }
    return found;
  };
  /** Of the rooms that are taken the worst, with all their kinds. */
  const taken = (rooms: readonly Service[], bodies: readonly Solid[]): Near => {
    const each = rooms
      .map((room) => ({ ...worst([room], bodies, 0), kind: room.kind }))
      .filter(({ by }) => by > TOUCHING);
    const most = each.reduce<Near>((found, one) => (one.by > found.by ? one : found), { by: 0, where: null });
    return { by: most.by, where: most.where, rooms: each.map(({ kind }) => kind) };
  };
  const clashes: Clash[] = [];
  const told = (code: ClashCode, a: string, b: string | null, { by, where, rooms = [] }: Near) => {
    if (by > TOUCHING) clashes.push({ code, a, b, by, where, rooms });
  };
  placed.forEach((one, i) => {
    for (const other of placed.slice(i + 1)) {
      told("bodies", one.id, other.id, worst(one.bodies, other.bodies, gap));
      told("serviceBlocked", one.id, other.id, taken(one.service, other.bodies));
      told("serviceBlocked", other.id, one.id, taken(other.service, one.bodies));
    }
  });
  for (const { id, serviced, bodies, service } of placed) {
    for (const one of fixed) {
      told("bodies", id, one.id ?? null, worst(bodies, [one], gap));
      told("serviceBlocked", id, one.id ?? null, taken(service, [one]));
    }
    if (serviced)
      for (const volume of service)
        told("outOfReach", id, volume.kind, {
          by: outOf(volume, opening),
          where: null,
          rooms: [volume.kind],
        });
    told("offBoard", id, null, { by: Math.max(0, ...bodies.map((body) => outOf(body, board))), where: null });
  }
  return clashes;
}
