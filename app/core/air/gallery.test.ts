/** An engine's own gallery behind its feed joint: filled and swept to its return, and fuel and air are kept. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { applyCommand } from "../edit/commands";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { bleedProcedure, ENOUGH, replay } from "./procedure";
import { bleedTask } from "./report";
import { AirSession } from "./session";

const job = (JSON.parse(readFileSync("demo/unit-12.keel.json", "utf8")) as { job: Job }).job;
const engine = job.consumers.find(({ kind }) => kind === "engine")!;
const lineUp = currentPlan(job).lineUps.find(({ id }) => id === "run")!;
const told = (galleryM3?: number, galleryOpensPa?: number): Job =>
  applyCommand(job, {
    name: "editEngine",
    id: engine.id,
    change: {
      ...(galleryM3 ? { galleryM3 } : {}),
      ...(galleryOpensPa === undefined ? {} : { galleryOpensPa }),
    },
  }).job;
const taskOf = (own: Job) => bleedTask(own, lineUp, { kind: "dry" })!;

describe("an engine's gallery", () => {
  test("of 0.3 L is a vessel of its own, and the bleed ends with it under a thousandth, by running on to the return", () => {
    const own = told(0.3e-3);
    const task = taskOf(own);
    const procedure = bleedProcedure(task, own.schools)!;
    const bare = bleedProcedure(taskOf(job), job.schools)!;
    expect(procedure.roomM3 - bare.roomM3).toBeCloseTo(0.3e-3, 9);
    expect(procedure.left).toBeLessThanOrEqual(ENOUGH);
    expect(procedure.steps.some(({ kind }) => kind === "runOn")).toBe(true);
    expect(bare.steps.some(({ kind }) => kind === "runOn")).toBe(false);
    expect(replay(task, procedure.actions)).toBeCloseTo(procedure.left, 7);
  });

  test("that overflows over what the pump can give stays full of air, and the bleed says that it cannot end", () => {
    const own = told(0.3e-3, 5e6);
    const procedure = bleedProcedure(taskOf(own), own.schools)!;
    expect(procedure.left).toBeGreaterThan(ENOUGH);
    expect(procedure.whyNot.length).toBeGreaterThan(0);
  });

  test("fuel and air are kept while it fills and overflows", () => {
    const own = told(0.3e-3);
    const task = taskOf(own);
    const session = AirSession.start(task.network, lineUp, task.conditions)!;
    const { model } = session;
    const sums = () => {
      const fuel = [...model.fuelM3, ...model.beyond.fuelM3].reduce((sum, one) => sum + one, 0);
      const air = [...model.airJ, ...model.beyond.airJ].reduce((sum, one) => sum + one, 0);
      return { fuel, air };
    };
    const before = sums();
    const gallery = model.mesh.vesselOf.get(engine.id)!;
    const pump = currentPlan(own).parts.find(({ kind }) => kind === "pumpFilterUnit" || kind === "liftPump")!;
    session.act({ do: "pump", id: pump.id, on: true });
    session.act({ do: "wait", seconds: 60 });
    expect(model.fuelM3[gallery]).toBeGreaterThan(0);
    const after = sums();
    expect(Math.abs(after.fuel - before.fuel)).toBeLessThan(1e-12);
    expect(Math.abs(after.air - before.air) / before.air).toBeLessThan(1e-9);
  });
});
