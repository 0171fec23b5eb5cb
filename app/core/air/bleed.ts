/** Order of joints from tank to consumer for a line-up, with the fuel that fills each section. */
import type { FuelWay } from "../hydraulics/route";
import { runVolumeM3 } from "../plan/route";
import type { Id, Plan } from "../plan/types";

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
}

/** Volume of what is passed in a part: a filter's bowl as given, other parts two bores long of their own. */
function partVolumeM3(plan: Plan, id: Id, boreM: number): number {
  const part = plan.parts.find((one) => one.id === id);
  return part?.kind === "filter" ? part.volumeM3 : runVolumeM3(boreM, 2 * boreM);
}

export function bleedSteps(plan: Plan, way: FuelWay): BleedStep[] {
  const steps: BleedStep[] = [];
  let totalM3 = 0;
  const feed = way.legs.filter(({ side }) => side === "feed");
  feed.forEach((leg, i) => {
    const isRun = leg.kind === "run";
    const sectionM3 = isRun ? runVolumeM3(leg.boreM, leg.lengthM) : partVolumeM3(plan, leg.id, leg.boreM);
    totalM3 += sectionM3;
    const endM = leg.points.at(-1)?.atM ?? 0;
    const next = feed[i + 1];
    const partId = isRun ? (next?.kind === "part" ? next.id : way.consumer?.id) : leg.id;
    const station = way.stations.find(({ id }) => id === partId);
    if (!station || partId === undefined || (!isRun && next?.kind === "part")) return;
    const heights = way.legs.flatMap(({ points }) => points);
    const near = heights.filter(({ atM }) => Math.abs(atM - endM) < 0.5).map(({ zM }) => zM);
    const zM = leg.points.at(-1)?.zM ?? 0;
    steps.push({
      partId,
      partName: station.name,
      at: isRun ? "inlet" : "outlet",
      sectionId: leg.id,
      sectionM3,
      totalM3,
      zM,
      isHigh: zM >= Math.max(...near) - 1e-9 && Math.min(...near) < zM,
    });
  });
  return steps;
}
