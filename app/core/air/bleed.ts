/** Order of joints from tank to consumer for a line-up, with the fuel that fills each section. */
import type { FuelWay } from "../hydraulics/route";
import type { LineUpSolver, SolvedLineUp } from "../hydraulics/solve";
import { judgeLineUp, type LineUpVerdict } from "../hydraulics/worst";
import { kindOf } from "../kinds/index";
import type { Id } from "../kinds/record";
import { runVolumeM3 } from "../plan/route";
import type { Conditions, LineUp, Plan } from "../plan/types";

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

/** Where the fuel comes out: the consumer's inlet joint, loosened, or a bleed screw on the way to it. */
export interface OpenEnd {
  id: Id;
  name: string;
  kind: "joint" | "screw";
}

export interface Bleed {
  steps: BleedStep[];
  /** Where this line-up can be bled to, the farthest first. */
  ends: OpenEnd[];
  end: OpenEnd | null;
  /** Nothing runs that draws: the open end alone lets the fuel through. */
  isPriming: boolean;
}

const NOTHING: Bleed = { steps: [], ends: [], end: null, isPriming: false };

/** The way that opens when the inlet joint of a stopped consumer is loosened: the farthest of those that it leads to. */
function primingVerdict(solver: LineUpSolver, lineUp: LineUp, conditions: Conditions): LineUpVerdict | null {
  const verdicts = solver.network.engines.map(({ part: { id } }) =>
    judgeLineUp(solver, { ...lineUp, consumers: { ...lineUp.consumers, [id]: "running" } }, conditions, id),
  );
  const lengthM = ({ way }: LineUpVerdict) => way?.legs.at(-1)?.points.at(-1)?.atM ?? 0;
  return verdicts
    .filter(({ way, result }) => way?.consumer && result.outcome === "solved")
    .reduce<LineUpVerdict | null>((far, one) => (far && lengthM(far) >= lengthM(one) ? far : one), null);
}

/** The line-up's own way, or where nothing runs the way to the joint that is opened. */
export function bledWay(
  solver: LineUpSolver,
  verdict: LineUpVerdict,
  conditions: Conditions,
): { from: LineUpVerdict | null; isPriming: boolean } {
  const { lineUp } = verdict;
  const runs = Object.values(lineUp.consumers).includes("running");
  const isPriming = !runs && (lineUp.purpose === "prime" || !verdict.way);
  return { from: isPriming ? primingVerdict(solver, lineUp, conditions) : verdict, isPriming };
}

/**
 * The bleed of a line-up. Where no consumer runs and the line-up moves no fuel from tank to tank, the open end stands in
 * for one: the consumer's inlet joint, or a bleed screw.
 * @param endId the open end; by default the farthest
 */
export function bleedOf(
  solver: LineUpSolver,
  verdict: LineUpVerdict,
  conditions: Conditions,
  endId?: Id,
): Bleed {
  const { plan } = solver.network;
  const { from, isPriming } = bledWay(solver, verdict, conditions);
  if (!from?.way || from.result.outcome !== "solved") return NOTHING;
  const { way } = from;
  const all = bleedLineUp(plan, from.result, way);
  const screws = new Set(plan.parts.filter(({ kind }) => kind === "bleedScrew").map(({ id }) => id));
  const ends = all
    .filter(({ partId }) => screws.has(partId) || partId === way.consumer?.id)
    .map(
      ({ partId, partName }): OpenEnd => ({
        id: partId,
        name: partName,
        kind: screws.has(partId) ? "screw" : "joint",
      }),
    )
    .reverse()
    .filter(({ id }, i, list) => list.findIndex((one) => one.id === id) === i);
  const end = ends.find(({ id }) => id === endId) ?? ends[0] ?? null;
  const last = end ? all.findLastIndex(({ partId }) => partId === end.id) : all.length - 1;
  return { steps: all.slice(0, last + 1), ends, end, isPriming };
}
