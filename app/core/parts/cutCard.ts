/** The cut card of a rigid tube: what it is cut to, and each thing done to it in its order. Practice 58. */
import { bentLine } from "../fit/bend";
import type { LyingRun } from "../plan/lying";
import { distanceM } from "../plan/ports";
import { bendsAlong } from "../plan/route";
import type { Plan } from "../plan/types";
import { tubeEnds } from "./tubeEnds";

export type CutStep =
  | { kind: "cut"; lengthM: number }
  | { kind: "deburr" }
  /** On before the flare, or before a bend that it cannot pass; its thread towards the end that it closes. */
  | { kind: "nut"; side: "from" | "to" }
  | { kind: "flare"; side: "from" | "to" }
  /** Where the bend begins, from the end that was made first; how far it turns. */
  | { kind: "bend"; atM: number; turnRad: number };

export interface CutCard {
  runId: string;
  /** Null where the tube was not traced: its length is told, its bends have no places. */
  steps: CutStep[] | null;
  cutM: number;
  radiusM: number | null;
  /** Straights that a bender cannot grip: between an end and a bend, or two bends. */
  short: { straightM: number; needsM: number }[];
}

/** Between a flare and a bend: the nut, and what the bender grips. Common practice, no source. */
const NUT_M = 0.02;
const GRIP_M = 0.03;

/** Of a tube as it lies; null for a hose. */
export function cutCard(plan: Plan, { run, from, to }: LyingRun): CutCard | null {
  if (run.make !== "rigid") return null;
  const flares = tubeEnds(plan, run);
  const flareM = (side: "from" | "to") => flares.find((one) => one.side === side)?.allowanceM ?? 0;
  const allowance = flareM("from") + flareM("to");
  const { route } = run;
  if (route.kind !== "traced")
    return { runId: run.id, steps: null, cutM: route.lengthM + allowance, radiusM: null, short: [] };
  const points = [from.position, ...route.points, to.position];
  const bends = bendsAlong(points, route.radiusM);
  const legsM = points.slice(1).map((point, i) => distanceM(points[i] as typeof point, point));
  const { developedM, straightsM } = bentLine(
    legsM,
    bends.map(({ turnRad }) => (turnRad * 180) / Math.PI),
    route.radiusM,
  );
  const cutM = developedM + allowance;
  const isFlared = (side: "from" | "to") => flares.some((one) => one.side === side);
  const made = (side: "from" | "to"): CutStep[] =>
    isFlared(side)
      ? [
          { kind: "nut", side },
          { kind: "flare", side },
        ]
      : [];
  const steps: CutStep[] = [
    { kind: "cut", lengthM: cutM },
    { kind: "deburr" },
    ...made("from"),
    ...bends.map(({ fromM, turnRad }): CutStep => ({ kind: "bend", atM: fromM + flareM("from"), turnRad })),
    ...made("to"),
  ];
  const last = straightsM.length - 1;
  const short = straightsM.flatMap((straightM, i) => {
    const ends = [i === 0 && isFlared("from"), i === last && isFlared("to")].filter(Boolean).length;
    const needsM = bends.length === 0 ? 0 : GRIP_M + ends * NUT_M;
    return straightM < needsM ? [{ straightM, needsM }] : [];
  });
  return { runId: run.id, steps, cutM, radiusM: route.radiusM, short };
}
