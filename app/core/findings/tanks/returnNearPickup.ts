/**
 * Practice 10: a return mouth within 300 mm of a pickup, or in the same baffle box. A mouth over the fuel's level falls:
 * only the distance in plan counts then. Common practice.
 */

import type { Position } from "../../kinds/record";
import { distanceM, joinedPorts, portKey } from "../../plan/ports";
import { type Plan, schoolOf, type Tank } from "../../plan/types";
import { boundsOf } from "../../tanks/shape";
import { levelOfVolumeM } from "../../tanks/tank";
import { onTank } from "../onTank";
import { rule } from "../rule";

export const LEAST_APART_M = 0.3;

/** Distance of a return's mouth from a pickup's: in plan where the return's stands over the level, tank frame. */
const mouthsApartM = (back: Position, out: Position, levelM: number): number =>
  back.zM > levelM ? Math.hypot(back.xM - out.xM, back.yM - out.yM) : distanceM(back, out);

/** Ends of the space between two baffles, or a baffle and the tank's end, along one axis. */
function cell(ends: readonly [number, number], baffles: readonly number[], at: number): [number, number] {
  const walls = [...ends, ...baffles].sort((a, b) => a - b);
  const over = walls.findIndex((wall) => wall > at);
  return over < 1 ? [ends[0], ends[1]] : [walls[over - 1] as number, walls[over] as number];
}

/** A box is a space that baffles close on both sides of an axis, or in a corner: one single baffle makes none. */
function sameBox(tank: Tank, a: Position, b: Position): boolean {
  const { baffles = [] } = tank;
  const { x, y } = boundsOf(tank.shape);
  const along = (across: "x" | "y") => baffles.filter((one) => one.across === across).map(({ atM }) => atM);
  const walls = { x: along("x"), y: along("y") };
  const isClosed = (axis: "x" | "y", [low, high]: [number, number]) =>
    walls[axis].includes(low) && walls[axis].includes(high);
  const cells = [a, b].map(({ xM, yM }) => ({ x: cell(x, walls.x, xM), y: cell(y, walls.y, yM) }));
  const [first, second] = cells;
  if (!first || !second || String(first.x) !== String(second.x) || String(first.y) !== String(second.y))
    return false;
  const isCorner = walls.x.some((at) => first.x.includes(at)) && walls.y.some((at) => first.y.includes(at));
  return isClosed("x", first.x) || isClosed("y", first.y) || isCorner;
}

/** Outlets that a hose draws from; all of them where none does yet. A pickup that feeds nothing is no pickup. */
function feedingOutlets(tank: Tank, plan: Plan): Tank["ports"] {
  const outlets = tank.ports.filter(({ role }) => role === "outlet");
  const joined = joinedPorts(plan);
  const feeding = outlets.filter(({ id }) => joined.has(portKey({ part: tank.id, port: id })));
  return feeding.length > 0 ? feeding : outlets;
}

/** Each return's mouth against each pickup's that feeds. */
const pairsOf = (tank: Tank, plan: Plan, levelM: number) =>
  tank.ports
    .filter(({ role }) => role === "return")
    .flatMap((back) =>
      feedingOutlets(tank, plan).map((out) => ({
        apartM: mouthsApartM(back.mouth, out.mouth, levelM),
        isBoxed: !!tank.baffles?.length && sameBox(tank, back.mouth, out.mouth),
      })),
    );

/** How near a return's mouth comes to a pickup's that feeds, m; null where the tank has not both. */
export function returnApartM(tank: Tank, plan: Plan, levelM: number): number | null {
  const pairs = pairsOf(tank, plan, levelM);
  return pairs.length === 0 ? null : Math.min(...pairs.map(({ apartM }) => apartM));
}

export const returnNearPickup = rule({
  id: "returnNearPickup",
  practice: [10],
  place: "survey",
  judge: ({ job, plan }) =>
    job.tanks.flatMap((tank) => {
      // A return led into the pickup's own well by a jet or a swirl pot is meant to be near.
      const isLedIn = plan.parts.some(({ kind }) => kind === "jetPump" || kind === "swirlPot");
      if (isLedIn && schoolOf(job.schools, "returnMouth") === "jetOrSwirl") return [];
      const levelM = levelOfVolumeM(tank, plan.conditions.aboardM3[tank.id] ?? 0);
      const pairs = pairsOf(tank, plan, levelM);
      const apartM = returnApartM(tank, plan, levelM) ?? Infinity;
      const isBoxed = pairs.some((pair) => pair.isBoxed);
      if (!(apartM < LEAST_APART_M) && !isBoxed) return [];
      return [
        onTank({
          grade: "mend",
          tank,
          school: "awayFromPickup",
          values: { apartM, leastM: LEAST_APART_M, boxed: isBoxed ? 1 : 0 },
          figure: -apartM,
        }),
      ];
    }),
});
