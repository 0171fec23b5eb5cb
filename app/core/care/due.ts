/**
 * What is due, and when: elements by the year and by their trend, samples twice a year. Common practice, no source, where
 * no maker and no reading says otherwise; the earliest of a thing stands first.
 */

import type { Book, EntryDraft } from "../book/entries";
import { entriesOf } from "../book/entries";
import { isFiltering } from "../kinds/families";
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import type { Job } from "../plan/types";
import { dayOf, type GaugeTrend } from "./gaugeTrend";
import { isCuring, NEXT_JAR_DAYS } from "./jar";

/** Common practice, no source: the maker's interval, or the shop's own, goes first. */
export const commonMonths = { elementYear: 12, sample: 6, bowl: 1, joints: 12 } as const;

export interface Due {
  /** The same as long as the thing is the same: a calendar updates by it. */
  id: string;
  kind: "elementYear" | "elementTrend" | "sample" | "bowl" | "joints" | "own";
  /** A part or a tank; the plan itself for what is seen to all over it. */
  ofId: Id;
  /** What it is called where somebody named it. */
  name?: string;
  /** Day as YYYY-MM-DD; null where nobody knows when it was last done. */
  on: string | null;
  /** When it was last done. */
  last: string | null;
  /** On the engine's counter, where it goes by hours. */
  atH?: number;
  every: Interval;
  /** Sooner than its interval: days from one jar to the next until the fuel is clear. */
  curingDays?: number;
}

export interface Interval {
  months?: number;
  hours?: number;
  basis: "common" | "maker" | "own";
}

const dayText = (date: Date): string => date.toISOString().slice(0, 10);

/** So many months on; the last day of a shorter month stands for what it does not have. */
export function monthsOn(day: string, months: number): string {
  const [year = 0, month = 1, date = 1] = day.slice(0, 10).split("-").map(Number);
  const first = new Date(Date.UTC(year, month - 1 + months, 1));
  const most = new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + 1, 0)).getUTCDate();
  return dayText(new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth(), Math.min(date, most))));
}

const DAY_MS = 86_400_000;
/** A pace told over less than this is none. */
const LEAST_PACE_DAYS = 7;

/** What the engine's counter stood at when it was last noted. Undefined where it never was. */
export const lastEngineH = (book: Book): number | undefined => paceOf(book)?.lastH;

/** What the book is told when a thing that was due is done; `note` is in the user's words. */
export function doneDraft({ plan }: Pick<Network, "plan">, book: Book, due: Due, note: string): EntryDraft {
  const engineH = lastEngineH(book);
  const hours = engineH === undefined ? {} : { engineH };
  const part = plan.parts.find(({ id }) => id === due.ofId);
  if (due.kind !== "elementYear" || !part || !isFiltering(part) || !part.element)
    return { kind: "serviced", dueId: due.id, note, ...hours };
  const { id, fittedOn } = part.element;
  const loading = plan.conditions.loading[id];
  return {
    kind: "elementChanged",
    partId: part.id,
    ...(fittedOn === undefined ? {} : { fittedOn }),
    ...hours,
    ...(loading === undefined ? {} : { loading }),
  };
}

/** Engine hours a day, and the last of the counter, by what the book noted with its readings. */
function paceOf(book: Book): { hoursADay: number | null; lastH: number; lastOn: string } | null {
  const noted = book
    .flatMap((entry) =>
      "engineH" in entry && entry.engineH !== undefined ? [{ at: entry.at, h: entry.engineH }] : [],
    )
    .sort((a, b) => a.at.localeCompare(b.at));
  const [first, last] = [noted[0], noted.at(-1)];
  if (!first || !last) return null;
  const days = (Date.parse(last.at) - Date.parse(first.at)) / DAY_MS;
  const hoursADay = days >= LEAST_PACE_DAYS && last.h > first.h ? (last.h - first.h) / days : null;
  return { hoursADay, lastH: last.h, lastOn: last.at.slice(0, 10) };
}

/** What the job says of an interval: of this very thing, else of its kind, else common practice. Null where it is turned off. */
function intervalOf(
  { service = {} }: Job,
  id: string,
  kind: Exclude<Due["kind"], "elementTrend">,
): Interval | null {
  const own = service[id] ?? service[kind];
  if (!own) return kind === "own" ? null : { months: commonMonths[kind], basis: "common" };
  const { months = 0, hours = 0, basis } = own;
  if (months === 0 && hours === 0) return null;
  return { ...(months > 0 ? { months } : {}), ...(hours > 0 ? { hours } : {}), basis };
}

/** `trends` are those of the same network and book: they cost solves and are worked out once. */
export function dueOf(
  { job, plan }: Pick<Network, "job" | "plan">,
  book: Book,
  trends: readonly GaugeTrend[],
): Due[] {
  const pace = paceOf(book);
  const serviced = entriesOf(book, "serviced");
  const last = (days: readonly (string | undefined)[]): string | null =>
    days
      .flatMap((day) => (day === undefined ? [] : [day.slice(0, 10)]))
      .sort()
      .at(-1) ?? null;
  const make = (
    id: string,
    kind: Exclude<Due["kind"], "elementTrend">,
    ofId: Id,
    doneOn: readonly (string | undefined)[],
    doneH?: number,
  ): Due[] => {
    const every = intervalOf(job, id, kind);
    if (!every) return [];
    const own = serviced.filter(({ dueId }) => dueId === id);
    const done = last([...doneOn, ...own.map(({ at }) => at)]);
    const fromH = own.findLast(({ engineH }) => engineH !== undefined)?.engineH ?? doneH;
    const days = [every.months !== undefined && done !== null ? monthsOn(done, every.months) : null];
    const atH = every.hours !== undefined && fromH !== undefined ? fromH + every.hours : undefined;
    if (atH !== undefined && pace?.hoursADay)
      days.push(
        dayText(
          new Date(Date.parse(pace.lastOn) + Math.max(0, (atH - pace.lastH) / pace.hoursADay) * DAY_MS),
        ),
      );
    const on = days.flatMap((day) => (day === null ? [] : [day])).sort()[0] ?? null;
    const named = job.service?.[id]?.name;
    return [
      {
        id,
        kind,
        ofId,
        ...(named === undefined ? {} : { name: named }),
        on,
        last: done,
        ...(atH === undefined ? {} : { atH }),
        every,
      },
    ];
  };
  const filters = plan.parts.filter(isFiltering);
  const changed = entriesOf(book, "elementChanged");
  const years = filters.flatMap((part): Due[] => {
    if (!part.element) return [];
    const own = changed.filter(({ partId }) => partId === part.id);
    return make(
      `${part.element.id}:year`,
      "elementYear",
      part.id,
      [part.element.fittedOn, ...own.map(({ at }) => at)],
      own.at(-1)?.engineH,
    );
  });
  const bowls = filters.flatMap((part): Due[] =>
    part.kind === "filter" && part.medium === "separator" && part.element
      ? make(`${part.id}:bowl`, "bowl", part.id, [])
      : [],
  );
  /** The day that a limit was read on, else the earliest that the readings tell; by the engine's pace where they go by its hours. */
  const dueDay = (trend: GaugeTrend): string | null => {
    const lastPoint = trend.points.at(-1);
    if (lastPoint && trend.lastPa >= trend.limitPa) return lastPoint.at.slice(0, 10);
    const earliest = trend.weighed?.earliest;
    if (earliest === null || earliest === undefined) return null;
    const day = dayOf(trend, earliest);
    if (day) return dayText(day);
    if (trend.by !== "hours" || !pace?.hoursADay) return null;
    const ahead = Math.max(0, (earliest - pace.lastH) / pace.hoursADay);
    return dayText(new Date(Date.parse(pace.lastOn) + ahead * DAY_MS));
  };
  const byReadings = trends.flatMap((trend): Due[] => {
    const day = dueDay(trend);
    if (day === null) return [];
    return [
      {
        id: `${trend.filter.element?.id}:trend`,
        kind: "elementTrend",
        ofId: trend.filter.id,
        on: day,
        last: trend.points.at(-1)?.at.slice(0, 10) ?? null,
        every: { basis: "own" },
      },
    ];
  });
  const drawn = new Set([...plan.runs, ...plan.joints].flatMap(({ from, to }) => [from.part, to.part]));
  const samples = job.tanks
    .filter(({ id }) => drawn.has(id))
    .flatMap(({ id }) => {
      const own = entriesOf(book, "sample").filter(({ tankId }) => tankId === id);
      const due = make(
        `${id}:sample`,
        "sample",
        id,
        own.map(({ at }) => at),
      );
      if (!isCuring(own)) return due;
      const soon = (day: string) => dayText(new Date(Date.parse(day) + NEXT_JAR_DAYS * DAY_MS));
      return due.map((one) => ({
        ...one,
        on: one.last === null ? one.on : soon(one.last),
        curingDays: NEXT_JAR_DAYS,
      }));
    });
  const looks = entriesOf(book, "leakCheck").filter(({ planId }) => planId === plan.id);
  const joints =
    plan.runs.length > 0
      ? make(
          `${plan.id}:joints`,
          "joints",
          plan.id,
          looks.map(({ at }) => at),
        )
      : [];
  const own = Object.keys(job.service ?? {})
    .filter((id) => id.startsWith("own:"))
    .flatMap((id) => make(id, "own", plan.id, []));
  // What has no date stands last: it asks to be looked at, not to be done on a day.
  return [...years, ...byReadings, ...bowls, ...samples, ...joints, ...own].sort(
    (a, b) => (a.on ?? "9999").localeCompare(b.on ?? "9999") || a.id.localeCompare(b.id),
  );
}
