/** Days and moments as the reader's own language writes them, in one style over screens, sheets and files. */

/** Where there is no reader, as on the command line, British English. */
const localeNow = (): string => globalThis.navigator?.language ?? "en-GB";

export const dayText = (when: Date | string, locale = localeNow()): string =>
  new Date(when).toLocaleDateString(locale, { dateStyle: "medium" });

const LOOKED_ROUND_MS = 3 * 3600_000;

/**
 * Whether a moment's local time comes twice: an hour is gone through again where clocks are put back.
 * @param offsetMin local time behind UTC at a moment, minutes
 */
export function comesTwice(
  ms: number,
  offsetMin = (at: number) => new Date(at).getTimezoneOffset(),
): boolean {
  const own = offsetMin(ms);
  return [ms - LOOKED_ROUND_MS, ms + LOOKED_ROUND_MS].some((near) => {
    const other = offsetMin(near);
    // The moment that shows the same on the clock by the other offset, if that offset held then.
    return other !== own && offsetMin(ms + (other - own) * 60_000) === other;
  });
}

/** A day with its time; with the time zone where the clock shows that time twice. */
export function momentText(when: Date | string, locale = localeNow()): string {
  const date = new Date(when);
  const text = date.toLocaleString(locale, { dateStyle: "medium", timeStyle: "short" });
  if (!comesTwice(date.getTime())) return text;
  const zone = new Intl.DateTimeFormat(locale, { timeZoneName: "short" })
    .formatToParts(date)
    .find(({ type }) => type === "timeZoneName")?.value;
  return `${text} ${zone}`;
}
