/**
 * What is due, and when: elements by the year and by their trend, samples twice a year. Common practice, no source, where
 * no maker and no reading says otherwise; the earliest of a thing stands first.
 */

import type { Book } from "../book/entries";
import { entriesOf } from "../book/entries";
import { isFiltering } from "../kinds/families";
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import { dayOf, type GaugeTrend } from "./gaugeTrend";

/** Common practice, no source. */
const ELEMENT_MONTHS = 12;
const SAMPLE_MONTHS = 6;

export interface Due {
  /** The same as long as the thing is the same: a calendar updates by it. */
  id: string;
  kind: "elementYear" | "elementTrend" | "sample";
  ofId: Id;
  /** Day as YYYY-MM-DD; null where nobody knows when it was last done. */
  on: string | null;
  /** When it was last done. */
  last: string | null;
}

const dayText = (date: Date): string => date.toISOString().slice(0, 10);

/** So many months on; the last day of a shorter month stands for what it does not have. */
export function monthsOn(day: string, months: number): string {
  const [year = 0, month = 1, date = 1] = day.slice(0, 10).split("-").map(Number);
  const first = new Date(Date.UTC(year, month - 1 + months, 1));
  const most = new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + 1, 0)).getUTCDate();
  return dayText(new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth(), Math.min(date, most))));
}

/** `trends` are those of the same network and book: they cost solves and are worked out once. */
export function dueOf({ job, plan }: Network, book: Book, trends: readonly GaugeTrend[]): Due[] {
  const filters = plan.parts.filter(isFiltering);
  const years = filters.flatMap((part): Due[] => {
    if (!part.element) return [];
    const last = part.element.fittedOn ?? null;
    return [
      {
        id: `${part.element.id}:year`,
        kind: "elementYear",
        ofId: part.id,
        on: last === null ? null : monthsOn(last, ELEMENT_MONTHS),
        last,
      },
    ];
  });
  const byReadings = trends.flatMap((trend): Due[] => {
    const earliest = trend.weighed?.earliest;
    if (earliest === null || earliest === undefined) return [];
    const day = dayOf(trend, earliest);
    if (!day) return [];
    const last = trend.points.at(-1)?.at.slice(0, 10) ?? null;
    return [
      {
        id: `${trend.filter.element?.id}:trend`,
        kind: "elementTrend",
        ofId: trend.filter.id,
        on: dayText(day),
        last,
      },
    ];
  });
  const drawn = new Set([...plan.runs, ...plan.joints].flatMap(({ from, to }) => [from.part, to.part]));
  const samples = job.tanks
    .filter(({ id }) => drawn.has(id))
    .map(({ id }): Due => {
      const last = entriesOf(book, "sample")
        .filter(({ tankId }) => tankId === id)
        .map(({ at }) => at.slice(0, 10))
        .sort()
        .at(-1);
      return {
        id: `${id}:sample`,
        kind: "sample",
        ofId: id,
        on: last === undefined ? null : monthsOn(last, SAMPLE_MONTHS),
        last: last ?? null,
      };
    });
  // What has no date stands last: it asks to be looked at, not to be done on a day.
  return [...years, ...byReadings, ...samples].sort(
    (a, b) => (a.on ?? "9999").localeCompare(b.on ?? "9999") || a.id.localeCompare(b.id),
  );
}
