/** What a hose found on board is worth: keep, watch or replace, with the reasons; and what passes through its wall. */
import type { Fuel } from "../fuel/fuel";
import type { HoseSurvey, Run } from "../plan/types";
import { type Marking, markingName, readMarking } from "./marking";

export type HoseReason =
  | { code: "noMarking" }
  /** Something is printed, but no standard that is known. */
  | { code: "noStandard" }
  | { code: "noClass" }
  | { code: "noDate" }
  | { code: "notFireTested" }
  | { code: "notLowPermeation"; rate: number | null }
  | { code: "old"; years: number }
  | { code: "nearlyOld"; years: number }
  | { code: "feels"; feel: HoseSurvey["feel"] }
  | { code: "boreDiffers"; printedM: number; planM: number };

export interface HoseVerdict {
  verdict: "keep" | "watch" | "replace";
  marking: Marking;
  years: number | null;
  reasons: HoseReason[];
}

/** Common practice, no source. */
export const OLDEST_YEARS = 10;
const WATCH_YEARS = 8;
/** Low permeation for petrol (EPA 40 CFR 1060, 15 g/m2 in 24 h; from memory). */
const LOW_PERMEATION = 15;
/** Printed and planned bores that differ by less are the same size in two systems. */
const SAME_BORE_M = 0.0006;

export function ageYears(made: NonNullable<Marking["made"]>, now: Date): number {
  return now.getUTCFullYear() - made.year + (now.getUTCMonth() + 1 - made.month) / 12;
}

const replaces = new Set<HoseReason["code"]>([
  "noMarking",
  "noStandard",
  "notFireTested",
  "notLowPermeation",
  "old",
  "feels",
]);

export function judgeHose(
  survey: HoseSurvey,
  boreM: number,
  fuel: Pick<Fuel, "grade">,
  now: Date,
): HoseVerdict {
  const marking = readMarking(survey.printed);
  const years = marking.made ? ageYears(marking.made, now) : null;
  const reasons: HoseReason[] = [];
  if (marking.standard === null && survey.printed.trim() === "") reasons.push({ code: "noMarking" });
  else if (marking.standard === null && marking.type === null) reasons.push({ code: "noStandard" });
  else if (marking.fire === null && marking.standard !== "ISO 7840") {
    reasons.push(survey.place === "engineRoom" ? { code: "notFireTested" } : { code: "noClass" });
  } else if (survey.place === "engineRoom" && marking.fire === "B") reasons.push({ code: "notFireTested" });
  const rate = marking.permeationGM2Day;
  if (fuel.grade === "petrol" && marking.standard !== null && !(rate !== null && rate <= LOW_PERMEATION))
    reasons.push({ code: "notLowPermeation", rate });
  if (years === null) reasons.push({ code: "noDate" });
  else if (years > OLDEST_YEARS) reasons.push({ code: "old", years });
  else if (years > WATCH_YEARS) reasons.push({ code: "nearlyOld", years });
  if (survey.feel !== "sound") reasons.push({ code: "feels", feel: survey.feel });
  if (marking.boreM !== null && Math.abs(marking.boreM - boreM) > SAME_BORE_M)
    reasons.push({ code: "boreDiffers", printedM: marking.boreM, planM: boreM });
  const verdict = reasons.some(({ code }) => replaces.has(code))
    ? "replace"
    : reasons.length > 0
      ? "watch"
      : "keep";
  return { verdict, marking, years, reasons };
}

/** What a run's hose is called: as read off the one found on board, else what the plan has there. */
export const hoseName = ({ survey, product }: Pick<Run, "survey" | "product">): string =>
  (survey && markingName(readMarking(survey.printed))) || product.marking;

/** The worst of the classes, for hose whose printing says none. */
const UNKNOWN_CLASS = 300;

/**
 * Fuel through the walls of the hoses in a day, kg: inner area times the rate of the printed class.
 * An upper bound: the class is the most a hose of it may pass, wetted with the test fuel.
 */
export function permeationKgDay(
  runs: readonly { run: Pick<Run, "survey" | "product" | "boreM">; lengthM: number }[],
): number {
  return runs.reduce((sum, { run, lengthM }) => {
    const marking = readMarking(run.survey?.printed ?? run.product.marking);
    return sum + (Math.PI * run.boreM * lengthM * (marking.permeationGM2Day ?? UNKNOWN_CLASS)) / 1000;
  }, 0);
}
