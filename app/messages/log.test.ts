/** The log in words: every entry of the demo's books that tells of something has its row, in the order of its days. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { type BookEntry, entriesOf } from "~/core/book/entries";
import { standingOf } from "~/core/book/standing";
import type { Job } from "~/core/plan/types";
import { logRows } from "./handOver";

describe.each(["marram", "unit-12", "reading-van"])("%s", (file) => {
  const { job, book } = JSON.parse(readFileSync(`demo/${file}.keel.json`, "utf8")) as {
    job: Job;
    book: BookEntry[];
  };
  const rows = logRows(job, standingOf(book));

  test("by their days, each whole, without ids", () => {
    const days = rows.map(([day]) => day);
    expect(days).toEqual([...days].sort());
    for (const row of rows) {
      expect(row).toHaveLength(3);
      expect(row.join(" ")).not.toMatch(/undefined|NaN|null|\[object/);
    }
  });

  test("readings, fuel, faults and elements are all there", () => {
    for (const kind of [
      "vacuum",
      "bunkered",
      "faultFound",
      "elementChanged",
      "sample",
      "particles",
    ] as const) {
      const what = {
        vacuum: "Reading",
        bunkered: "Fuel",
        faultFound: "Found wrong",
        elementChanged: "Element",
        sample: "Jar",
        particles: "Particles",
      }[kind];
      expect([kind, rows.filter((row) => row[1] === what).length]).toEqual([
        kind,
        entriesOf(book, kind).length,
      ]);
    }
  });
});

test("Marram's season reads so", () => {
  const { job, book } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as {
    job: Job;
    book: BookEntry[];
  };
  const said = logRows(job, book).map((row) => row.join(": "));
  expect(said).toContain("2026-06-14: Fuel: Port wing: 180 L, Fuel quay, Delivery note, EN 590");
  expect(said).toContain("2026-08-02: Particles: Day tank, line: 22/20/17");
  expect(
    said.some((row) => row.startsWith("2026-09-11: Found wrong: ") && row.includes("Washer at the gauge")),
  ).toBe(true);
});
