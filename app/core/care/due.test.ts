/** What is due by the year, by readings, by the jar; and as a calendar that another program reads. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import ICAL from "ical.js";
import { calendarDays, dueDetail, dueText, dueWhen } from "~/messages/care";
import { nameOf } from "~/messages/notes";
import { calendarText } from "~/schemas/calendar";
import { readJobFile } from "~/schemas/file";
import { standingOf } from "../book/standing";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import { dueOf, monthsOn } from "./due";
import { trendsOf } from "./gaugeTrend";

const found = readJobFile(readFileSync("demo/marram.keel.json", "utf8"));
if (!found.ok) throw new Error("no demo");
const { job, book } = found;
const name = (id: string) => nameOf(job, id);
const network = buildNetwork(job);
const due = dueOf(network, standingOf(book), trendsOf(network, standingOf(book)));

test("months on keep the day, or take the last there is", () => {
  expect(monthsOn("2026-05-03", 6)).toBe("2026-11-03");
  expect(monthsOn("2026-08-31", 6)).toBe("2027-02-28");
  expect(monthsOn("2027-08-31", 6)).toBe("2028-02-29");
  expect(monthsOn("2026-12-31", 12)).toBe("2027-12-31");
});

describe("what is due on Marram", () => {
  test("stands by its day, what has none last", () => {
    const days = due.map(({ on }) => on ?? "9999");
    expect(days).toEqual([...days].sort());
    expect(due.find(({ id }) => id === "elSep1:trend")?.on).toBe("2026-12-15");
    expect(due.find(({ id }) => id === "portWing:sample")).toMatchObject({
      on: "2026-11-03",
      last: "2026-05-03",
    });
  });
  test("an element is due a year after it was fitted, and asks where nobody knows when", () => {
    for (const part of currentPlan(job).parts) {
      if (part.kind !== "filter" || !part.element) continue;
      const own = due.find(({ id }) => id === `${part.element?.id}:year`);
      const { fittedOn } = part.element;
      expect(own?.on).toBe(fittedOn === undefined ? null : monthsOn(fittedOn, 12));
      if (own && own.on === null) expect(dueWhen(own)).toContain("not known");
    }
  });
  test("a sample that was never drawn is due now, and each says what to mind", () => {
    const bare = dueOf(network, [], []);
    const sample = bare.find(({ kind }) => kind === "sample");
    expect(sample?.on).toBeNull();
    expect(sample && dueWhen(sample)).toBe("never sampled: now");
    for (const one of due) expect(dueDetail(one)).toMatch(/common practice|readings/);
    expect(new Set(due.map((one) => dueText(one, name))).size).toBe(due.length);
  });
});

describe("the calendar file, read by a parser of its own", () => {
  const stamp = new Date("2026-11-08T10:05:00Z");
  const text = calendarText(job.name, calendarDays(job, due, name), stamp);
  const events = (source: string) =>
    new ICAL.Component(ICAL.parse(source)).getAllSubcomponents("vevent").map((one) => new ICAL.Event(one));
  test("has an event for each day, all day long, in the words of the list", () => {
    const dated = due.filter(({ on }) => on !== null);
    const read = events(text);
    expect(read.map(({ startDate }) => startDate.toString())).toEqual(dated.map(({ on }) => on));
    expect(read.map(({ summary }) => summary)).toEqual(dated.map((one) => `Marram: ${dueText(one, name)}`));
    for (const { startDate, description } of read) {
      expect(startDate.isDate).toBe(true);
      expect(description.length).toBeGreaterThan(20);
    }
  });
  test("twice made is the same to the byte; a day that moved keeps its UID", () => {
    expect(calendarText(job.name, calendarDays(job, due, name), stamp)).toBe(text);
    const moved = due.map((one) => (one.id === "portWing:sample" ? { ...one, on: "2027-01-02" } : one));
    const uids = (source: string) =>
      events(source)
        .map(({ uid }) => uid)
        .sort();
    const again = calendarText(job.name, calendarDays(job, moved, name), stamp);
    expect(uids(again)).toEqual(uids(text));
    expect(again).not.toBe(text);
  });
  test("has lines no longer than the standard's 75 octets, ended by CR LF, and no words that it does not know", () => {
    for (const line of text.split("\r\n")) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
    expect(text.replace(/\r\n/g, "")).not.toMatch(/[\r\n]/);
    expect(text).not.toContain("MICROSOFT");
  });
});
