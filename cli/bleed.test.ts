/** What `keel bleed` and `keel air` print: by their published schemas, and against what must hold of every bleed. */
import { readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, expect, test } from "@jest/globals";
import Ajv from "ajv/dist/2020.js";
import { contentOf, wordOf } from "~/core/air/content";
import { airReport, bleedReport } from "~/core/air/report";
import { currentPlan } from "~/core/plan/ports";
import type { Job, LineUp } from "~/core/plan/types";
import { airActionsSchema, airJsonSchemas, readAction } from "~/schemas/air";
import { keel } from "./called";

const read = (name: string) =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const first = (job: Job) => currentPlan(job).lineUps[0] as LineUp;
const dry = { kind: "dry" } as const;
const published = (name: string) => JSON.parse(readFileSync(`docs/${name}.schema.json`, "utf8"));
const valid = (name: string, value: unknown) => {
  const check = new Ajv({ strict: false }).compile(published(name));
  check(JSON.parse(JSON.stringify(value)));
  return check.errors ?? [];
};

test("the published schemas are those of the source", () => {
  for (const [name, schema] of Object.entries(airJsonSchemas()))
    expect(published(name)).toEqual(JSON.parse(JSON.stringify(schema)));
});

describe("keel bleed", () => {
  const job = read("unit-12");
  const report = bleedReport(job, first(job), job.schools, dry);
  test("prints what its schema says", () => {
    expect(valid("bleed", report)).toEqual([]);
    expect(valid("bleed", bleedReport(job, { ...first(job), valves: {} }, job.schools, dry))).toEqual([]);
  });
  test("prints actions that, given to keel air, end with the air it says", () => {
    if (!("steps" in report)) throw new Error("no steps");
    const written = report.steps.flatMap(({ actions }) => actions);
    expect(valid("air-actions", written)).toEqual([]);
    const actions = airActionsSchema.parse(JSON.parse(JSON.stringify(written))).map(readAction);
    const played = airReport(job, first(job), actions, dry, 1e6);
    expect(played?.refused).toBeNull();
    expect(played?.states.at(-1)?.left).toBeCloseTo(report.left, 6);
    expect(valid("air", played)).toEqual([]);
  });
  test("with every valve shut has no way, and says so", () => {
    const shut = bleedReport(job, { ...first(job), valves: {} }, job.schools, dry);
    expect(shut.outcome).toBe("noPath");
  });
});

describe("keel air", () => {
  test("lets air fall and time rise, step by step", () => {
    const job = read("reading-van");
    const actions = [
      { do: "pump", id: "dose", on: true },
      { do: "open", joint: "heater.feed", quarters: 2 },
      { do: "wait", seconds: 40 },
    ] as const;
    const report = airReport(job, first(job), [...actions], dry, 5);
    const states = report?.states ?? [];
    expect(states.length).toBe(1 + 2 + 8);
    for (const [i, state] of states.slice(1).entries()) {
      expect(state.atS).toBeGreaterThanOrEqual(states[i]?.atS ?? 0);
      expect(state.airMl).toBeLessThanOrEqual((states[i]?.airMl ?? 0) + 0.5);
    }
    expect(states.at(-1)?.atS).toBeCloseTo(40, 6);
  });
  test("stops at what cannot be done and keeps what was", () => {
    const job = read("reading-van");
    const report = airReport(
      job,
      first(job),
      [
        { do: "wait", seconds: 1 },
        { do: "pump", id: "nobody", on: true },
        { do: "wait", seconds: 1 },
      ],
      dry,
      5,
    );
    expect(report?.refused).toEqual({ code: "noPump", at: "nobody", action: 1 });
    expect(report?.states.length).toBe(2);
  });
});

test("what lines hold is one word", () => {
  expect(contentOf("dry")).toEqual({ kind: "dry" });
  expect(contentOf("changed:sep1")).toEqual({ kind: "filterChanged", partId: "sep1" });
  expect(contentOf("opened:lift.in")).toEqual({ kind: "opened", joint: "lift.in" });
  for (const word of ["dry", "ranDry", "changed:sep1", "opened:lift.in"])
    expect(wordOf(contentOf(word)!)).toBe(word);
  for (const wrong of ["", "wet", "changed", "opened:"]) expect(contentOf(wrong)).toBeNull();
});

describe("on the command line", () => {
  const file = join(tmpdir(), `keel-air-${process.pid}.json`);
  test.each([
    ['[{"do":"wait","seconds":-2}]', /actions\[0\]\.seconds: must be/],
    ['[{"do":"open","joint":"nix.a"}]', /actions\[0\]: nix\.a is no joint of this plan/],
    ['[{"do":"dance"}]', /actions\[0\]/],
    ["[", /not JSON/],
  ])("%s is refused with its place", async (text, wanted) => {
    writeFileSync(file, text);
    const { status, err } = await keel([
      "air",
      "demo/reading-van.keel.json",
      "--lineup",
      "warm",
      "--actions",
      file,
    ]);
    expect(status).toBe(1);
    expect(err).toMatch(wanted);
  });
  test("a line-up, a school and a content that are not there are bad use", async () => {
    for (const args of [
      ["--lineup", "nix"],
      ["--lineup", "warm", "--school", "magic"],
      ["--lineup", "warm", "--content", "wet"],
      ["--lineup", "warm", "--content", "changed:nobody"],
      ["--lineup", "warm", "--content", "opened:dose.top"],
    ]) {
      const { status, err } = await keel(["bleed", "demo/reading-van.keel.json", ...args]);
      expect(status).toBe(2);
      expect(err).toContain(`${args.at(-2)}: `);
    }
  });
});
