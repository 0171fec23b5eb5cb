/** What `keel work` and `keel trend` print, by their published schemas. */
import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import Ajv from "ajv/dist/2020.js";
import { standingOf } from "~/core/book/standing";
import { Diagnoser } from "~/core/care/diagnose";
import { gaugeTrend, trendReport } from "~/core/care/gaugeTrend";
import { deltasOf, SimulatedSystem } from "~/core/care/simulate";
import { buildNetwork } from "~/core/network/network";
import { workReport } from "~/core/order/report";
import { currentPlan } from "~/core/plan/ports";
import { inWords } from "~/messages/workOrder";
import { careReadingsSchema, readCareReading } from "~/schemas/diagnosis";
import { readJobFile } from "~/schemas/file";
import { trendReportJsonSchema } from "~/schemas/trendReport";
import { workReportJsonSchema } from "~/schemas/workReport";
import { diagnosisReport } from "./diagnosis";

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
    expect(errors("work", inWords(job, workReport(job, standingOf(book), undefined, people)))).toEqual([]);
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

test("what may be wrong, and what the stand-in says, print what their schemas say", () => {
  const { job } = read("marram");
  const plan = currentPlan(job);
  const diagnoser = new Diagnoser(buildNetwork(job), plan.lineUps[0]!, plan.conditions);
  const readings = [
    { port: "vacuum.a", state: "full", gaugeKpa: -18.5 },
    { look: "bubbles", port: "lift.in", seen: false },
    { symptom: "losesPowerAtFull", has: true },
  ];
  const parsed = careReadingsSchema.parse(readings).map(readCareReading);
  const report = diagnosisReport(diagnoser, parsed, 3);
  expect(errors("diagnosis", report)).toEqual([]);
  expect(report.next).toHaveLength(3);
  expect(report.ranked.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 6);
  expect(errors("simulation", deltasOf(new SimulatedSystem(diagnoser, null, 1), 1))).toEqual([]);
  // Half a delta, a state that is none, and a vacuum deeper than there is are refused.
  for (const bad of [
    { port: "vacuum.a", state: "flat out", gaugeKpa: -3 },
    { port: "vacuum.a", state: "full" },
    { port: "vacuum.a", state: "full", gaugeKpa: -150 },
  ])
    expect(careReadingsSchema.safeParse([bad]).success).toBe(false);
});
