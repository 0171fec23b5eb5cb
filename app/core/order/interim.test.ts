/** Going on without what has not come: only where the plan feeds without it, and counted against doing it once. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { applyCommand } from "../edit/commands";
import { isPowered } from "../kinds/families";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { interimOf } from "./interim";
import { hoursLeft, progressOf } from "./progress";

const read = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const awaiting = (job: Job, ...awaited: string[]): Job =>
  applyCommand(job, { name: "editPlan", change: { awaited } }).job;
const interim = (job: Job) => {
  const after = currentPlan(job);
  const progress = progressOf(job, null, after, []);
  return { interim: interimOf(job, null, after, progress, 1), progress };
};

describe("without what is awaited", () => {
  const unit = read("unit-12");
  const gauge = currentPlan(unit).parts.find(({ kind }) => kind === "gauge")!.id;

  test("a gauge is left out: it runs sooner than waiting, and costs what is then done twice", () => {
    const { interim: found, progress } = interim(awaiting(unit, gauge));
    expect(found?.without).toEqual([gauge]);
    const all = hoursLeft(progress, 1).finishMin;
    expect(found!.runsAfterMin).toBeLessThanOrEqual(all);
    expect(found!.moreMin).toBeGreaterThan(0);
  });

  test("a filter is not left out, nor a pump that it will not feed without, nor a hose; nothing is told where all is here", () => {
    const { parts, runs } = currentPlan(unit);
    const filter = parts.find(({ kind }) => kind === "filter" || kind === "pumpFilterUnit")!.id;
    const dosing = parts.find((part) => isPowered(part) && part.kind === "dosingPump")?.id;
    for (const id of [filter, runs[0]!.id, ...(dosing ? [dosing] : [])])
      expect([id, interim(awaiting(unit, id)).interim]).toEqual([id, null]);
    expect(interim(awaiting(unit)).interim).toBeNull();
  });
});
