/** What a rule of the findings is, and what it finds. */
import type { Procedure } from "../air/procedure";
import type { Book } from "../book/entries";
import type { LineUpSolver } from "../hydraulics/solve";
import type { LineUpVerdict } from "../hydraulics/worst";
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import type { Job, Plan } from "../plan/types";

export type Grade = "stop" | "mend" | "watch";
/** Published standard, maker's figure, common practice. */
export type FindingBasis = "standard" | "maker" | "common";
/** The eight places, in working order. */
export const places = ["survey", "layout", "prove", "fit", "parts", "install", "bleed", "care"] as const;
export type Place = (typeof places)[number];

/** SI figures, names and codes for a rule's sentence. */
export type Values = Readonly<Record<string, number | string | null>>;

export interface Found<V extends Values = Values> {
  grade: Grade;
  /** Parts, tanks or runs concerned, the first is where it is. */
  ids: Id[];
  lineUpIds: Id[];
  basis: FindingBasis;
  /** Tells findings of one rule and one thing from each other where they are mended apart. */
  about?: string;
  /** Where practice is divided, the school the job follows. */
  school?: string;
  values: V;
  /** What makes one of its kind worse than another; larger is worse. */
  figure: number | null;
}

/** What a bleed from dry comes to: found by trying, for a line-up, elsewhere and before. */
export interface BleedOutcome extends Pick<Procedure, "left" | "airM3" | "isBled" | "whyNot"> {
  lineUpId: Id;
}

export interface FindingContext {
  job: Job;
  /** What stands in the job's book. */
  book: Book;
  plan: Plan;
  network: Network;
  solver: LineUpSolver;
  /** Every line-up as set, at the present conditions; one with several running consumers once for each. */
  verdicts: LineUpVerdict[];
  /** The day it is judged on: hoses age. */
  now: Date;
  /** Of the line-ups for which it was found; none where nobody looked. */
  bleeds: readonly BleedOutcome[];
  /** The same with every filter clean. */
  clean: LineUpVerdict[];
}

export interface Rule<Name extends string = string, V extends Values = Values> {
  id: Name;
  /** Numbers of the findings of practice that it judges; none where it only holds figures against each other. */
  practice: readonly number[];
  /** Where it is mended. */
  place: Place;
  judge(context: FindingContext): Found<V>[];
}

/** A rule with the type of its values, which its sentence takes. */
export const rule = <const Name extends string, V extends Values>(one: Rule<Name, V>): Rule<Name, V> => one;

/** What several rules find in one look: done once for a context. */
export function oncePerContext<T>(look: (context: FindingContext) => T): (context: FindingContext) => T {
  const known = new WeakMap<FindingContext, T>();
  return (context) => {
    const kept = known.get(context);
    if (kept !== undefined) return kept;
    const found = look(context);
    known.set(context, found);
    return found;
  };
}
