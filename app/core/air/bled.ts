/** The bleed of a line-up as it went, read off the book: what was ticked since it was last begun. */

import type { Book } from "../book/entries";
import { type BledStep, entriesOf } from "../book/entries";
import type { Id } from "../kinds/record";
import type { ProcedureStep } from "./procedure";

/** Name of a step in the book: its number and what it opens, so that a step of another procedure is not taken for it. */
export function stepKey(step: ProcedureStep, index: number): string {
  const what =
    step.kind === "bleed"
      ? step.joint.key
      : step.kind === "fill"
        ? step.vessels.map(({ partId }) => partId).join("+")
        : step.kind;
  return `${index + 1}:${what}`.slice(0, 60);
}

/** Of a plan and line-up alone; practised ones are not of it. */
const bledOf = (book: Book, planId: Id, lineUpId: Id): BledStep[] =>
  entriesOf(book, "bled").filter(
    (entry) => entry.planId === planId && entry.lineUpId === lineUpId && !entry.isPractice,
  );

/** Entries of the bleed that goes on, by step; practised ones are not of it. */
export function bledSoFar(book: Book, planId: Id, lineUpId: Id): Map<string, BledStep> {
  const own = bledOf(book, planId, lineUpId);
  const begun = own.findLastIndex(({ came }) => came === "begun");
  return new Map(own.slice(begun + 1).map((entry) => [entry.step, entry]));
}

/** A hand that looked away is no worn pump: beyond this nothing is made of it. */
const [LEAST_SHARE, MOST_SHARE] = [0.3, 1.5];
/** Steps shorter than this tell of the stop watch. */
const LEAST_TIMED_S = 3;

export interface PumpShare {
  /** What the pumps of a line-up give of their curves. */
  share: number;
  /** Of how many bleeds. */
  bleeds: number;
}

/**
 * What the pumps of a line-up give, told by the seconds that earlier bleeds took against those that were computed: a
 * bleed that took a quarter longer is one of a pump that gives four fifths. Each bleed was computed with what those before it
 * had told, so that their shares multiply. The bleed that goes on tells nothing yet.
 */
export function pumpShareOf(book: Book, planId: Id, lineUpId: Id): PumpShare | null {
  const own = bledOf(book, planId, lineUpId);
  const ended = own.slice(
    0,
    Math.max(
      0,
      own.findLastIndex(({ came }) => came === "begun"),
    ),
  );
  let [share, bleeds, computed, taken] = [1, 0, 0, 0];
  const close = () => {
    if (taken >= LEAST_TIMED_S && computed >= LEAST_TIMED_S) {
      share = Math.min(MOST_SHARE, Math.max(LEAST_SHARE, (share * computed) / taken));
      bleeds++;
    }
    [computed, taken] = [0, 0];
  };
  for (const { came, seconds, computedS } of ended) {
    if (came === "begun") close();
    else if (seconds !== undefined && computedS !== undefined && came === "solid") {
      computed += computedS;
      taken += seconds;
    }
  }
  close();
  return bleeds > 0 ? { share, bleeds } : null;
}
