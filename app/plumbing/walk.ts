/** Where an arrow leads on the drawing: right and left along the hoses, up and down over branches. */
import type { Placed } from "~/core/drawing/placed";
import type { Id } from "~/core/kinds/record";
import { portKey } from "~/core/plan/ports";
import type { Plan, PortRef } from "~/core/plan/types";

export type Arrow = "ArrowLeft" | "ArrowRight" | "ArrowUp" | "ArrowDown";
export const isArrow = (key: string): key is Arrow => /^Arrow(Left|Right|Up|Down)$/.test(key);

interface Joined {
  id: Id;
  from: PortRef;
  to: PortRef;
  /** Screwed together: nothing to stop at on the way. */
  isJoint: boolean;
}

/** Against an upright step a step aside counts this much less: the nearest in a row comes first. */
const ASIDE = 2;

/** What an arrow leads to from a part or hose; null where nothing lies that way. */
export function stepFrom(plan: Plan, placed: Placed, id: Id, arrow: Arrow): Id | null {
  const all: Joined[] = [
    ...plan.runs.map((run) => ({ ...run, isJoint: false })),
    ...plan.joints.map((joint) => ({ ...joint, isJoint: true })),
  ].filter((one) => placed.edges.has(one.id));
  const at = (ref: PortRef) => placed.ports.get(portKey(ref)) ?? { x: 0, y: 0, side: "EAST" as const };
  const isAlong = arrow === "ArrowLeft" || arrow === "ArrowRight";
  const hose = all.find((one) => one.id === id && !one.isJoint);
  if (hose) {
    if (isAlong) {
      const [left, right] = at(hose.from).x <= at(hose.to).x ? [hose.from, hose.to] : [hose.to, hose.from];
      return (arrow === "ArrowRight" ? right : left).part;
    }
    for (const end of [hose.from, hose.to]) {
      const own = (one: Joined) => (one.from.part === end.part ? one.from : one.to);
      const row = all
        .filter((one) => !one.isJoint && (one.from.part === end.part || one.to.part === end.part))
        .sort((a, b) => at(own(a)).y - at(own(b)).y || (a.id < b.id ? -1 : 1));
      const next = row[row.findIndex((one) => one.id === id) + (arrow === "ArrowDown" ? 1 : -1)];
      if (next) return next.id;
    }
    return null;
  }
  if (isAlong) {
    const side = arrow === "ArrowRight" ? "EAST" : "WEST";
    const meets = all
      .flatMap((one) =>
        [one.from, one.to].flatMap((own) =>
          own.part === id && at(own).side === side
            ? [{ one, own, far: own === one.from ? one.to : one.from }]
            : [],
        ),
      )
      .sort((a, b) => at(a.own).y - at(b.own).y);
    const [first] = meets;
    if (first) return first.one.isJoint ? first.far.part : first.one.id;
  }
  return nearest(placed, id, arrow);
}

/** The nearest body that way. */
function nearest(placed: Placed, id: Id, arrow: Arrow): Id | null {
  const middles = new Map(
    [...placed.nodes].map(([own, { x, y, width, bodyHeight }]) => [
      own,
      { x: x + width / 2, y: y + bodyHeight / 2 },
    ]),
  );
  return nearestThatWay(middles, id, arrow);
}

/** Of some points the nearest in the arrow's direction, those straight ahead before those aside; null where none lies there. */
export function nearestThatWay(
  middles: ReadonlyMap<Id, { x: number; y: number }>,
  id: Id,
  arrow: Arrow,
): Id | null {
  const here = middles.get(id);
  if (!here) return null;
  const [dx, dy] = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[arrow] as [
    number,
    number,
  ];
  let best: { id: Id; cost: number } | null = null;
  for (const [other, there] of middles) {
    const ahead = (there.x - here.x) * dx + (there.y - here.y) * dy;
    if (other === id || ahead <= 1) continue;
    const aside = Math.abs((there.x - here.x) * dy) + Math.abs((there.y - here.y) * dx);
    const cost = ahead + ASIDE * aside;
    if (!best || cost < best.cost) best = { id: other, cost };
  }
  return best?.id ?? null;
}
