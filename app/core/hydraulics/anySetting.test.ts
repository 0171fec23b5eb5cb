/** Line-ups as nobody would set them, on the three demo jobs: banks, selectors, unset valves, pumps off, tanks empty, fuel at its coldest. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { exportInp } from "../export/inp";
import { isPowered, isValve } from "../kinds/families";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { Conditions, Job, LineUp } from "../plan/types";
import { positionsOf } from "../plan/valves";
import { seeded } from "../random/seeded";
import { LineUpSolver } from "./solve";

const read = (name: string): Job => JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")).job;

function anySetting(job: Job, seed: number): { lineUp: LineUp; conditions: Conditions } {
  const plan = currentPlan(job);
  const random = seeded(seed);
  const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)] as T;
  const lineUp: LineUp = {
    id: "any",
    name: "Any",
    purpose: "run",
    valves: {},
    pumps: {},
    consumers: {},
    intendedTransfer: false,
  };
  for (const part of plan.parts) {
    if (isPowered(part)) lineUp.pumps[part.id] = random() < 0.6 ? "on" : "off";
    if (!isValve(part)) continue;
    if (random() < 0.15) lineUp.valves[part.id] = { kind: "unset" };
    else if (part.kind === "bank")
      lineUp.valves[part.id] = {
        kind: "branches",
        open: part.branches.filter(() => random() < 0.5).map(({ id }) => id),
      };
    else lineUp.valves[part.id] = { kind: "position", position: pick(positionsOf(part)).id };
  }
  for (const { id } of job.consumers) lineUp.consumers[id] = random() < 0.8 ? "running" : "stopped";
  const conditions = structuredClone(plan.conditions);
  conditions.fuelC = pick([-60, -40, -20, -5, 15, 15, 40, 80]);
  for (const { id } of job.tanks)
    if (random() < 0.3) conditions.aboardM3[id] = (conditions.aboardM3[id] ?? 0) * pick([0, 0.05, 0.5]);
  for (const id of Object.keys(conditions.loading))
    if (random() < 0.3) conditions.loading[id] = pick([1, 4, 50, 1000]);
  return { lineUp, conditions };
}

describe.each(["marram", "unit-12", "reading-van"])("%s in settings that nobody would choose", (name) => {
  const job = read(name);
  const solver = new LineUpSolver(buildNetwork(job));

  test("always has an answer: mass and energy balance, or fuel boils and no number is given", () => {
    for (let seed = 1; seed <= 400; seed++) {
      const { lineUp, conditions } = anySetting(job, seed);
      const result = solver.solve(lineUp, conditions);
      if (result.outcome !== "solved") {
        expect(`${seed} ${result.outcome}`).toBe(`${seed} boils`);
        continue;
      }
      expect(result.massM3S).toBeLessThanOrEqual(1e-10);
      expect(result.energyPa).toBeLessThanOrEqual(0.1);
      expect(result.flow.every(Number.isFinite)).toBe(true);
      if (seed % 10 === 0) expect(exportInp(result)).not.toMatch(/NaN|Infinity|undefined/);
    }
  });
});

test("a boat at rest with its returns shut, which once found no answer", () => {
  const job = read("marram");
  const at = (position: string) => ({ kind: "position" as const, position });
  const lineUp: LineUp = {
    ...anySetting(job, 1).lineUp,
    valves: {
      valveP: at("open"),
      valveS: at("shut"),
      supply: { kind: "branches", open: ["day"] },
      valve1: at("open"),
      valve2: at("shut"),
      valvePol: at("shut"),
      returns: { kind: "branches", open: [] },
    },
    pumps: { lift: "off", dose: "off" },
    consumers: { engine: "stopped", heater: "stopped" },
  };
  const result = new LineUpSolver(buildNetwork(job)).solve(lineUp, currentPlan(job).conditions);
  expect(result.outcome).toBe("solved");
  if (result.outcome === "solved") expect(result.flow.every((q) => q === 0)).toBe(true);
});
