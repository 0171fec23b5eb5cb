/** Parts counted, and hose by bore and marking with the service allowance. */

import { hoseName } from "../hose/survey";
import { isPushing } from "../kinds/families";
import type { Field } from "../kinds/fields";
import { kindOf, type Part } from "../kinds/index";
import { freeFlowM3S } from "../kinds/pumping";
import { lyingRuns } from "../plan/lying";
import { type RunGeometry, runGeometry } from "../plan/route";
import type { Job, Plan, Run, TankLine } from "../plan/types";
import { type TubeEnd, tubeEnds } from "./tubeEnds";

export interface PartLine {
  kind: Part["kind"];
  /** What tells one from another of its kind: medium, micron, ways. */
  detail: Record<string, number | string>;
  boreM: number;
  count: number;
  ids: string[];
}

export interface HoseLine {
  marking: string;
  boreM: number;
  runs: number;
  netM: number;
  allowanceM: number;
  totalM: number;
  /** Each run's own, as it is cut, m. */
  cutsM: number[];
  ids: string[];
}

/** The figures that tell one part from another of its kind; a curve by its free flow, branches by their number. */
function detailOf(part: Part): PartLine["detail"] {
  const values = part as unknown as Record<string, unknown>;
  return Object.fromEntries(
    Object.entries<Field>(kindOf(part).fields).flatMap(([key, field]) => {
      if (!field.tells) return [];
      if (field.form === "curve") return [["freeFlowM3S", isPushing(part) ? freeFlowM3S(part.curve) : 0]];
      if (field.form === "branches") return [["ways", (values[key] as unknown[]).length]];
      // A switch tells by being on.
      if (field.form === "switch") return values[key] === true ? [[key, "yes"]] : [];
      return [[key, values[key] as number | string]];
    }),
  );
}

/** Parts of the plan (the engine is there already and is not bought), like ones counted together. */
export function partLines(plan: Plan): PartLine[] {
  const lines = new Map<string, PartLine>();
  for (const part of plan.parts) {
    const detail = detailOf(part);
    const key = JSON.stringify([part.kind, detail, part.boreM]);
    const line = lines.get(key) ?? { kind: part.kind, detail, boreM: part.boreM, count: 0, ids: [] };
    line.count += 1;
    line.ids.push(part.id);
    lines.set(key, line);
  }
  return [...lines.values()].sort((a, b) => a.kind.localeCompare(b.kind) || b.count - a.count);
}

/** Each run gets the plan's service allowance at both ends. */
export function hoseLines(job: Job, plan: Plan): HoseLine[] {
  const lines = new Map<string, HoseLine>();
  for (const { run, from, to } of lyingRuns(job, plan)) {
    const { lengthM } = runGeometry(run, from, to);
    const marking = hoseName(run);
    const key = `${run.boreM}|${marking}`;
    const line = lines.get(key) ?? {
      marking,
      boreM: run.boreM,
      runs: 0,
      netM: 0,
      allowanceM: 0,
      totalM: 0,
      cutsM: [],
      ids: [],
    };
    line.runs += 1;
    line.netM += lengthM;
    line.allowanceM += allowanceM(plan, run);
    line.totalM = line.netM + line.allowanceM;
    line.cutsM.push(lengthM + allowanceM(plan, run));
    line.ids.push(run.id);
    lines.set(key, line);
  }
  return [...lines.values()].sort((a, b) => b.boreM - a.boreM);
}

/**
 * What a run is cut longer by for service: a hose grows to its barb and is cut free, so each cut end has the plan's
 * allowance; with it what is kept for a part to come. Ends that are crimped or screwed come off whole and have none; a rigid tube has what its flares take.
 */
export function allowanceM(plan: Plan, run: Run): number {
  if (run.make === "rigid") return tubeEnds(plan, run).reduce((sum, one) => sum + one.allowanceM, 0);
  const cut = (["from", "to"] as const).filter((side) => {
    const end = plan.ends?.[run.id]?.[side];
    return end === undefined || end.family === "hose";
  });
  return cut.length * plan.serviceAllowanceM + (run.slack?.lengthM ?? 0);
}

export interface RunSheetLine {
  id: string;
  from: string;
  fromPort: string;
  to: string;
  toPort: string;
  boreM: number;
  marking: string;
  lengthM: number;
  riseM: number;
  bends90: number;
  bends45: number;
  cutM: number;
  /** Flared ends of a rigid tube. */
  flares: TubeEnd[];
  /** Heights along it, from end to end. */
  profile: RunGeometry["profile"];
  /** What it is for: a run of the plan, or what a tank is filled, vented or drained by. */
  use: TankLine["use"] | "feed";
  isAssumed: boolean;
}

export function runSheet(job: Job, plan: Plan): RunSheetLine[] {
  return lyingRuns(job, plan).map(({ run, from, to, line }) => {
    const { lengthM, riseM, bends90, bends45, profile } = runGeometry(run, from, to);
    return {
      id: run.id,
      from: from.ownerName,
      fromPort: from.name,
      to: to.ownerName,
      toPort: to.name,
      boreM: run.boreM,
      marking: hoseName(run),
      lengthM,
      riseM,
      bends90,
      bends45,
      cutM: lengthM + allowanceM(plan, run),
      flares: tubeEnds(plan, run),
      profile,
      use: line?.use ?? "feed",
      isAssumed: run.route.kind === "measured" && run.given?.lengthM?.basis !== "measured",
    };
  });
}
