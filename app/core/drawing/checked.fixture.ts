/** What may be wrong with a drawing, asked of its corners and boxes alone, whatever drew it. */
import type { Network } from "../network/network";
import type { Placed } from "./placed";
import { countsOf, stretchesOf } from "./tidy";

export interface Faults {
  /** Hoses that lie on one another, in px of drawing. */
  overPx: number;
  throughBodies: string[];
  overNames: string[];
  noWay: string[];
  bodiesMeet: string[];
  slanted: number;
  crossings: number;
  bends: number;
}

const close = (a: number, b: number) => Math.abs(a - b) < 0.5;

export function faultsOf({ plan }: Network, placed: Placed): Faults {
  const faults: Faults = {
    overPx: 0,
    throughBodies: [],
    overNames: [],
    noWay: [],
    bodiesMeet: [],
    slanted: 0,
    crossings: 0,
    bends: 0,
  };
  for (const { id } of [...plan.runs, ...plan.joints]) {
    const points = placed.edges.get(id);
    if (!points || points.length < 2) faults.noWay.push(id);
    else
      points.slice(1).forEach((b, i) => {
        const a = points[i]!;
        if (!close(a.y, b.y) && !close(a.x, b.x)) faults.slanted += 1;
      });
  }
  const segments = stretchesOf(placed);
  Object.assign(faults, countsOf(placed));
  segments.forEach((one, i) => {
    for (const other of segments.slice(0, i)) {
      if (one.hose === other.hose || one.isLevel !== other.isLevel) continue;
      const shared = Math.min(one.to, other.to) - Math.max(one.from, other.from);
      if (close(one.at, other.at) && shared > 0.5) faults.overPx += shared;
    }
  });
  const boxes = [...placed.nodes].map(([id, box]) => ({ id, ...box }));
  for (const { hose, isLevel, at, from, to } of segments) {
    for (const { id, x, y, width, height, bodyHeight } of boxes) {
      const cuts = (left: number, top: number, right: number, bottom: number) =>
        isLevel
          ? at > top + 0.5 && at < bottom - 0.5 && from < right - 0.5 && to > left + 0.5
          : at > left + 0.5 && at < right - 0.5 && from < bottom - 0.5 && to > top + 0.5;
      if (cuts(x, y, x + width, y + bodyHeight)) faults.throughBodies.push(`${hose} ${id}`);
      else if (height > bodyHeight && cuts(x, y + bodyHeight, x + width, y + height))
        faults.overNames.push(`${hose} ${id}`);
    }
  }
  boxes.forEach((a, i) => {
    for (const b of boxes.slice(0, i))
      if (a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height)
        faults.bodiesMeet.push(`${a.id} ${b.id}`);
  });
  return faults;
}
