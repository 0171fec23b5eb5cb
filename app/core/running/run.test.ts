import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { fuelAt } from "../fuel/fuel";
import { tankFlows } from "../hydraulics/derive";
import { portFlowM3S } from "../hydraulics/pot";
import { LineUpSolver, solveLineUp } from "../hydraulics/solve";
import { buildNetwork } from "../network/network";
import { newEngine, newJob, newLineUp, newPart, newRun, newTank } from "../plan/blank";
import { currentPlan } from "../plan/ports";
import type { DutyStep, Job, Plan } from "../plan/types";
import { STILL_AIR_W_M2K, specificHeatJKgK } from "../tanks/heat";
import { capacityM3 } from "../tanks/tank";
import { GRAVITY_M_S2, LITRE_M3, LITRE_PER_HOUR_M3_S } from "../units/factors";
import { conditionsAt, enduranceH, enduranceInDuty, runOverTime } from "./run";

const at = (xM: number, yM: number, zM: number) => ({ xM, yM, zM });
const duty = (hours: number, lineUpId = "l", more: Partial<DutyStep> = {}): DutyStep => ({
  id: "d",
  hours,
  lineUpId,
  load: 1,
  pitchDeg: 0,
  rollDeg: 0,
  ...more,
});

/** A box of 1 m2 of floor and 0.4 m high at a height, with a low outlet and a high return. */
function box(id: string, xM: number, zM: number) {
  const tank = newTank(id, id, at(xM, 0, zM));
  tank.shape = { kind: "box", lengthM: 1, widthM: 1, heightM: 0.4 };
  for (const port of tank.ports) port.outside = { ...port.mouth };
  return tank;
}

/** An engine on one tank, back to the same or to another; its fuel neither warms nor cools. */
function engineJob(backTo: "a" | "b"): { job: Job; plan: Plan } {
  const job = newJob("j", "J");
  const plan = currentPlan(job);
  job.tanks.push(box("a", 0, 0.5), box("b", 3, 0.5));
  const engine = newEngine("e", "Engine", at(1.5, 0, 0.3));
  engine.loads = [{ load: 1, feedM3S: 60 * LITRE_PER_HOUR_M3_S, burnM3S: 20 * LITRE_PER_HOUR_M3_S }];
  engine.returnC = 15;
  job.consumers.push(engine);
  plan.lineUps.push({ ...newLineUp("l", "run"), consumers: { e: "running" } });
  plan.conditions.fuelC = 15;
  plan.conditions.aboardM3 = { a: 0.2, b: 0.3 };
  plan.runs.push(
    newRun("f", { part: "a", port: "supply" }, { part: "e", port: "feed" }, 2),
    newRun("r", { part: "e", port: "return" }, { part: backTo, port: "return" }, 3),
  );
  return { job, plan };
}

describe("a run over time against what can be worked out", () => {
  test("an engine burns straight down to its mouth, and the second it comes clear is known", () => {
    const { job, plan } = engineJob("a");
    const run = runOverTime(buildNetwork(job), plan.conditions, [duty(24)], { ambientC: 15 });
    // The mouth stands 25 mm over a floor of 1 m2.
    const seconds = (0.2 - 0.025) / (20 * LITRE_PER_HOUR_M3_S);
    const clear = run.events.find(({ kind }) => kind === "uncovered");
    expect(Math.abs((clear?.atS ?? 0) - seconds)).toBeLessThanOrEqual(1);
    expect(run.events.map(({ kind }) => kind)).toEqual(["step", "uncovered", "noPath"]);
    expect(run.burnedM3).toBeCloseTo(0.175, 5);
    const { aboardM3 } = conditionsAt(buildNetwork(job), run, seconds / 2) ?? { aboardM3: {} };
    // Without a duty in the plan no conditions are known.
    expect(aboardM3).toEqual({});
  });

  test("with a duty in the plan the state at a moment is read between the points", () => {
    const { job, plan } = engineJob("a");
    plan.duty = [duty(4)];
    const network = buildNetwork(job);
    const run = runOverTime(network, plan.conditions, plan.duty, { ambientC: 15 });
    const half = conditionsAt(network, run, 2 * 3600);
    expect(half?.aboardM3.a).toBeCloseTo(0.2 - 0.04, 6);
    expect(half?.load).toEqual({ e: 1 });
  });

  test("endurance is fuel over the mouth by burn", () => {
    const { job, plan } = engineJob("a");
    const network = buildNetwork(job);
    const found = enduranceH(network, plan.lineUps[0]!, plan.conditions, { ambientC: 15 });
    expect(found?.hours).toBeCloseTo(175 / 20, 3);
    expect(enduranceH(network, plan.lineUps[0]!, plan.conditions, { ambientC: 15 }, 5)).toBeNull();
  });

  test.each(["marram", "unit-12", "reading-van"])(
    "%s: how long each line-up feeds is when the run over time says it starves, at the load of its step",
    (file) => {
      const job: Job = JSON.parse(readFileSync(`demo/${file}.keel.json`, "utf8")).job;
      const network = buildNetwork(job);
      const { plan } = network;
      for (const lineUp of plan.lineUps.filter(({ purpose }) => purpose === "run"))
        for (const load of [0.5, 1]) {
          const steps = [duty(160, lineUp.id, { load })];
          const { found, load: told } = enduranceInDuty(
            network,
            lineUp,
            plan.conditions,
            steps,
            { ambientC: 15 },
            160,
          );
          const run = runOverTime(network, plan.conditions, steps, { ambientC: 15 });
          const end = run.events.find(({ kind }) => ["starved", "air", "noPath", "failed"].includes(kind));
          expect(told).toBe(load);
          if (end === undefined) expect(found).toBeNull();
          else expect(Math.abs((found?.hours ?? 0) * 3600 - end.atS)).toBeLessThanOrEqual(2);
        }
    },
  );

  test("a return into another tank overfills it when it must, and what is too much is counted", () => {
    const { job, plan } = engineJob("b");
    plan.conditions.aboardM3 = { a: 0.39, b: 0.38 };
    const run = runOverTime(buildNetwork(job), plan.conditions, [duty(1)], { ambientC: 15 });
    const full = run.events.find(({ kind }) => kind === "overfilled");
    const back = 40 * LITRE_PER_HOUR_M3_S;
    expect(Math.abs((full?.atS ?? 0) - 0.02 / back)).toBeLessThanOrEqual(1);
    expect(run.points.at(-1)?.spilledM3.b).toBeCloseTo(back * 3600 - 0.02, 5);
    expect(run.points.at(-1)?.aboardM3.b).toBeLessThanOrEqual(capacityM3(job.tanks[1]!) + 1e-9);
  });

  test("a tilt uncovers the mouth earlier: the level over it falls by the way to it times the slope", () => {
    const { job, plan } = engineJob("a");
    const network = buildNetwork(job);
    const run = runOverTime(network, plan.conditions, [duty(24, "l", { pitchDeg: 5 })], { ambientC: 15 });
    const clear = run.events.find(({ kind }) => kind === "uncovered");
    // Mouth 0.4 m aft of the middle at z 0.025, front up: the surface stands higher there, by 0.4 tan 5.
    const left = 0.025 - 0.4 * Math.tan((5 * Math.PI) / 180);
    // The surface meets the floor before that: what is left is a wedge with its edge on the floor.
    const wet = 0.1 + 0.025 / Math.tan((5 * Math.PI) / 180);
    const wedge = 0.5 * wet * wet * Math.tan((5 * Math.PI) / 180);
    expect(left).toBeLessThan(0);
    expect(clear?.kind === "uncovered" && clear.leftM3).toBeCloseTo(wedge, 4);
  });

  /** Two boxes joined by one long laminar line: their difference falls as an exponential. */
  test("gravity levels two tanks as Hagen-Poiseuille and the closed form say", () => {
    const job = newJob("j", "J");
    const plan = currentPlan(job);
    job.tanks.push(box("a", 0, 0.5), box("b", 3, 0.5));
    for (const tank of job.tanks)
      Object.assign(tank.ports[1]!, { mouth: at(0.8, 0.25, 0.01), outside: at(0.8, 0.25, 0.01) });
    plan.lineUps.push(newLineUp("l", "level"));
    plan.conditions.fuelC = 15;
    plan.conditions.aboardM3 = { a: 0.35, b: 0.1 };
    const line = newRun("r", { part: "a", port: "return" }, { part: "b", port: "return" }, 40, 0.006);
    plan.runs.push(line);
    const run = runOverTime(buildNetwork(job), plan.conditions, [duty(10)], { ambientC: 15 });
    const fuel = fuelAt(job.fuel, 15)!;
    const resistance = (128 * fuel.dynamicPaS * 40) / (Math.PI * 0.006 ** 4);
    const perSecond = (2 * fuel.densityKgM3 * GRAVITY_M_S2) / resistance;
    for (const { atS, aboardM3 } of run.points) {
      const expected = 0.25 * Math.exp(-perSecond * atS);
      // Entrance and exit take a thousandth of the loss.
      expect(Math.abs((aboardM3.a ?? 0) - (aboardM3.b ?? 0) - expected)).toBeLessThan(0.25 * 4e-3);
    }
    expect((run.points.at(-1)?.aboardM3.a ?? 0) + (run.points.at(-1)?.aboardM3.b ?? 0)).toBeCloseTo(0.45, 9);
  });

  /** Torricelli with a rated part for an orifice: the root of the height falls straight with time. */
  test("a square-law drain empties as 2 A (sqrt h0 - sqrt h) / k", () => {
    const job = newJob("j", "J");
    const plan = currentPlan(job);
    const [high, low] = [box("a", 0, 2), box("b", 3, 0)];
    low.shape = { kind: "box", lengthM: 30, widthM: 30, heightM: 0.4 };
    job.tanks.push(high, low);
    plan.lineUps.push(newLineUp("l", "drain"));
    plan.conditions.aboardM3 = { a: 0.38, b: 0.9 };
    const meter = newPart("flowMeter", "m", at(1.5, 0, 1));
    if (meter.kind !== "flowMeter") throw new Error("no meter");
    Object.assign(meter, { ratedFlowM3S: 100 * LITRE_PER_HOUR_M3_S, ratedDropPa: 200000, boreM: 0.025 });
    plan.parts.push(meter);
    plan.runs.push(
      newRun("r1", { part: "a", port: "supply" }, { part: "m", port: "in" }, 2, 0.025),
      newRun("r2", { part: "m", port: "out" }, { part: "b", port: "supply" }, 2, 0.025),
    );
    for (const tank of job.tanks) for (const port of tank.ports) port.boreM = 0.025;
    const run = runOverTime(buildNetwork(job), plan.conditions, [duty(3)], { ambientC: 15 });
    // Drop of the part in metres of fuel over flow squared: density cancels.
    const k = Math.sqrt((830 * GRAVITY_M_S2 * (100 * LITRE_PER_HOUR_M3_S) ** 2) / 200000);
    // It falls from the mouth of b, 25 mm over its floor and clear of its fuel.
    const start = 2 + 0.38 - 0.025;
    const last = run.points.at(-1)!;
    const height = 2 + (last.aboardM3.a ?? 0) - 0.025;
    const seconds = (2 / k) * (Math.sqrt(start) - Math.sqrt(height));
    expect(Math.abs(seconds / last.atS - 1)).toBeLessThan(2e-3);
  });

  test("a pot that its fill does not keep up with draws back over its overflow, and that is told once", () => {
    const job = newJob("j", "J");
    const plan = currentPlan(job);
    const tank = box("a", 0, 0.5);
    tank.ports.push({
      ...tank.ports[1]!,
      id: "over",
      mouth: at(0.8, 0.5, 0.05),
      outside: at(0.8, 0.5, 0.05),
    });
    job.tanks.push(tank);
    const engine = newEngine("e", "Engine", at(1.5, 0, 0.3));
    engine.loads = [{ load: 1, feedM3S: 60 * LITRE_PER_HOUR_M3_S, burnM3S: 20 * LITRE_PER_HOUR_M3_S }];
    job.consumers.push(engine);
    plan.parts.push(newPart("swirlPot", "pot", at(1, 0, 0.4)));
    plan.lineUps.push({ ...newLineUp("l", "run"), consumers: { e: "running" } });
    plan.conditions.aboardM3 = { a: 0.3 };
    const run = (id: string, from: [string, string], to: [string, string], lengthM: number, boreM: number) =>
      plan.runs.push(
        newRun(id, { part: from[0], port: from[1] }, { part: to[0], port: to[1] }, lengthM, boreM),
      );
    // A thin fill and a wide overflow: most of what the engine draws comes back the wrong way.
    run("fill", ["a", "supply"], ["pot", "fill"], 4, 0.004);
    run("over", ["pot", "over"], ["a", "over"], 2, 0.012);
    run("out", ["pot", "out"], ["e", "feed"], 2, 0.0095);
    run("back", ["e", "return"], ["a", "return"], 3, 0.0079);
    const kinds = (aboard: Job) =>
      runOverTime(buildNetwork(aboard), plan.conditions, [duty(1)], { ambientC: 15 }).events.map(
        ({ kind }) => kind,
      );
    expect(kinds(job)).toEqual(["step", "potDrains", "potEmpty"]);
    // At steady flows it falls in a straight line: its own volume over what comes back over its overflow.
    const network = buildNetwork(job);
    const solved = solveLineUp(network, plan.lineUps[0]!, plan.conditions);
    if (solved.outcome !== "solved") throw new Error("not solved");
    const [drawn, filled] = [-portFlowM3S(solved, "pot", "out"), portFlowM3S(solved, "pot", "fill")];
    const emptyS = (1.5 * LITRE_M3) / (drawn - filled);
    const { events, points } = runOverTime(network, plan.conditions, [duty(1)], { ambientC: 15 });
    const empty = events.find(({ kind }) => kind === "potEmpty");
    expect(Math.abs((empty?.atS ?? 0) / emptyS - 1)).toBeLessThan(0.002);
    for (const { atS, potM3 } of points)
      expect(Math.abs((potM3.pot ?? -1) / LITRE_M3 - 1.5 * Math.max(0, 1 - atS / emptyS))).toBeLessThan(4e-3);
    plan.lineUps[0]!.consumers.e = "stopped";
    expect(kinds(job)).toEqual(["step"]);
  });

  test("a warm tank at rest cools as an exponential", () => {
    const job = newJob("j", "J");
    const plan = currentPlan(job);
    job.tanks.push(box("a", 0, 0));
    plan.lineUps.push(newLineUp("l", "rest"));
    plan.conditions.fuelC = 50;
    plan.conditions.aboardM3 = { a: 0.2 };
    const run = runOverTime(buildNetwork(job), plan.conditions, [duty(20)], { ambientC: 10 });
    const mass = 0.2 * fuelAt(job.fuel, 35)!.densityKgM3;
    const wet = 1 + 4 * 0.2;
    const tau = (mass * specificHeatJKgK(835, 35)) / (STILL_AIR_W_M2K * wet);
    const last = run.points.at(-1)!;
    const expected = 10 + 40 * Math.exp(-last.atS / tau);
    expect(Math.abs((last.tempC.a ?? 0) - expected)).toBeLessThan(0.4);
  });
});

describe("against a brute-force run at one-second steps", () => {
  const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };

  /** Volumes by Euler's steps of a second; temperature is held, so that only levels are compared. */
  function brute(held: Job, steps: readonly DutyStep[]): Record<string, number> {
    const network = buildNetwork(held);
    const solver = new LineUpSolver(network);
    const aboard = { ...network.plan.conditions.aboardM3 };
    for (const step of steps) {
      const lineUp = network.plan.lineUps.find(({ id }) => id === step.lineUpId)!;
      for (let s = 0; s < step.hours * 3600; s++) {
        const result = solver.solveInPlace(lineUp, {
          ...network.plan.conditions,
          aboardM3: aboard,
          load: { engine: step.load },
          trim: { pitchDeg: step.pitchDeg, rollDeg: step.rollDeg },
        });
        if (result.outcome !== "solved") throw new Error(result.outcome);
        for (const [id, out] of tankFlows(result)) aboard[id] = Math.max(0, (aboard[id] ?? 0) - out);
      }
    }
    return aboard;
  }

  test("levels of Marram after a duty with a transfer, a tilt and a tank run dry agree within 0.1 %", () => {
    const held: Job = JSON.parse(JSON.stringify(job));
    held.consumers[0]!.returnC = 15;
    for (const tank of held.tanks) delete tank.cooler;
    const plan = currentPlan(held);
    plan.conditions.fuelC = 15;
    plan.conditions.aboardM3.dayTank = 0.02;
    const steps = [
      duty(0.2, "runPort", { id: "a", load: 0.6 }),
      duty(0.15, "fillPort", { id: "b" }),
      duty(1.75, "runDay", { id: "c", rollDeg: 6 }),
    ];
    const run = runOverTime(buildNetwork(held), plan.conditions, steps, { ambientC: 15 });
    expect(run.events.some(({ kind }) => kind === "uncovered")).toBe(true);
    const slow = brute(held, steps);
    for (const { id } of held.tanks) {
      const capacity = capacityM3(held.tanks.find((tank) => tank.id === id)!);
      expect(Math.abs((run.points.at(-1)?.aboardM3[id] ?? 0) - (slow[id] ?? 0)) / capacity).toBeLessThan(
        1e-3,
      );
    }
  });
});
