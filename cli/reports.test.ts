/** What `keel work` and `keel trend` print, by their published schemas. */
import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import Ajv from "ajv/dist/2020.js";
import { standingOf } from "~/core/book/standing";
import { gaugeTrend, trendReport } from "~/core/care/gaugeTrend";
import { buildNetwork } from "~/core/network/network";
import { workReport } from "~/core/order/report";
import { readJobFile } from "~/schemas/file";
import { trendReportJsonSchema } from "~/schemas/trendReport";
import { workReportJsonSchema } from "~/schemas/workReport";

const read = (name: string) => {
  const found = readJobFile(readFileSync(`demo/${name}.keel.json`, "utf8"));
  if (!found.ok) throw new Error(name);
  return found;
};
const published = (name: string) => JSON.parse(readFileSync(`docs/${name}.schema.json`, "utf8"));
const errors = (name: string, value: unknown) => {
  const check = new Ajv({ strict: false }).compile(published(name));
  check(JSON.parse(JSON.stringify(value)));
  return check.errors ?? [];
};

test("the schemas in docs are those of the source", () => {
  expect(published("work")).toEqual(JSON.parse(JSON.stringify(workReportJsonSchema())));
  expect(published("trend")).toEqual(JSON.parse(JSON.stringify(trendReportJsonSchema())));
});

test.each(["marram", "unit-12", "reading-van"])("the work of %s prints what its schema says", (name) => {
  const { job, book } = read(name);
  for (const people of [1, 2])
    expect(errors("work", workReport(job, standingOf(book), undefined, people))).toEqual([]);
});

test("the trend of Marram's gauge prints what its schema says, and the date that is acted on lies ahead of the last reading", () => {
  const { job, book } = read("marram");
  const trend = gaugeTrend(buildNetwork(job), standingOf(book), "vacuum");
  if (!trend) throw new Error("no trend");
  const report = trendReport(trend);
  expect(errors("trend", report)).toEqual([]);
  expect(report.points.map(({ at }) => at.slice(0, 10))).toEqual(["2026-05-03", "2026-08-16", "2026-11-08"]);
  expect(Date.parse(report.actBy ?? "")).toBeGreaterThan(Date.parse("2026-11-08"));
  expect(report.earliest ?? Infinity).toBeLessThan(report.due ?? 0);
});
