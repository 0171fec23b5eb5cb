/** What the book says of a line-up: the last readings at full load and like temperature, and a joint that is wet. */
import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import type { BookEntry, LeakCheck, VacuumReading } from "../book/entries";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { knownFromBook } from "./fromBook";

const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };
const plan = currentPlan(job);
const lineUp = plan.lineUps[0]!;
const base = { planId: plan.id, planHash: "" };
const vacuum = (id: string, at: string, vacuumPa: number, more: object = {}): VacuumReading => ({
  ...base,
  id,
  at,
  kind: "vacuum",
  gaugeId: "vacuum",
  lineUpId: lineUp.id,
  vacuumPa,
  conditions: { ...plan.conditions, load: { ...plan.conditions.load, engine: 1 }, ...more },
  note: "",
});
const look = (id: string, at: string, result: "dry" | "wet"): LeakCheck => ({
  ...base,
  id,
  at,
  kind: "leakCheck",
  lineUpId: lineUp.id,
  joint: { part: "sep1", port: "out" },
  result,
});
const known = (...book: BookEntry[]) => knownFromBook(book, plan, lineUp);

test("the last of a gauge counts, whatever the order in the book", () => {
  expect(known(vacuum("b", "2026-06-02T00:00:00Z", 9000), vacuum("a", "2026-06-01T00:00:00Z", 7000))).toEqual(
    [{ kind: "gauge", port: "vacuum.a", state: "full", gaugePa: -9000 }],
  );
});

test("at part load, in cold fuel, in another line-up or of another plan it says nothing", () => {
  const at = "2026-06-02T00:00:00Z";
  expect(
    known(
      vacuum("a", at, 9000, { load: { ...plan.conditions.load, engine: 0.5 } }),
      vacuum("b", at, 9000, { fuelC: plan.conditions.fuelC - 20 }),
      { ...vacuum("c", at, 9000), lineUpId: "other" },
      { ...vacuum("d", at, 9000), planId: "other" },
    ),
  ).toEqual([]);
});

test("a joint that was wet and is not yet dry is a puddle that was seen", () => {
  const [first, then] = ["2026-06-01T00:00:00Z", "2026-06-02T00:00:00Z"];
  expect(known(look("a", first, "wet"))).toEqual([{ kind: "look", look: "puddle", seen: true }]);
  expect(known(look("a", first, "wet"), look("b", then, "dry"))).toEqual([]);
});
