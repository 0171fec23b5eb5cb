/** Practice 11: fuel in the tank over 60 degC within the duty (common practice), or over the grade's flash point (its standard). */
import { blended } from "../../fuel/blend";
import { fuelAt } from "../../fuel/fuel";
import { grades } from "../../fuel/grades";
import { tankFlows } from "../../hydraulics/derive";
import { type LineUpVerdict, lowestUsableM3 } from "../../hydraulics/worst";
import type { Consumer } from "../../kinds/families";
import type { Network } from "../../network/network";
import { coolerOf } from "../../network/returnCooler";
import { engineFlows } from "../../network/settings";
import { walk } from "../../network/walk";
import type { Job, Tank } from "../../plan/types";
import { engineHeat, FUEL_TOO_HOT_C, type Heating, heatOverHours, hoursToLimit } from "../../tanks/heat";
import { onTank } from "../onTank";
import { rule } from "../rule";

/** A working day. Common practice, no source. */
export const DUTY_H = 10;

/** A tank without a pickup is run down to this. */
const LEAST_LEFT_M3 = 1e-3;

/** Consumers whose return can come to a tank, with every valve open. */
function returningTo(network: Network, tank: Tank): Consumer[] {
  const at = network.nodeOf.get(tank.id);
  return network.engines.flatMap(({ part, back }) => {
    if (back === null || at === undefined) return [];
    return walk(network.topology, [back], () => true).seen[at] ? [part] : [];
  });
}

/** What several returns make of the fuel as one: they meet in the shares that they bring. */
function meeting(returns: readonly { m3S: number; tempC: number; share: number }[]) {
  const m3S = returns.reduce((sum, one) => sum + one.m3S, 0);
  const share = returns.reduce((sum, one) => sum + one.m3S * one.share, 0) / m3S;
  const tempC = returns.reduce((sum, one) => sum + one.m3S * one.share * one.tempC, 0) / (m3S * share);
  return { tempC, share };
}

/** The tank's fuel warmed by the full return of all consumers that can send it there, run on this tank alone. */
export function heatingOf(network: Network, tank: Tank, aboardM3: number, ambientC: number): Heating | null {
  const { job } = network;
  const state = fuelAt(blended(job.fuel), ambientC);
  const returns = returningTo(network, tank).map((part) => {
    const { feedM3S, burnM3S } = engineFlows(part, 1);
    return { feedM3S, m3S: feedM3S - burnM3S, ...engineHeat(part, job.fuel) };
  });
  const returnM3S = returns.reduce((sum, { m3S }) => sum + m3S, 0);
  if (!state || !(aboardM3 > 0) || !(returnM3S > 0)) return null;
  return {
    tank,
    aboardM3,
    densityKgM3: state.densityKgM3,
    startC: ambientC,
    ambientC,
    feedM3S: returns.reduce((sum, { feedM3S }) => sum + feedM3S, 0),
    returnM3S,
    engine: meeting(returns),
    cooler: coolerOf(network, tank),
    hours: DUTY_H,
    leastM3: Math.max(LEAST_LEFT_M3, lowestUsableM3(job)[tank.id] ?? 0),
  };
}

/** Tanks that both feed and take back a running line-up: what warms them is their own return. */
function warmed({ lineUp, result }: LineUpVerdict, job: Job): boolean {
  if (result.outcome !== "solved" || lineUp.purpose !== "run") return false;
  return [...tankFlows(result).keys()].some((id) => job.tanks.some((tank) => tank.id === id));
}

export const returnHot = rule({
  id: "returnHot",
  practice: [11],
  place: "survey",
  judge: ({ job, plan, network, verdicts }) =>
    job.tanks.flatMap((tank) => {
      const lineUpIds = verdicts
        .filter((verdict) => warmed(verdict, job) && verdict.way?.stations.at(-1)?.id === tank.id)
        .map(({ lineUp }) => lineUp.id);
      if (lineUpIds.length === 0) return [];
      const heating = heatingOf(network, tank, plan.conditions.aboardM3[tank.id] ?? 0, job.site.ambientHighC);
      if (!heating) return [];
      const points = heatOverHours(heating);
      const hottestC = Math.max(...points.map(({ tempC }) => tempC));
      const flashC = grades[job.fuel.grade].leastFlashC;
      const overFlash = flashC !== null && hottestC > flashC && flashC <= FUEL_TOO_HOT_C;
      const limitC = overFlash ? flashC : FUEL_TOO_HOT_C;
      const hours = hoursToLimit(points, limitC);
      if (hours === null) return [];
      const values = { hottestC, limitC, hours, flash: overFlash ? 1 : 0 };
      return [
        {
          ...onTank({
            grade: "watch",
            tank,
            values,
            figure: hottestC,
            basis: overFlash ? "standard" : "common",
          }),
          lineUpIds,
        },
      ];
    }),
});
