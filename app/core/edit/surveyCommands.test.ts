/** Engines and tanks put in, changed and taken out: what hangs on them goes with them, in every plan, and is told. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { LineUpSolver } from "../hydraulics/solve";
import { judgeLineUp } from "../hydraulics/worst";
import { buildNetwork } from "../network/network";
import { currentPlan, portsOf } from "../plan/ports";
import type { Job } from "../plan/types";
import { capacityM3 } from "../tanks/tank";
import type { Command } from "./command";
import { applyCommand } from "./commands";

const read = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const truck = read("unit-12");
const boat = read("marram");
const after = (job: Job, ...commands: Command[]): Job =>
  commands.reduce((now, command) => applyCommand(now, command).job, job);
const added = (job: Job, kind?: "engine" | "generator" | "heater") => {
  const position = { xM: 0, yM: 0, zM: 0 };
  const next = after(job, {
    name: "addEngine",
    id: "new",
    engineName: "Outboard",
    position,
    ...(kind && { kind }),
  });
  return next.consumers.find(({ id }) => id === "new")!;
};

describe("an engine without a return", () => {
  const petrol: Job = { ...boat, fuel: { ...boat.fuel, grade: "petrol" } };
  const ports = (one: ReturnType<typeof added>) => portsOf(one).map(({ id }) => id);
  test("is petrol's default, and diesel's is one with a return", () => {
    expect(added(petrol).noReturn).toBe(true);
    expect(ports(added(petrol))).toEqual(["feed"]);
    expect(added(boat).noReturn).toBeUndefined();
    expect(ports(added(boat))).toEqual(["feed", "return"]);
    // A heater burns all it is fed, whatever the fuel.
    expect(ports(added(petrol, "heater"))).toEqual(ports(added(boat, "heater")));
  });
  test("draws what it burns: by hand, feed and burn of its load", () => {
    const engine = truck.consumers.find(({ kind }) => kind === "engine")!;
    const { job, notes } = applyCommand(truck, {
      name: "editEngine",
      id: engine.id,
      change: { noReturn: true },
    });
    // The hose that met its return is gone in every plan, and what it came from is told as open.
    for (const plan of job.plans)
      for (const { from, to } of [...plan.runs, ...plan.joints])
        for (const ref of [from, to]) expect(`${ref.part}.${ref.port}`).not.toBe(`${engine.id}.return`);
    expect(notes.map(({ code }) => code)).toContain("portsLeftOpen");
    const plan = currentPlan(job);
    const lineUp = plan.lineUps.find(({ consumers }) => consumers[engine.id] === "running")!;
    const verdict = judgeLineUp(new LineUpSolver(buildNetwork(job, plan)), lineUp, plan.conditions);
    const { result } = verdict;
    if (result.outcome !== "solved") throw new Error(result.outcome);
    const drawn = result.network.links.reduce(
      (sum, link, i) => (link.kind === "tankPort" ? sum - (result.flow[i] as number) : sum),
      0,
    );
    const full = engine.loads.at(-1)!;
    const load = plan.conditions.load[engine.id] ?? 1;
    expect(drawn / full.burnM3S).toBeCloseTo(load, 1);
    expect(drawn).toBeLessThan(full.feedM3S * 0.9);
  });
});

describe("a tank", () => {
  const tank = truck.tanks[0]!;
  test("made smaller than what it holds is full, in every plan, and that is told", () => {
    const shape = { kind: "box", lengthM: 0.2, widthM: 0.2, heightM: 0.5 } as const;
    const ports = tank.ports.map((port) => ({
      ...port,
      mouth: { xM: 0.1, yM: 0.1, zM: 0.1 },
      outside: { xM: 0.1, yM: 0.1, zM: 0.55 },
    }));
    const bare: Job = {
      ...truck,
      tanks: [
        { id: tank.id, name: tank.name, origin: tank.origin, yawDeg: 0, shape: tank.shape, ports },
        ...truck.tanks.slice(1),
      ],
    };
    const { job, notes } = applyCommand(bare, { name: "editTank", id: tank.id, change: { shape } });
    expect(notes).toContainEqual({ code: "aboardLowered", ids: [tank.id] });
    const most = capacityM3(job.tanks[0]!);
    expect(most).toBeCloseTo(0.2 * 0.2 * 0.5, 12);
    for (const { conditions } of job.plans) expect(conditions.aboardM3[tank.id]).toBeLessThanOrEqual(most);
  });
  test("that goes takes its hoses, its fuel and its places with it; one that is not there is refused", () => {
    const gone = after(truck, { name: "removeTank", id: tank.id });
    for (const plan of gone.plans) {
      expect([...plan.runs, ...plan.joints].flatMap(({ from, to }) => [from.part, to.part])).not.toContain(
        tank.id,
      );
      expect(plan.conditions.aboardM3[tank.id]).toBeUndefined();
      expect(plan.places?.[tank.id]).toBeUndefined();
    }
    expect(() => applyCommand(truck, { name: "editTank", id: "nix", change: { name: "x" } })).toThrow(
      "noSuch",
    );
  });
  test("that comes later holds something to begin with, and is named as it was typed", () => {
    const tanks = after(truck, {
      name: "addTank",
      id: "third",
      tankName: "Third",
      position: { xM: 0, yM: 0, zM: 1 },
    });
    expect(tanks.tanks.at(-1)?.name).toBe("Third");
    for (const plan of tanks.plans) expect(plan.conditions.aboardM3.third ?? 0).toBeGreaterThan(0);
  });
});
