/** What a tank's last jar asks for: every way with its hours and litres, and the one that is recommended. Common practice, no source. */
import { type Book, entriesOf } from "../book/entries";
import { fuelAt } from "../fuel/fuel";
import { currentPlan } from "../plan/ports";
import { type Job, schoolOf, type Tank } from "../plan/types";
import { boundsOf } from "../tanks/shape";
import { HOUR_S, LITRE_M3 } from "../units/factors";
import { isCuring, type JarSign, jarSigns, NEXT_JAR_DAYS } from "./jar";
import { COMMON_BIOCIDE, commonPolish, treatments } from "./treatments";

export type CureWay = "strip" | "polish" | "wipe" | "biocide" | "discard" | "trial" | "settle";

export interface Cure {
  way: CureWay;
  /** Fuel that it takes away, or that is poured in; m3. */
  volumeM3: number;
  /** From the kindest case on; null where it is not known. */
  hours: number | null;
  /** Times that the tank goes through the filter; null where nothing is pumped round. */
  passes: number | null;
}

export interface TankCure {
  signs: JarSign[];
  recommended: CureWay | null;
  ways: Cure[];
  nextSampleDays: number;
}

/** A polisher that is hired, where the plan has none: 100 L/h. Common practice, no source. */
export const HIRED_M3S = (100 * LITRE_M3) / HOUR_S;
/** A floor is wiped by hand at this, after half an hour to open and to close. Common practice, no source. */
const WIPES_M2_H = 0.5;
const OPENED_H = 0.5;
/** So much is tried before all of it is given up. */
const TRIAL_M3 = 5 * LITRE_M3;
const TRIAL_H = 24;
const HALF_A_YEAR_DAYS = 182;

/** What sticks to the floor no pump lifts; what floats no rag does; an emulsion that does not part in a trial is given up. */
function recommendedFor(signs: readonly JarSign[], job: Job, isOpen: boolean): CureWay | null {
  const [worst] = signs;
  switch (worst) {
    case "growth":
      return isOpen && schoolOf(job.schools, "dirtyTank") !== "polishOnly" ? "wipe" : "biocide";
    case "emulsion":
      return schoolOf(job.schools, "dirtyTank") === "discard" ? "discard" : "trial";
    case "water":
      return "strip";
    case "haze":
      return "settle";
    default:
      return null;
  }
}

/**
 * @param flowM3S of the polisher, the plan's own or one that is hired
 * @returns null where the fuel is not known
 */
export function cureOf(job: Job, book: Book, tank: Tank, flowM3S: number): TankCure | null {
  const plan = currentPlan(job);
  const fuel = fuelAt(job.fuel, plan.conditions.fuelC);
  if (!fuel) return null;
  const aboardM3 = plan.conditions.aboardM3[tank.id] ?? 0;
  const samples = entriesOf(book, "sample").filter(({ tankId }) => tankId === tank.id);
  const last = samples.at(-1);
  const signs = last ? jarSigns(last) : [];
  const list = treatments({
    tank,
    aboardM3,
    fuel,
    way: { lineUp: "", flowM3S, elementH: null },
    task: commonPolish,
    biocidePerM3: COMMON_BIOCIDE,
  });
  const of = (kind: (typeof list)[number]["kind"]) => list.find((one) => one.kind === kind);
  const hoursOf = (kind: (typeof list)[number]["kind"]) => of(kind)?.hours[0] ?? null;
  const polishH = hoursOf("polish");
  const { x, y } = boundsOf(tank.shape);
  const floorM2 = (x[1] - x[0]) * (y[1] - y[0]);
  const isOpen = tank.opening !== undefined;
  const way = (
    name: CureWay,
    volumeM3: number,
    hours: number | null,
    passes: number | null = null,
  ): Cure => ({
    way: name,
    volumeM3,
    hours,
    passes,
  });
  return {
    signs,
    recommended: recommendedFor(signs, job, isOpen),
    ways: [
      way("strip", of("strip")?.lostM3 ?? 0, hoursOf("strip")),
      way("settle", 0, hoursOf("settle")),
      way("polish", aboardM3, polishH, polishH === null ? null : (polishH * HOUR_S * flowM3S) / aboardM3),
      ...(isOpen ? [way("wipe", aboardM3, OPENED_H + floorM2 / WIPES_M2_H)] : []),
      way("biocide", of("treat")?.doseM3 ?? 0, null),
      way("trial", TRIAL_M3, TRIAL_H),
      way("discard", aboardM3, hoursOf("discard")),
    ],
    nextSampleDays: isCuring(samples) ? NEXT_JAR_DAYS : HALF_A_YEAR_DAYS,
  };
}
