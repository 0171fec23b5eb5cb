/** Hoses as commands change them: what meets a port, and lengths that are worked out. */
import type { Id } from "../kinds/record";
import { distanceM, placedPorts, portKey, samePort } from "../plan/ports";
import { isTooShort, runGeometry } from "../plan/route";
import type { Job, Plan, PortRef, Run } from "../plan/types";
import { CommandRefused } from "./command";
import { found } from "./find";

/** A hose is this much longer than the straight way until it is measured. Common practice, no source. */
export const HOSE_OVER_STRAIGHT = 1.15;
const LEAST_HOSE_M = 0.1;

export function portAt(job: Job, plan: Plan, ref: PortRef) {
  return found(placedPorts(job, plan).get(portKey(ref)), portKey(ref));
}

export function straightHose(job: Job, plan: Plan, from: PortRef, to: PortRef): number {
  const straight = distanceM(portAt(job, plan, from).position, portAt(job, plan, to).position);
  return Math.max(LEAST_HOSE_M, Math.round(straight * HOSE_OVER_STRAIGHT * 1000) / 1000);
}

export function refuseTaken(plan: Plan, ref: PortRef): void {
  const taken = [...plan.runs, ...plan.joints].some(
    ({ from, to }) => samePort(from, ref) || samePort(to, ref),
  );
  if (taken) throw new CommandRefused("portTaken", portKey(ref));
}

/** A length that was worked out, not measured: whatever was entered for the old one no longer stands. */
export function setWorkedOutLength(run: Run, lengthM: number): void {
  run.route = { kind: "measured", lengthM, bends: [], extremes: [] };
  if (run.given) delete run.given.lengthM;
}

export type Connection = { item: { id: Id; from: PortRef; to: PortRef }; far: PortRef; isRun: boolean };

export function connectionAt(plan: Plan, ref: PortRef): Connection | null {
  for (const item of plan.runs) {
    if (samePort(item.from, ref)) return { item, far: item.to, isRun: true };
    if (samePort(item.to, ref)) return { item, far: item.from, isRun: true };
  }
  for (const item of plan.joints) {
    if (samePort(item.from, ref)) return { item, far: item.to, isRun: false };
    if (samePort(item.to, ref)) return { item, far: item.from, isRun: false };
  }
  return null;
}

export function drop(plan: Plan, id: Id): void {
  plan.runs = plan.runs.filter((run) => run.id !== id);
  plan.joints = plan.joints.filter((joint) => joint.id !== id);
}

/**
 * Hoses of a part that no longer reach are given a worked-out length. One that was measured is left
 * (and the change then refused as too short) unless the change itself put its end elsewhere.
 * @returns hoses whose measured length was given up
 */
export function fitHoses(job: Job, plan: Plan, id: Id, { evenMeasured }: { evenMeasured: boolean }): Id[] {
  const ports = placedPorts(job, plan);
  return plan.runs.flatMap((run) => {
    const from = ports.get(portKey(run.from));
    const to = ports.get(portKey(run.to));
    if ((run.from.part !== id && run.to.part !== id) || !from || !to) return [];
    const isMeasured = run.given?.lengthM?.basis === "measured";
    if (!isTooShort(runGeometry(run, from, to)) || (isMeasured && !evenMeasured)) return [];
    setWorkedOutLength(run, straightHose(job, plan, run.from, run.to));
    return isMeasured ? [run.id] : [];
  });
}
