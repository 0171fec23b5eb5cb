/** What can be done with fuel that is not clean, held against each other: hours, litres, elements, what remains. */
import type { FuelState } from "../fuel/fuel";
import type { LineUpSolver } from "../hydraulics/solve";
import { elementsOf } from "../kinds/families";
import { elementLifeH } from "../laws/elementLife";
import type { Plan, Tank } from "../plan/types";
import { heightsOf, levelOfVolumeM, volumeAtLevelM3 } from "../tanks/tank";
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

/** The course of a polish, from now to some hours, in shares of what is in the fuel now. */
export function polishCourse(task: PolishTask, hours: number, points = 60): PolishPoint[] {
  return Array.from({ length: points + 1 }, (_, i) => {
    const at = (i / points) * hours;
    const two = polishedInTwoParts(law(task), task, 1, at);
    return { hours: at, mixed: polished(law(task), 1, at).remaining, tank: two.remaining, line: two.stirred };
  });
}

export interface PolishWay {
  lineUp: string;
  flowM3S: number;
  /** Rated flow of the filter in it that loads first; none where it has no element. */
  ratedM3S: number | null;
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
    const passed = elementsOf(plan.parts).filter(({ part }) => {
      const at = network.linkOf.get(part.id);
      return at !== undefined && Math.abs(flow[at] as number) > 0;
    });
    const ratedM3S = passed.length > 0 ? Math.min(...passed.map(({ part }) => part.ratedFlowM3S)) : null;
    best = { lineUp: lineUp.name, flowM3S: drawn, ratedM3S };
  }
  return best;
}

/** Drops that a still tank gives up within a day or so, and those of a haze, m. Common practice, no source. */
const COARSE_M = 100e-6;
const FINE_M = 20e-6;
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

/** What stands under the lowest mouth of a tank: it is reached by stripping alone, m3. */
export function strippedM3(tank: Tank): number {
  const { lowM } = heightsOf(tank);
  const mouths = tank.ports.flatMap(({ role, mouth }) => (role === "outlet" ? [mouth.zM] : []));
  return volumeAtLevelM3(tank, Math.max(lowM, Math.min(...mouths, Number.POSITIVE_INFINITY)));
}

export function treatments({ tank, aboardM3, fuel, way, task, biocidePerM3 }: FoulTank): Treatment[] {
  const none = { lostM3: 0, elements: 0, remains: 1, doseM3: 0 };
  const hasMouth = tank.ports.some(({ role }) => role === "outlet");
  const dregsM3 = hasMouth ? Math.min(aboardM3, strippedM3(tank)) : 0;
  const depthM = levelOfVolumeM(tank, aboardM3) - heightsOf(tank).lowM;
  const hours = way ? polishHours({ ...task, volumeM3: aboardM3, flowM3S: way.flowM3S }) : null;
  const longest = hours?.deadH ?? hours?.mixedH ?? 0;
  const lifeH = way?.ratedM3S ? elementLifeH(way.ratedM3S, way.flowM3S) : null;
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
      elements: lifeH ? Math.ceil(longest / lifeH) : 0,
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
