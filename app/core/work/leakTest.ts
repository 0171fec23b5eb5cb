/** The joints of a line-up to look at with the pump on, in the order of the flow, and what the book says of each. */

import { type Book, entriesOf, type LeakCheck } from "../book/entries";
import type { FuelWay } from "../hydraulics/route";
import { placedPorts, portKey } from "../plan/ports";
import type { Job, Plan, PortRef } from "../plan/types";

export interface LeakJoint {
  key: string;
  joint: PortRef;
  partName: string;
  portName: string;
  /** What a leak does here: under vacuum it draws air in, under pressure it lets fuel out. */
  state: "vacuum" | "pressure";
  gaugePa: number;
  side: "feed" | "return";
  /** The last entry of this plan's book. */
  check: LeakCheck | null;
}

export function leakJoints(job: Job, plan: Plan, book: Book, way: FuelWay): LeakJoint[] {
  const ports = placedPorts(job, plan);
  const checks = entriesOf(book, "leakCheck").filter(({ planId }) => planId === plan.id);
  // The last look at each joint stands.
  const checked = new Map(checks.map((check) => [portKey(check.joint), check]));
  const joints = new Map<string, LeakJoint>();
  const add = (ref: PortRef, gaugePa: number, side: LeakJoint["side"]) => {
    const key = portKey(ref);
    const port = ports.get(key);
    if (!port || joints.has(key)) return;
    joints.set(key, {
      key,
      joint: ref,
      partName: port.ownerName,
      portName: port.name,
      state: gaugePa < 0 ? "vacuum" : "pressure",
      gaugePa,
      side,
      check: checked.get(key) ?? null,
    });
  };
  const runs = new Map(plan.runs.map((run) => [run.id, run]));
  const onWay = new Set(way.stations.map(({ id }) => id));
  for (const leg of way.legs) {
    const run = runs.get(leg.id);
    const [first, last] = [leg.points[0]?.gaugePa ?? 0, leg.points.at(-1)?.gaugePa ?? 0];
    if (run) {
      const ends = way.stations.some(
        ({ id, atM }) => id === run.from.part && Math.abs(atM - (leg.points[0]?.atM ?? 0)) < 1e-9,
      );
      const [up, down] = ends ? [run.from, run.to] : [run.to, run.from];
      add(up, first, leg.side);
      add(down, last, leg.side);
    } else {
      for (const joint of plan.joints) {
        if (
          (joint.from.part === leg.id || joint.to.part === leg.id) &&
          onWay.has(joint.from.part) &&
          onWay.has(joint.to.part)
        )
          add(joint.from, first, leg.side);
      }
    }
  }
  return [...joints.values()];
}
