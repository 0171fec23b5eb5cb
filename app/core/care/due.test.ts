/** What is due by the year, by readings, by the jar; and as a calendar that another program reads. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import ICAL from "ical.js";
import { calendarDays, dueDetail, dueText, dueWhen } from "~/messages/care";
import { nameOf } from "~/messages/notes";
import { calendarText } from "~/schemas/calendar";
import { readJobFile } from "~/schemas/file";
import type { BookEntry } from "../book/entries";
import { standingOf } from "../book/standing";
import { buildNetwork, type Network } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { type Due, doneDraft, dueOf, monthsOn } from "./due";
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
    expect(due.find(({ id }) => id === "elSep1:trend")?.on).toBe("2026-12-20");
    // Twice a year after a clean jar; after one with a layer of water within two weeks, until two are clear.
    expect(due.find(({ id }) => id === "stbdWing:sample")).toMatchObject({
      on: "2026-11-03",
      last: "2026-05-03",
    });
    expect(due.find(({ id }) => id === "portWing:sample")).toMatchObject({
      on: "2026-05-13",
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

describe("what is done goes into the book", () => {
  const changed = due.find(({ kind }) => kind === "elementYear") as Due;
  const sample = due.find(({ kind }) => kind === "sample") as Due;
  test("an element's change notes when it came in and how laden it went out", () => {
    const part = currentPlan(job).parts.find(({ id }) => id === changed.ofId);
    const element = part?.kind === "filter" ? part.element : undefined;
    const draft = doneDraft(network, [], changed, "Element");
    expect(draft).toMatchObject({ kind: "elementChanged", partId: changed.ofId });
    expect("fittedOn" in draft ? draft.fittedOn : undefined).toBe(element?.fittedOn);
    expect("loading" in draft ? draft.loading : undefined).toBe(
      currentPlan(job).conditions.loading[element?.id ?? ""],
    );
  });
  test("anything else is a service with its words, and the engine's counter as it was last noted", () => {
    expect(doneDraft(network, [], sample, "A sample")).toEqual({
      kind: "serviced",
      dueId: sample.id,
      note: "A sample",
    });
    const noted = (id: string, at: string, engineH: number): BookEntry => ({
      id,
      at,
      planId: "p",
      planHash: "",
      kind: "serviced",
      dueId: "x",
      note: "",
      engineH,
    });
    const log = [noted("a", "2026-05-01T10:00:00Z", 410), noted("b", "2026-06-01T10:00:00Z", 433)];
    expect(doneDraft(network, log, sample, "A sample")).toMatchObject({ engineH: 433 });
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

describe("intervals of the maker and of the shop", () => {
  const withService = (service: Job["service"]): Network => ({
    ...network,
    job: { ...job, ...(service ? { service } : {}) },
  });
  const dueWith = (service: Job["service"], entries = standingOf(book)) =>
    dueOf(withService(service), entries, []);

  test("of this very thing goes before that of its kind, and that before common practice; nought leaves it out", () => {
    const kind = dueWith({ elementYear: { months: 6, basis: "maker" } });
    const own = dueWith({
      elementYear: { months: 6, basis: "maker" },
      "elSep1:year": { months: 3, basis: "own" },
    });
    const dated = (list: Due[], id: string) => list.find((one) => one.id === id);
    const fitted = dated(kind, "elSep1:year")!.last!;
    expect(dated(kind, "elSep1:year")).toMatchObject({ on: monthsOn(fitted, 6), every: { basis: "maker" } });
    expect(dated(own, "elSep1:year")!.on).toBe(monthsOn(fitted, 3));
    expect(dated(dueWith({ sample: { months: 0, basis: "own" } }), "portWing:sample")).toBeUndefined();
    expect(dueDetail(dated(kind, "elSep1:year")!)).toMatch(/^Every 6 months, by its maker\./);
  });

  test("an item of the shop's own is due from when it was last done; hours become a day by the pace of the book", () => {
    const base = { planId: "planA", planHash: "" };
    const entries: BookEntry[] = [
      {
        ...base,
        id: "s",
        at: "2026-01-01T00:00:00Z",
        kind: "serviced",
        dueId: "own:anode",
        engineH: 100,
        note: "",
      },
      {
        ...base,
        id: "t",
        at: "2026-01-21T00:00:00Z",
        kind: "serviced",
        dueId: "own:other",
        engineH: 140,
        note: "",
      },
    ];
    const [anode] = dueWith(
      { "own:anode": { months: 12, hours: 100, basis: "own", name: "Anode" } },
      entries,
    ).filter(({ kind }) => kind === "own");
    // Two hours a day: 60 h from the 140 of 21 January are 30 days, sooner than a year.
    expect(anode).toMatchObject({ on: "2026-02-20", atH: 200, last: "2026-01-01", name: "Anode" });
    expect(dueText(anode!, name)).toBe("Anode");
    expect(dueDetail(anode!)).toContain("At 200 h of the engine's counter.");
  });

  test("done, it comes round again: a look at the joints by the leak test, an element by its change", () => {
    const joints = due.find(({ kind }) => kind === "joints")!;
    expect(joints.on).toBeNull();
    const at = "2026-06-01T08:00:00Z";
    const done: BookEntry = {
      id: "j",
      at,
      planId: "planA",
      planHash: "",
      kind: "serviced",
      dueId: joints.id,
      note: "",
    };
    expect(dueOf(network, [...standingOf(book), done], []).find(({ id }) => id === joints.id)).toMatchObject({
      on: "2027-06-01",
      last: "2026-06-01",
    });
  });
});
