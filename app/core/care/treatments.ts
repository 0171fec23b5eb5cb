/** What can be done with fuel that is not clean, held against each other: hours, litres, elements, what remains. */
import type { FuelState } from "../fuel/fuel";
import type { LineUpSolver } from "../hydraulics/solve";
import { elementsOf } from "../kinds/families";
import { elementLifeH } from "../laws/elementLife";
import type { Plan, Tank } from "../plan/types";
import { heightsOf, levelOfVolumeM, underMouthsM3 } from "../tanks/tank";
import { HOUR_S, LITRE_M3 } from "../units/factors";
import { settleHours } from "./jar";
import { biocideDose, polished, polishedInTwoParts } from "./tankCleaning";

/** Assumed until it is measured: what a pass holds back, what stands still, what of the flow stirs it. Common practice, no source. */
export const commonPolish = { singlePass: 0.9, deadShare: 0.25, exchangeShare: 0.05, target: 0.05 } as const;

export interface PolishTask {
  volumeM3: number;
  flowM3S: number;
  singlePass: number;
  deadShare: number;
  exchangeShare: number;
  /** Share of what is in the fuel now that may remain. */
  target: number;
}

/** Eleven years: what takes longer is never. */
const LONGEST_H = 1e5;

/** The first hour at which something that only falls is at the target; null where it never is. */
function hoursTo(target: number, remaining: (hours: number) => number): number | null {
  if (!(remaining(LONGEST_H) <= target)) return null;
  let [low, high] = [0, LONGEST_H];
  for (let i = 0; i < 80; i++) {
    const middle = (low + high) / 2;
    if (remaining(middle) <= target) high = middle;
    else low = middle;
  }
  return high;
}

const law = ({ volumeM3, flowM3S, singlePass }: PolishTask) => ({
  volumeM3,
  flowM3S,
  singlePass,
  ingressPerH: 0,
});

/** Hours of polishing to the target: a tank that mixes well, and one of which a part stands still. */
export function polishHours(task: PolishTask): { mixedH: number | null; deadH: number | null } {
  return {
    mixedH: hoursTo(task.target, (hours) => polished(law(task), 1, hours).remaining),
    deadH: hoursTo(task.target, (hours) => polishedInTwoParts(law(task), task, 1, hours).remaining),
  };
}

export interface PolishPoint {
  hours: number;
  mixed: number;
  /** With a part that stands still: in the tank as a whole, and in the line where it is sampled. */
  tank: number;
  line: number;
}

/** A polish is drawn so far beyond its end; where a part that stands still never comes there, so many times the mixed one. */
const BEYOND = 1.15;
const NEVER_MIXED = 4;
const COURSE_POINTS = 60;

/** The course of a polish, from now to a little after its end, in shares of what is in the fuel now. */
export function polishCourse(task: PolishTask, points = COURSE_POINTS): PolishPoint[] {
  const { mixedH, deadH } = polishHours(task);
  const end = deadH ?? (mixedH === null ? null : NEVER_MIXED * mixedH);
  if (end === null) return [];
  const hours = BEYOND * end;
  return Array.from({ length: points + 1 }, (_, i) => {
    const at = (i / points) * hours;
    const two = polishedInTwoParts(law(task), task, 1, at);
    return { hours: at, mixed: polished(law(task), 1, at).remaining, tank: two.remaining, line: two.stirred };
  });
}

export interface PolishWay {
  lineUp: string;
  flowM3S: number;
  /** Hours of common fuel that the element lasts that loads first; null where none is on the way. */
  elementH: number | null;
}

/** How the plan polishes a tank: the line-up for it that draws most from there; null where none does. */
export function polishWay(solver: LineUpSolver, plan: Plan, tank: Tank): PolishWay | null {
  let best: PolishWay | null = null;
  for (const lineUp of plan.lineUps) {
    if (lineUp.purpose !== "polish") continue;
    const result = solver.solve(lineUp, plan.conditions);
    if (result.outcome !== "solved") continue;
    const { network, flow } = result;
    const drawn = network.links.reduce(
      (sum, link, i) =>
        link.kind === "tankPort" && link.tank.id === tank.id ? sum + Math.max(0, -(flow[i] as number)) : sum,
      0,
    );
    if (!(drawn > (best?.flowM3S ?? 0))) continue;
    const livesH = elementsOf(plan.parts).flatMap(({ part }) => {
      const at = network.linkOf.get(part.id);
      const passes = at === undefined ? 0 : Math.abs(flow[at] as number);
      return passes > 0 ? [elementLifeH(part.ratedFlowM3S, passes)] : [];
    });
    const elementH = livesH.length > 0 ? Math.min(...livesH) : null;
    best = { lineUp: lineUp.name, flowM3S: drawn, elementH };
  }
  return best;
}

/** Drops that a still tank gives up within a day or so, and those of a haze, m. Common practice, no source. */
export const COARSE_M = 100e-6;
export const FINE_M = 20e-6;
/** Biocide for a cubic metre until its maker's figure is typed: 20 mL for 100 L. Common practice, no source. */
export const COMMON_BIOCIDE = 0.0002;
/** A hand pump at the lowest point, m3/s: 2 L a minute. Common practice, no source. */
const STRIP_M3S = (2 * LITRE_M3) / 60;
/** Elements that killed growth takes before the fuel runs clear. Common practice, no source. */
const GROWTH_ELEMENTS = 2;

export interface Treatment {
  kind: "strip" | "settle" | "polish" | "treat" | "discard";
  /** From the kindest case to the worst that is reckoned with; null where it is not known or never. */
  hours: readonly [least: number | null, most: number | null];
  /** Fuel that is lost, m3. */
  lostM3: number;
  elements: number;
  /** Of what floats in the fuel now, when it is done. */
  remains: number;
  /** Of biocide, m3. */
  doseM3: number;
}

export interface FoulTank {
  tank: Tank;
  aboardM3: number;
  fuel: FuelState;
  way: PolishWay | null;
  task: Omit<PolishTask, "volumeM3" | "flowM3S">;
  /** The maker's figure: biocide for a cubic metre, m3; nothing where none is given. */
  biocidePerM3: number;
}

export function treatments({ tank, aboardM3, fuel, way, task, biocidePerM3 }: FoulTank): Treatment[] {
  const none = { lostM3: 0, elements: 0, remains: 1, doseM3: 0 };
  const dregsM3 = Math.min(aboardM3, underMouthsM3(tank));
  const depthM = levelOfVolumeM(tank, aboardM3) - heightsOf(tank).lowM;
  const hours = way ? polishHours({ ...task, volumeM3: aboardM3, flowM3S: way.flowM3S }) : null;
  const longest = hours?.deadH ?? hours?.mixedH ?? 0;
  const dose = biocideDose(biocidePerM3, { aboardM3, treatedShare: 0, fillM3: 0 }).doseM3;
  const [stripH, allH] = [dregsM3 / STRIP_M3S / HOUR_S, aboardM3 / STRIP_M3S / HOUR_S];
  return [
    { ...none, kind: "strip", hours: [stripH, stripH], lostM3: dregsM3 },
    {
      ...none,
      kind: "settle",
      hours: [settleHours(fuel, COARSE_M, depthM), settleHours(fuel, FINE_M, depthM)],
    },
    {
      ...none,
      kind: "polish",
      hours: [hours?.mixedH ?? null, hours?.deadH ?? null],
      elements: way?.elementH ? Math.ceil(longest / way.elementH) : 0,
      remains: way ? task.target : 1,
    },
    { ...none, kind: "treat", hours: [null, null], elements: GROWTH_ELEMENTS, doseM3: dose },
    {
      ...none,
      kind: "discard",
      hours: [allH, allH],
      lostM3: aboardM3,
      remains: 0,
    },
  ];
}
