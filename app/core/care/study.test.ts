/** The search as plain data: the same as the diagnoser says, copied without loss, and a practice that repeats by its seed. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { type CareReading, Diagnoser } from "./diagnose";
import { drawnFault, SimulatedSystem } from "./simulate";
import { study } from "./study";
import { visitsOf } from "./visits";

const job = (JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job }).job;
const plan = currentPlan(job);
const diagnoser = new Diagnoser(buildNetwork(job), plan.lineUps[0]!, plan.conditions);
const visits = visitsOf(diagnoser);
const full = visits.find(({ id }) => id === "read:full")!;

describe("a study", () => {
  test("before anything is read tells every group and every visit, and draws nothing but the healthy line", () => {
    const told = study(diagnoser, { readings: [], done: [] })!;
    expect(told.found).toBeNull();
    expect(told.next.map(({ id }) => id).sort()).toEqual(visits.map(({ id }) => id).sort());
    expect(new Set(told.groups.map(({ group }) => group)).size).toBe(told.groups.length);
    expect(told.groups.flatMap(({ ids }) => ids).length).toBe(diagnoser.faults.length);
    expect(told.healthy.length).toBeGreaterThan(5);
    expect(told.suspects).toEqual([]);
    // It crosses to a worker and back whole.
    expect(structuredClone(told)).toEqual(told);
  });

  test("of a blocked way says what the diagnoser says, and each suspect's line runs under the healthy one somewhere", () => {
    const fault = diagnoser.faults.find(({ kind }) => kind === "filterLoaded")!;
    const system = new SimulatedSystem(diagnoser, { fault, size: fault.sizes.at(-1)! }, 7);
    const readings: CareReading[] = system.visit(full);
    const told = study(diagnoser, { readings, done: ["read:full"] })!;
    expect(told.found).toEqual(diagnoser.diagnose(readings));
    expect(told.next.some(({ id }) => id === "read:full")).toBe(false);
    expect(told.suspects.length).toBeGreaterThan(0);
    const lowest = (legs: typeof told.healthy) =>
      Math.min(...legs.flatMap(({ points }) => points.map(({ gaugePa }) => gaugePa)));
    expect(lowest(told.suspects[0]!.legs)).toBeLessThan(lowest(told.healthy));
    for (const visit of told.next)
      for (const { port, state, healthyPa } of visit.places)
        expect(healthyPa).toBe(diagnoser.healthyPa(port, state));
  });

  test("practised hides the same fault for the same seed, reads it by visit, and says at the end what it was", () => {
    const asked = (done: string[], isOver = false) =>
      study(diagnoser, { readings: [], done, practice: { seed: 5, isOver } })!;
    const first = asked([]);
    const second = asked(["read:full"]);
    expect(second.readings.slice(0, first.readings.length)).toEqual(first.readings);
    expect(second.readings.length).toBeGreaterThan(first.readings.length);
    expect(asked(["read:full"]).readings).toEqual(second.readings);
    expect(second.practised).toBeNull();
    const over = asked(["read:full"], true).practised!;
    expect(over.truth).toBe(drawnFault(diagnoser, 5)?.fault.group ?? null);
    expect([first.minutes, second.minutes]).toEqual([0, full.minutes]);
    expect(over.own.truth).toBe(over.truth);
    expect(second.suspects).toEqual([]);
  });

  test("of a line-up that feeds nothing there is none", () => {
    const shut = { ...plan.lineUps[0]!, consumers: {} };
    const dead = new Diagnoser(buildNetwork(job), shut, plan.conditions);
    expect(study(dead, { readings: [], done: [] })).toBeNull();
  });
});
