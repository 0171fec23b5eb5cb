/** Alternatives: copied, chosen, removed; what is based on what stays true, and the last plan stays. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import type { Command } from "./command";
import { applyCommand } from "./commands";

const demo = (JSON.parse(readFileSync("demo/unit-12.keel.json", "utf8")) as { job: Job }).job;
/** With its first plan alone. */
const job: Job = { ...demo, plans: demo.plans.slice(0, 1) };
const after = (from: Job, ...commands: Command[]): Job =>
  commands.reduce((now, command) => applyCommand(now, command).job, from);
const fork = (id: string): Command => ({ name: "forkPlan", id, planName: id });
const remove = (id: string): Command => ({ name: "removePlan", id });
const basis = (one: Job) => Object.fromEntries(one.plans.map(({ id, basedOn }) => [id, basedOn]));
const first = job.plans[0]!.id;

describe("an alternative", () => {
  const two = after(job, fork("b"));
  test("is whole, chosen at once, and says what it is based on", () => {
    expect(two.currentPlanId).toBe("b");
    const { id: _, name: _name, basedOn, ...copy } = currentPlan(two);
    const { id: _id, name: _own, basedOn: _based, ...original } = job.plans[0]!;
    expect(copy).toEqual(original);
    expect(basedOn).toBe(first);
  });
  test("is edited alone: the plan that it came from stays as it was", () => {
    const edited = after(two, { name: "editPart", id: "lift", change: { name: "Other pump" } } as Command);
    expect(edited.plans.find(({ id }) => id === first)).toEqual(job.plans[0]);
    expect(currentPlan(edited).parts.find(({ id }) => id === "lift")?.name).toBe("Other pump");
  });
  test("that is not there is neither chosen nor removed", () => {
    expect(() => after(two, { name: "choosePlan", id: "nobody" })).toThrow();
    expect(() => after(two, remove("nobody"))).toThrow();
  });
});

describe("a plan that is removed", () => {
  const three = after(job, fork("b"), fork("c"));
  test("hands on what was based on it", () => {
    expect(basis(three)).toMatchObject({ b: first, c: "b" });
    expect(basis(after(three, remove("b")))).toMatchObject({ c: first });
    expect(basis(after(three, remove(first))).b).toBeUndefined();
  });
  test("leaves its basis chosen where it was the chosen one, and else the choice as it was", () => {
    expect(after(three, remove("c")).currentPlanId).toBe("b");
    expect(after(three, remove("b")).currentPlanId).toBe("c");
  });
  test("is not the last one", () => {
    const gone = after(three, remove("c"), remove("b"));
    expect(() => after(gone, remove(first))).toThrow(/lastPlan/);
    expect(gone.plans.length).toBe(1);
  });
});

describe("an end of a port", () => {
  const end = { family: "jic37", size: "-8", gender: "m" } as unknown;
  const set = (from: Job, port: string, to: unknown): Job =>
    after(from, { name: "setEnd", id: "lift", port, end: to } as Command);
  test("is kept by its owner and port; the last that is taken away leaves nothing behind", () => {
    const had = currentPlan(job).ends?.lift;
    const both = set(set(job, "in", end), "out", end);
    expect(currentPlan(both).ends?.lift).toEqual({ ...had, in: end, out: end });
    const none = set(set(both, "in", null), "out", null);
    expect(currentPlan(none).ends?.lift).toBeUndefined();
  });
  test("of what is not in the plan is refused", () => {
    expect(() => after(job, { name: "setEnd", id: "nobody", port: "in", end } as Command)).toThrow();
  });
});

test("what is put elsewhere stands there; nobody is not put anywhere", () => {
  const put = after(job, { name: "put", id: "lift", x: 10, y: -4 }, { name: "put", id: "lift", x: 12, y: 4 });
  expect(currentPlan(put).places?.lift).toEqual({ x: 12, y: 4, byHand: true });
  expect(() => after(job, { name: "put", id: "nobody", x: 1, y: 1 })).toThrow("noSuch");
});
