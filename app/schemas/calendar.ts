/** Days as an iCalendar file (RFC 5545): the same thing has the same UID, so that a calendar updates and does not double. */

import ical, { ICalCalendarMethod } from "ical-generator";
import { oneLine, prose } from "~/core/kinds/words";

export interface CalendarDay {
  uid: string;
  /** YYYY-MM-DD. */
  on: string;
  summary: string;
  description: string;
}

/** @param stamp when what it is made from last changed: the same jobs give the same bytes */
export function calendarText(name: string, days: readonly CalendarDay[], stamp: Date): string {
  const calendar = ical({
    name: oneLine(name),
    prodId: { company: "Iron Keel", product: "Care", language: "EN" },
    method: ICalCalendarMethod.PUBLISH,
  });
  for (const { uid, on, summary, description } of days) {
    const start = new Date(`${on}T00:00:00Z`);
    calendar.createEvent({
      id: uid,
      start,
      allDay: true,
      timezone: null,
      summary: oneLine(summary),
      description: prose(description),
      stamp,
      floating: false,
    });
  }
  // Words of one maker's calendar that the standard does not know.
  return calendar.toString().replace(/^X-MICROSOFT-[^\r\n]*\r\n/gm, "");
}
