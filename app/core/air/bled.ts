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

/** Entries of the bleed that goes on, by step; practised ones are not of it. */
export function bledSoFar(book: Book, planId: Id, lineUpId: Id): Map<string, BledStep> {
  const own = entriesOf(book, "bled").filter(
    (entry) => entry.planId === planId && entry.lineUpId === lineUpId && !entry.isPractice,
  );
  const begun = own.findLastIndex(({ came }) => came === "begun");
  return new Map(own.slice(begun + 1).map((entry) => [entry.step, entry]));
}
