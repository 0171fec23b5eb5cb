/** A run over time as plain figures with units in the names: what the command line prints. */

import type { Id } from "../kinds/record";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { DutyStep, Job } from "../plan/types";
import { fromSi, HOUR_S } from "../units/factors";
import { enduranceH, type RunEvent, runOverTime } from "./run";

const litres = (record: Record<Id, number>) =>
  Object.fromEntries(Object.entries(record).map(([id, m3]) => [id, fromSi("volume", m3, "L")]));
const kpa = (pa: number | null) => (pa === null ? null : fromSi("pressure", pa, "kPa"));

/** Without a duty of its own a plan is run for a working day on its first line-up that runs. */
export function dutyOf(job: Job): DutyStep[] {
  const plan = currentPlan(job);
  if (plan.duty && plan.duty.length > 0) return plan.duty;
  const first = plan.lineUps.find(({ purpose }) => purpose === "run") ?? plan.lineUps[0];
  if (!first) return [];
  return [{ id: "day", hours: 10, lineUpId: first.id, load: 0.5, pitchDeg: 0, rollDeg: 0 }];
}

function eventReport({ atS, ...event }: RunEvent) {
  const si: Record<string, unknown> = { atH: atS / HOUR_S, ...event };
  for (const [key, value] of Object.entries(si)) {
    if (typeof value !== "number") continue;
    if (key.endsWith("M3")) {
      delete si[key];
      si[key.replace("M3", "L")] = fromSi("volume", value, "L");
    } else if (key.endsWith("Pa")) {
      delete si[key];
      si[key.replace("Pa", "Kpa")] = kpa(value);
    }
  }
  return si;
}

/** The plan's duty from its conditions, in air at `ambientC`; with how long each line-up that runs would feed. */
export function runReport(job: Job, ambientC: number) {
  const network = buildNetwork(job);
  const { plan } = network;
  const duty = dutyOf(job);
  const run = runOverTime(network, plan.conditions, duty, { ambientC });
  const endurance = plan.lineUps
    .filter(({ purpose }) => purpose === "run")
    .map((lineUp) => {
      const found = enduranceH(network, lineUp, plan.conditions, { ambientC });
      return [
        lineUp.id,
        found && { hours: found.hours, burnedL: fromSi("volume", found.burnedM3, "L") },
      ] as const;
    });
  return {
    job: job.id,
    plan: plan.id,
    ambientC,
    hours: run.ofS / HOUR_S,
    burnedL: fromSi("volume", run.burnedM3, "L"),
    duty,
    events: run.events.map(eventReport),
    endurance: Object.fromEntries(endurance),
    points: run.points.map((point) => ({
      atH: point.atS / HOUR_S,
      lineUpId: point.lineUpId,
      aboardL: litres(point.aboardM3),
      tempC: point.tempC,
      spilledL: litres(point.spilledM3),
      potL: litres(point.potM3),
      loading: point.loading,
      vacuumKpa: kpa(point.vacuumPa),
      limitKpa: kpa(point.limitPa),
    })),
  };
}
