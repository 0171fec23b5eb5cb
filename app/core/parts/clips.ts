/**
 * Clips of a run: where they go along it, and what size. Practice 29: no two further apart than the school allows or the
 * run's own spacing says, one within 100 mm of each end, one on each side of a bend, one before something that moves.
 */
import type { Id } from "../kinds/record";
import { lyingRuns } from "../plan/lying";
import { bendsAlong, type RunGeometry, runGeometry } from "../plan/route";
import { type Job, type Plan, type Run, schoolOf } from "../plan/types";
import { INCH_M } from "../units/factors";

/** 18 in and 36 in as published; metric tapes round them to 450 and 900 mm, which are within. ABYC kind, from memory. */
export const supportMostM = { close: 18 * INCH_M, wide: 36 * INCH_M } as const;

/** Within this of where metal and hose meet: 33 CFR 183.562 kind, from memory. */
export const CLIP_AT_END_M = 0.1;
/** Straight that a clip takes beside a bend; and how far before what moves. Common practice, no source. */
const BESIDE_BEND_M = 0.03;
const BEFORE_MOVING_M = 0.1;
/** Two clips this near are one. Common practice, no source. */
const ONE_CLIP_M = 0.06;

export type ClipWhy = "end" | "bend" | "moving" | "span";

export interface Clip {
  atM: number;
  why: ClipWhy;
}

export interface ClipLine {
  runId: Id;
  from: string;
  to: string;
  /** Outside of the hose or tube. */
  outsideM: number;
  spacingM: number;
  clips: Clip[];
  /** Clips more for bends that were counted and not traced: one goes each side of each, wherever they are. */
  besideBends: number;
}

/** Places that must have one, in their order along a length, what is as good as one taken together. */
function placesOf(
  run: Run,
  { lengthM }: RunGeometry,
  bends: readonly { fromM: number; toM: number }[],
): Clip[] {
  const end = Math.min(CLIP_AT_END_M, lengthM / 2);
  const wanted: Clip[] = [
    { atM: end, why: "end" },
    { atM: lengthM - end, why: "end" },
    ...bends.flatMap(({ fromM, toM }): Clip[] => [
      { atM: fromM - BESIDE_BEND_M, why: "bend" },
      { atM: toM + BESIDE_BEND_M, why: "bend" },
    ]),
    ...(run.neighbours ?? [])
      .filter(({ kind }) => kind === "moving")
      .map(({ atM }): Clip => ({ atM: atM - BEFORE_MOVING_M, why: "moving" })),
  ];
  const order: readonly ClipWhy[] = ["end", "moving", "bend"];
  const kept: Clip[] = [];
  for (const clip of wanted.toSorted((a, b) => order.indexOf(a.why) - order.indexOf(b.why)))
    if (
      clip.atM >= 0 &&
      clip.atM <= lengthM &&
      kept.every(({ atM }) => Math.abs(atM - clip.atM) >= ONE_CLIP_M)
    )
      kept.push(clip);
  return kept.sort((a, b) => a.atM - b.atM);
}

/** What is needed between them, so that none is further from the next than the spacing. */
function spanned(places: readonly Clip[], spacingM: number): Clip[] {
  return places.flatMap((clip, i) => {
    const next = places[i + 1];
    if (!next) return [clip];
    const more = Math.max(0, Math.ceil((next.atM - clip.atM) / spacingM - 1e-9) - 1);
    const step = (next.atM - clip.atM) / (more + 1);
    const between = Array.from(
      { length: more },
      (_, k): Clip => ({ atM: clip.atM + (k + 1) * step, why: "span" }),
    );
    return [clip, ...between];
  });
}

/** Bends that were counted, as if they lay evenly along: a clip beside one holds the span as well, wherever it is. */
function evenly(run: Run, { lengthM, bends90, bends45 }: RunGeometry): { fromM: number; toM: number }[] {
  const radiusM = run.product.leastRadiusM + run.product.outerDiameterM / 2;
  const turns = [...Array(bends90).fill(Math.PI / 2), ...Array(bends45).fill(Math.PI / 4)] as number[];
  return turns.map((turn, i) => {
    const atM = ((i + 0.5) / turns.length) * lengthM;
    return { fromM: atM - (turn * radiusM) / 2, toM: atM + (turn * radiusM) / 2 };
  });
}

/** Clips of every run whose ends are both there. */
export function clipLines(job: Job, plan: Plan): ClipLine[] {
  const most = supportMostM[schoolOf(job.schools, "support")];
  return lyingRuns(job, plan).map(({ run, from, to }) => {
    const geometry = runGeometry(run, from, to);
    const { route } = run;
    const bends =
      route.kind === "traced" ? bendsAlong([from.position, ...route.points, to.position], route.radiusM) : [];
    const spacingM = Math.min(run.supportEveryM ?? most, most);
    const clips = spanned(placesOf(run, geometry, bends), spacingM);
    const asSpread = spanned(placesOf(run, geometry, evenly(run, geometry)), spacingM);
    return {
      runId: run.id,
      from: from.ownerName,
      to: from.ownerName === to.ownerName ? to.name : to.ownerName,
      outsideM: run.product.outerDiameterM,
      spacingM,
      clips,
      besideBends: route.kind === "traced" ? 0 : Math.max(0, asSpread.length - clips.length),
    };
  });
}

/** Clips by the outside they hold, largest first. */
export function clipCounts(lines: readonly ClipLine[]): { outsideM: number; count: number; runs: Id[] }[] {
  const counts = new Map<number, { outsideM: number; count: number; runs: Id[] }>();
  for (const { outsideM, clips, besideBends, runId } of lines) {
    const mm = Math.round(outsideM * 1e4);
    const line = counts.get(mm) ?? { outsideM, count: 0, runs: [] };
    line.count += clips.length + besideBends;
    line.runs.push(runId);
    counts.set(mm, line);
  }
  return [...counts.values()].sort((a, b) => b.outsideM - a.outsideM);
}
