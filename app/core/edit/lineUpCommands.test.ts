/** Line-ups edited: each command changes what it names and nothing else, and its undo brings all of it back. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { currentPlan } from "../plan/ports";
import type { Job, LineUp } from "../plan/types";
import type { Command } from "./command";
import { applyCommand } from "./commands";

const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };
const lineUp = (one: Job, id: string): LineUp => currentPlan(one).lineUps.find((line) => line.id === id)!;
const after = (command: Command, from = job): Job => applyCommand(from, command).job;

const commands: [string, Command][] = [
  [
    "a handle",
    {
      name: "setValve",
      lineUpId: "runPort",
      valveId: "valve2",
      setting: { kind: "position", position: "open" },
    },
  ],
  ["a branch", { name: "setBranch", lineUpId: "runPort", valveId: "supply", branch: "day", isOpen: true }],
  ["a pump", { name: "setPump", lineUpId: "runPort", pumpId: "lift", state: "off" }],
  ["a consumer", { name: "setConsumer", lineUpId: "runPort", consumerId: "engine", state: "stopped" }],
];

describe.each(commands)("%s that is set", (_, command) => {
  const changed = after(command);
  test("is set in its own line-up alone, and nothing else of the job moves", () => {
    expect(lineUp(changed, "runPort")).not.toEqual(lineUp(job, "runPort"));
    const others = (one: Job) => ({
      ...one,
      plans: one.plans.map((plan) => ({
        ...plan,
        lineUps: plan.lineUps.filter(({ id }) => id !== "runPort"),
      })),
    });
    expect(others(changed)).toEqual(others(job));
  });
  test("set twice is as set once", () => {
    expect(after(command, changed)).toEqual(changed);
  });
});

describe("a branch of a manifold", () => {
  const branch = (id: string, isOpen: boolean, from = job) =>
    after({ name: "setBranch", lineUpId: "runPort", valveId: "supply", branch: id, isOpen }, from);
  const openIn = (one: Job) => {
    const setting = lineUp(one, "runPort").valves.supply;
    return setting?.kind === "branches" ? [...setting.open].sort() : null;
  };
  test("is opened beside those that are open, and shut by itself", () => {
    expect(openIn(job)).toEqual(["port"]);
    const both = branch("day", true);
    expect(openIn(both)).toEqual(["day", "port"]);
    expect(openIn(branch("port", false, both))).toEqual(["day"]);
    expect(openIn(branch("day", false, branch("port", false, both)))).toEqual([]);
  });
});

describe("a line-up", () => {
  const added = after({ name: "addLineUp", id: "new", lineUpName: "New" });
  test("that is added names every valve, pump and consumer there is", () => {
    const line = lineUp(added, "new");
    const plan = currentPlan(added);
    const valves = plan.parts
      .filter(({ kind }) => ["twoWay", "selector", "bank"].includes(kind))
      .map(({ id }) => id);
    expect(Object.keys(line.valves).sort()).toEqual(valves.sort());
    expect(Object.keys(line.pumps).sort()).toEqual(["dose", "lift"]);
    expect(Object.keys(line.consumers).sort()).toEqual(job.consumers.map(({ id }) => id).sort());
  });
  test("that is copied stands by itself: what is set in the copy does not reach the first", () => {
    const copied = after({ name: "duplicateLineUp", id: "copy", from: "runPort", lineUpName: "Copy" });
    const { id: _id, name, ...rest } = lineUp(copied, "copy");
    const { id: _own, name: _name, ...first } = lineUp(job, "runPort");
    expect(name).toBe("Copy");
    expect(rest).toEqual(first);
    const turned = after({ name: "setPump", lineUpId: "copy", pumpId: "lift", state: "off" }, copied);
    expect(lineUp(turned, "runPort").pumps.lift).toBe("on");
  });
  test("that is removed goes out of the duty too", () => {
    const dutied = after({
      name: "editPlan",
      change: {
        duty: ["runPort", "runDay"].map((lineUpId, i) => ({
          id: `d${i}`,
          hours: 2,
          lineUpId,
          load: 1,
          pitchDeg: 0,
          rollDeg: 0,
        })),
      },
    } as Command);
    const gone = after({ name: "removeLineUp", id: "runPort" }, dutied);
    expect(currentPlan(gone).lineUps.some(({ id }) => id === "runPort")).toBe(false);
    expect(currentPlan(gone).duty?.map(({ lineUpId }) => lineUpId)).toEqual(["runDay"]);
  });
});

test("conditions are set by tank, element and consumer: what is not named stands", () => {
  const { conditions: before } = currentPlan(job);
  const { conditions } = currentPlan(
    after({
      name: "setConditions",
      change: { fuelC: 3, aboardM3: { portWing: 0.1 }, loading: { elSep1: 2 }, load: {} },
    }),
  );
  expect(conditions).toEqual({
    ...before,
    fuelC: 3,
    aboardM3: { ...before.aboardM3, portWing: 0.1 },
    loading: { ...before.loading, elSep1: 2 },
  });
});

test("a line-up that is not there is refused, and nothing is changed", () => {
  const copy = structuredClone(job);
  expect(() => after({ name: "setPump", lineUpId: "nobody", pumpId: "lift", state: "off" })).toThrow();
  expect(job).toEqual(copy);
});
