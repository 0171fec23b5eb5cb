import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { checkJob } from "../check/job";
import { findingsOf } from "../findings/findings";
import { isFed, LineUpSolver } from "../hydraulics/solve";
import { isConsumerKind, isPowered } from "../kinds/families";
import { partKinds } from "../kinds/index";
import { buildNetwork } from "../network/network";
import type { NewPartKind } from "../plan/blank";
import { currentPlan, placedPorts } from "../plan/ports";
import type { Job } from "../plan/types";
import { type Command, CommandRefused } from "./command";
import { applyCommand, playPatches } from "./commands";
import { starterIds, startJob } from "./starters";

const demo = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const marram = (): Job => demo("marram");
const kinds = partKinds.filter((kind): kind is NewPartKind => !isConsumerKind(kind));

/** A command that fits the job as it stands, chosen by numbers. */
function someCommand(job: Job, which: number, pick: number, step: number): Command {
  const plan = currentPlan(job);
  const one = <T>(items: readonly T[]): T => items[pick % items.length] as T;
  const kind = one(kinds);
  const all: Command[] = [
    { name: "rename", jobName: `Job ${pick}` },
    { name: "addTank", id: `nt${step}`, tankName: "New", position: { xM: 0, yM: 0, zM: 0 } },
    { name: "addPart", id: `np${step}`, kind, position: { xM: 1, yM: 0, zM: 0.5 } },
    { name: "addLineUp", id: `nl${step}`, lineUpName: "New" },
    { name: "setConditions", change: { fuelC: pick % 40 } },
    {
      name: "addEngine",
      id: `ne${step}`,
      engineName: "New",
      position: { xM: 0, yM: 1, zM: 0.5 },
      kind: one(["engine", "generator", "heater"] as const),
    },
    { name: "editPlan", change: { serviceAllowanceM: 0.1 + (pick % 10) / 100 } },
    { name: "forkPlan", id: `fp${step}`, planName: "Other" },
    { name: "choosePlan", id: one(job.plans).id },
  ];
  if (job.tanks.length > 0) {
    all.push({ name: "put", id: one(job.tanks).id, x: 5, y: -3 });
    all.push({ name: "removeTank", id: one(job.tanks).id });
  }
  if (job.consumers.length > 0) all.push({ name: "removeEngine", id: one(job.consumers).id });
  // Two ports that may be taken, or one and the same: then it is refused.
  const ports = [...placedPorts(job, plan).values()].map(({ ref }) => ref);
  const other = ports[(pick * 7 + step) % Math.max(1, ports.length)];
  if (other) {
    all.push({ name: "connect", id: `nc${step}`, from: one(ports), to: other });
    all.push({ name: "join", id: `nj${step}`, from: one(ports), to: other });
  }
  if (job.plans.length > 1) all.push({ name: "removePlan", id: one(job.plans).id });
  if (plan.runs.length > 0) {
    all.push({ name: "insertPart", id: `ip${step}`, kind, runId: one(plan.runs).id, newRunId: `ir${step}` });
    all.push({ name: "disconnect", id: one(plan.runs).id });
  }
  if (plan.parts.length > 0) {
    all.push({ name: "removePart", id: one(plan.parts).id });
    all.push({ name: "turnPart", id: one(plan.parts).id });
    all.push({ name: "replacePart", id: one(plan.parts).id, newId: `rp${step}`, kind });
  }
  if (plan.lineUps.length > 0) {
    all.push({ name: "duplicateLineUp", id: `dl${step}`, from: one(plan.lineUps).id, lineUpName: "Copy" });
    all.push({ name: "removeLineUp", id: one(plan.lineUps).id });
    const lineUpId = one(plan.lineUps).id;
    all.push({ name: "editLineUp", id: lineUpId, change: { name: `Line-up ${pick}`, purpose: "polish" } });
    const pump = plan.parts.find(isPowered);
    if (pump) all.push({ name: "setPump", lineUpId, pumpId: pump.id, state: one(["on", "off"] as const) });
    const bank = plan.parts.find((part) => part.kind === "bank");
    if (bank?.kind === "bank" && bank.branches.length > 0)
      all.push({
        name: "setBranch",
        lineUpId,
        valveId: bank.id,
        branch: one(bank.branches).id,
        isOpen: pick % 2 === 0,
      });
    if (job.consumers.length > 0)
      all.push({
        name: "setConsumer",
        lineUpId,
        consumerId: one(job.consumers).id,
        state: one(["running", "stopped"] as const),
      });
  }
  return all[which % all.length] as Command;
}

/** Applied, or refused with the job as it was. */
function tried(job: Job, command: Command): ReturnType<typeof applyCommand> | null {
  const before = JSON.stringify(job);
  try {
    return applyCommand(job, command);
  } catch (error) {
    if (!(error instanceof CommandRefused)) throw error;
    expect(JSON.stringify(job)).toBe(before);
    return null;
  }
}

describe("commands", () => {
  test.each(["marram", "unit-12", "reading-van"])(
    "%s: any string of them leaves no fault, and undone it is the identity; redone it is the same again",
    (name) => {
      const step = fc.tuple(fc.nat(1000), fc.nat(1000));
      fc.assert(
        fc.property(fc.array(step, { minLength: 1, maxLength: 15 }), (steps) => {
          const start = demo(name);
          let job = start;
          const inverses: Parameters<typeof playPatches>[1][] = [];
          const forwards: Parameters<typeof playPatches>[1][] = [];
          steps.forEach(([which, pick], i) => {
            const applied = tried(job, someCommand(job, which, pick, i));
            if (!applied) return;
            job = applied.job;
            inverses.unshift(applied.inverse);
            forwards.push(applied.patches);
            expect(checkJob(job)).toEqual([]);
          });
          expect(inverses.reduce(playPatches, job)).toEqual(start);
          expect(forwards.reduce(playPatches, start)).toEqual(job);
        }),
        { numRuns: 80 },
      );
    },
  );

  test("a part let into a run splits it; taken out again the run heals to its length", () => {
    const job = marram();
    const before = currentPlan(job).runs.find(({ id }) => id === "run1");
    const inserted = applyCommand(job, {
      name: "insertPart",
      id: "new",
      kind: "check",
      runId: "run1",
      newRunId: "new2",
      at: 0.25,
    }).job;
    const lengths = currentPlan(inserted)
      .runs.filter(({ id }) => id === "run1" || id === "new2")
      .map(({ route }) => (route.kind === "measured" ? route.lengthM : 0));
    if (before?.route.kind !== "measured") throw new Error("no run");
    expect(lengths[0]! / lengths[1]!).toBeCloseTo(1 / 3, 10);
    expect(lengths[0]! + lengths[1]!).toBeCloseTo(before.route.lengthM, 10);
    const healed = applyCommand(inserted, { name: "removePart", id: "new" });
    expect(healed.notes).toEqual([]);
    const run = currentPlan(healed.job).runs.find(({ from }) => from.part === "valveP");
    expect(run?.to).toEqual({ part: "supply", port: "port" });
    expect(run?.route.kind === "measured" && run.route.lengthM).toBeCloseTo(before.route.lengthM, 10);
  });

  test("taking out a tee says which end no longer meets", () => {
    const { notes } = applyCommand(marram(), { name: "removePart", id: "teePol" });
    expect(notes).toEqual([{ code: "endsNoLongerMeet", ids: ["valvePol"] }]);
  });

  test("a valve put in stands at a position in every line-up", () => {
    const { job } = applyCommand(marram(), {
      name: "insertPart",
      id: "v",
      kind: "twoWay",
      runId: "run2",
      newRunId: "r2b",
    });
    for (const lineUp of currentPlan(job).lineUps)
      expect(lineUp.valves.v).toEqual({ kind: "position", position: "open" });
  });

  test("a port carries one connection, and refusing changes nothing", () => {
    const job = marram();
    const command: Command = {
      name: "connect",
      id: "x",
      from: { part: "portWing", port: "out" },
      to: { part: "dayTank", port: "ret" },
    };
    expect(() => applyCommand(job, command)).toThrow(CommandRefused);
    expect(job).toEqual(marram());
  });

  test.each(starterIds.filter((id) => id !== "nothing"))(
    "the starting plan %s is whole, feeds in every line-up, and has nothing to mend",
    (starter) => {
      const job = startJob("s", "Start", starter);
      const plan = currentPlan(job);
      expect(checkJob(job)).toEqual([]);
      const names = [...job.tanks, ...job.consumers, ...plan.parts].map(({ name }) => name);
      expect(names.length - new Set(names).size).toBe(0);
      // Only who stands before it knows how a heater and its pump are fitted.
      const wrong = findingsOf(job, [], buildNetwork(job)).filter(({ grade }) => grade !== "watch");
      expect(wrong.map(({ rule }) => rule)).toEqual(
        starter === "heater" ? ["notLookedAt", "notLookedAt"] : [],
      );
      const solver = new LineUpSolver(buildNetwork(job));
      expect(plan.lineUps.length).toBeGreaterThan(0);
      for (const lineUp of plan.lineUps) expect(isFed(solver.solve(lineUp, plan.conditions))).toBe(true);
    },
  );
});

test("a tank drawn smaller than its fuel is taken as full, and that is told; a shape that cannot be is left to be refused", () => {
  const job = startJob("j", "J", "oneTank");
  const [tank] = job.tanks;
  if (!tank) throw new Error("no tank");
  const full = applyCommand(job, { name: "setConditions", change: { aboardM3: { [tank.id]: 0.19 } } }).job;
  const small = { kind: "box", lengthM: 0.5, widthM: 0.5, heightM: 0.4 } as const;
  const { job: after, notes } = applyCommand(full, {
    name: "editTank",
    id: tank.id,
    change: { shape: small },
  });
  expect(notes).toEqual([{ code: "aboardLowered", ids: [tank.id] }]);
  expect(currentPlan(after).conditions.aboardM3[tank.id]).toBeCloseTo(0.1, 12);
  const bad = applyCommand(full, {
    name: "editTank",
    id: tank.id,
    change: { shape: { ...small, lengthM: 400 } },
  });
  expect(currentPlan(bad.job).conditions.aboardM3[tank.id]).toBe(0.19);
});

test("a field given as undefined goes", () => {
  const job = startJob("j", "J", "oneTank");
  const id = job.tanks[0]?.id ?? "";
  const cooled = applyCommand(job, {
    name: "editTank",
    id,
    change: { cooler: { effectiveness: 0.5, coolantC: 20 } },
  }).job;
  expect(cooled.tanks[0]?.cooler?.effectiveness).toBe(0.5);
  const bare = applyCommand(cooled, { name: "editTank", id, change: { cooler: undefined } }).job;
  expect("cooler" in (bare.tanks[0] ?? {})).toBe(false);
});

test("a part that was awaited goes with the day it was to come", () => {
  const unit = demo("unit-12");
  const { id, deliveries } = unit.plans.find((plan) => plan.deliveries) ?? currentPlan(unit);
  const [awaited] = Object.keys(deliveries ?? {});
  expect(awaited).toBeDefined();
  const job = [
    { name: "choosePlan", id } as const,
    { name: "removePart", id: awaited ?? "" } as const,
  ].reduce((now, command) => applyCommand(now, command).job, unit);
  expect(checkJob(job)).toEqual([]);
  expect(Object.keys(currentPlan(job).deliveries ?? {})).not.toContain(awaited);
});

test("a clean element: what loaded the old one is out with it, and only an element can be changed", () => {
  const first = marram();
  const filter = currentPlan(first).parts.find((part) => part.id === "sep1");
  const id = filter?.kind === "filter" ? (filter.element?.id ?? "") : "";
  const laden = applyCommand(first, { name: "setConditions", change: { loading: { [id]: 3.2 } } }).job;
  const { job: clean } = applyCommand(laden, { name: "changeElement", id: "sep1", fittedOn: "2026-08-01" });
  expect(currentPlan(clean).conditions.loading[id]).toBe(1);
  expect(currentPlan(clean).parts.find((part) => part.id === "sep1")).toMatchObject({
    element: { id, fittedOn: "2026-08-01" },
  });
  expect(checkJob(clean)).toEqual([]);
  const notFilter = currentPlan(first).parts.find(({ kind }) => kind === "twoWay")?.id ?? "none";
  for (const other of ["nobody", notFilter])
    expect(() => applyCommand(first, { name: "changeElement", id: other, fittedOn: "2026-08-01" })).toThrow(
      CommandRefused,
    );
});

describe("what goes with a part besides its way", () => {
  const lostOf = (job: Job, command: Command) =>
    applyCommand(job, command).notes.flatMap((note) => (note.code === "carriedLost" ? note.lost : []));
  const withSensor = applyCommand(marram(), {
    name: "editPart",
    id: "second",
    change: { sensorHeldM3: 1e-4 },
  }).job;
  const replaced = (kind: NewPartKind) =>
    lostOf(withSensor, { name: "replacePart", id: "second", newId: "n", kind });

  test("taken out: the finest medium and the water warning that only it had", () => {
    expect(lostOf(withSensor, { name: "removePart", id: "second" })).toEqual(["waterSensor", "finest"]);
    expect(lostOf(marram(), { name: "removePart", id: "sep1" })).toEqual([]);
  });

  test("replaced: by what takes it on nothing is lost of that, by a block all that it does not lead on", () => {
    expect(replaced("block")).toEqual(["waterSensor", "finest"]);
    expect(replaced("waterSensor")).toEqual(["finest"]);
    const fitted = applyCommand(withSensor, {
      name: "editPart",
      id: "lift",
      change: {
        circuit: { runA: 5, peakA: 9, wireLengthM: 4, wireAreaM2: 2.5e-6, fuseA: 10, hasRelay: true },
      },
    }).job;
    expect(lostOf(fitted, { name: "removePart", id: "lift" })).toEqual(["circuit"]);
  });
});
