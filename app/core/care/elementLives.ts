/** How long elements lasted: of this job by its book, and over the shop's jobs where theirs are given. */
import { type Book, entriesOf } from "../book/entries";
import type { Filtering } from "../kinds/families";
import type { Id } from "../kinds/record";

export interface ElementLife {
  partId: Id;
  changedOn: string;
  /** From the day it was fitted or the change before, where one is known. */
  days: number | null;
  /** Of the engine's counter from the change before, where both noted it. */
  hours: number | null;
  loading: number | null;
}

const DAY_MS = 86_400_000;

/** When the element that is in now was fitted, a day or a moment, by the plan and the book; empty where neither says. */
export function fittedAt({ id, element }: Filtering, book: Book): string {
  const changed = entriesOf(book, "elementChanged").flatMap(({ partId, at }) => (partId === id ? [at] : []));
  return [element?.fittedOn ?? "", ...changed].sort().at(-1) as string;
}

export function elementLives(book: Book): ElementLife[] {
  const lastH = new Map<Id, number>();
  const lastAt = new Map<Id, string>();
  return entriesOf(book, "elementChanged")
    .toSorted((a, b) => a.at.localeCompare(b.at))
    .map(({ partId, at, fittedOn, engineH, loading }) => {
      const before = lastH.get(partId);
      if (engineH !== undefined) lastH.set(partId, engineH);
      const since = [fittedOn ?? "", lastAt.get(partId)?.slice(0, 10) ?? ""].sort().at(-1) as string;
      lastAt.set(partId, at);
      return {
        partId,
        changedOn: at.slice(0, 10),
        days:
          since === ""
            ? null
            : Math.max(0, Math.round((Date.parse(at.slice(0, 10)) - Date.parse(since)) / DAY_MS)),
        hours: engineH !== undefined && before !== undefined ? Math.max(0, engineH - before) : null,
        loading: loading ?? null,
      };
    });
}

/** The middle of what is known; null where nothing is. */
export function middleOf(values: readonly (number | null)[]): number | null {
  const known = values.flatMap((value) => (value === null ? [] : [value])).sort((a, b) => a - b);
  const half = known.length >> 1;
  if (known.length === 0) return null;
  return known.length % 2 === 1
    ? (known[half] as number)
    : ((known[half - 1] as number) + (known[half] as number)) / 2;
}
