/** Order of joints from tank to consumer for a line-up, with the fuel that fills each section. */
import type { FuelWay } from "../hydraulics/route";
import type { SolvedLineUp } from "../hydraulics/solve";
import { kindOf } from "../kinds/index";
import type { Id } from "../kinds/record";
import { runVolumeM3 } from "../plan/route";
import type { Plan } from "../plan/types";

export interface BleedStep {
  /** Part whose joint is opened, and on which side of it. */
  partId: Id;
  partName: string;
  at: "inlet" | "outlet";
  /** What is filled to get there. */
  sectionId: string;
  sectionM3: number;
  totalM3: number;
  zM: number;
  /** Higher than what comes before and after it: air gathers here. */
  isHigh: boolean;
  /**
   * Height of the joint over the fuel in the tank, m, where no pump stands before it; else null.
   * Over the fuel nothing runs out by itself, and a pump on the far side would draw air in.
   */
  overFuelM: number | null;
}

/** Volume of what is passed in a part: as its kind gives it, other parts two bores long of their own. */
function partVolumeM3(plan: Plan, id: Id, boreM: number): number {
  const part = plan.parts.find((one) => one.id === id);
  return (part && kindOf(part).volumeM3(part)) ?? runVolumeM3(boreM, 2 * boreM);
}

/** Part at whose joint a hose ends: the next part, a gauge let in there, or the end of the way. */
function endOfRun(way: FuelWay, index: number): Id | undefined {
  const legs = way.legs.filter(({ side }) => side === "feed");
  const next = legs[index + 1];
  if (next?.kind === "part") return next.id;
  const endM = legs[index]?.points.at(-1)?.atM ?? 0;
  const gauge = way.stations.find(({ kind, atM }) => kind === "gauge" && Math.abs(atM - endM) < 1e-9);
  if (next && gauge) return gauge.id;
  return way.consumer?.id ?? way.stations.at(-1)?.id;
}

/** Air gathers within this reach of a point that stands over its neighbours. */
const NEAR_M = 0.5;

/** `surfaceM` is the fuel's height in the tank the way starts from. Sections in the order of the flow; parts screwed together are one section, opened at the last of them. */
function bleedSteps(plan: Plan, way: FuelWay, surfaceM: number): BleedStep[] {
  const steps: BleedStep[] = [];
  const heights = way.legs.flatMap(({ points }) => points);
  const feed = way.legs.filter(({ side }) => side === "feed");
  let totalM3 = 0;
  let sectionM3 = 0;
  let isPushed = false;
  feed.forEach((leg, i) => {
    const isRun = leg.kind === "run";
    const ownM3 = isRun ? runVolumeM3(leg.boreM, leg.lengthM) : partVolumeM3(plan, leg.id, leg.boreM);
    totalM3 += ownM3;
    sectionM3 += ownM3;
    if (leg.id === way.firstPumpId) isPushed = true;
    const partId = isRun ? endOfRun(way, i) : leg.id;
    const station = way.stations.find(({ id }) => id === partId);
    if (!station || (!isRun && feed[i + 1]?.kind === "part")) return;
    const end = leg.points.at(-1);
    const near = heights.filter(({ atM }) => Math.abs(atM - (end?.atM ?? 0)) < NEAR_M).map(({ zM }) => zM);
    const zM = end?.zM ?? 0;
    steps.push({
      partId: station.id,
      partName: station.name,
      at: isRun ? "inlet" : "outlet",
      sectionId: leg.id,
      sectionM3,
      totalM3,
      zM,
      isHigh: zM >= Math.max(...near) - 1e-9 && Math.min(...near) < zM,
      overFuelM: isPushed ? null : zM - surfaceM,
    });
    sectionM3 = 0;
  });
  return steps;
}

/** Steps of a solved line-up. */
export function bleedLineUp(plan: Plan, solved: SolvedLineUp, way: FuelWay): BleedStep[] {
  const tank = way.stations[0]?.id ?? "";
  return bleedSteps(plan, way, solved.settings.surfaceM.get(tank) ?? 0);
}
