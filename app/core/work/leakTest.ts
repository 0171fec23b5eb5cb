/** The joints of a line-up to look at in a state of the system, in the order of the flow, and what the book says of each. */

import type { Book, LeakCheck } from "../book/entries";
import { lastLooks } from "../book/looks";
import type { FuelWay } from "../hydraulics/route";
import { isPowered } from "../kinds/families";
import type { Network } from "../network/network";
import { portKey } from "../plan/ports";
import type { Conditions, LineUp, Plan } from "../plan/types";
import { type JointStates, jointStates, type LeakState, type Under } from "./leakStates";

export interface LeakJoint extends JointStates {
  state: LeakState;
  /** Under pressure it lets fuel out, under vacuum it draws air in; shut in between valves nothing is known of it. */
  now: Under;
  nowPa: number | null;
  /** The last look at it in this state, by the book. */
  check: LeakCheck | null;
  /** Wet at the last look in any state: a Stop until it is dry. */
  isWet: boolean;
}

/** The state to begin with: a pump that runs by itself tests with the engine off, an engine's own only as it runs. */
export const firstState = (plan: Plan, lineUp: LineUp): LeakState =>
  plan.parts.some((part) => isPowered(part) && lineUp.pumps[part.id] === "on") ? "pumpOnly" : "running";

/** Joints along the way of the fuel, by their keys. */
function alongWay(plan: Plan, way: FuelWay): string[] {
  const runs = new Map(plan.runs.map((run) => [run.id, run]));
  const onWay = new Set(way.stations.map(({ id }) => id));
  return way.legs.flatMap((leg) => {
    const run = runs.get(leg.id);
    if (run) {
      const isForward = way.stations.some(
        ({ id, atM }) => id === run.from.part && Math.abs(atM - (leg.points[0]?.atM ?? 0)) < 1e-9,
      );
      return (isForward ? [run.from, run.to] : [run.to, run.from]).map(portKey);
    }
    return plan.joints
      .filter(
        ({ from, to }) =>
          (from.part === leg.id || to.part === leg.id) && onWay.has(from.part) && onWay.has(to.part),
      )
      .map(({ from }) => portKey(from));
  });
}

/**
 * Every joint that fuel stands at in this state, first those on the way of the fuel, then the others; those that are shut
 * in are listed apart, since this state tells nothing of them.
 */
export function leakTest(
  network: Network,
  lineUp: LineUp,
  conditions: Conditions,
  state: LeakState,
  book: Book,
  way: FuelWay | null,
): { wetted: LeakJoint[]; shutIn: LeakJoint[] } {
  const { plan } = network;
  const looks = lastLooks(book, plan.id, state);
  const last = lastLooks(book, plan.id);
  const order = new Map((way ? alongWay(plan, way) : []).map((key, i) => [key, i]));
  const rank = ({ key }: JointStates) => order.get(key) ?? Number.MAX_SAFE_INTEGER;
  const all = jointStates(network, lineUp, conditions)
    .map(
      (one): LeakJoint => ({
        ...one,
        state,
        now: one.under[state],
        nowPa: one.gaugePa[state],
        check: looks.get(one.key) ?? null,
        isWet: last.get(one.key)?.result === "wet",
      }),
    )
    .sort((a, b) => rank(a) - rank(b));
  return {
    wetted: all.filter(({ now }) => now !== "unknown"),
    shutIn: all.filter(({ now }) => now === "unknown"),
  };
}
