import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { checkJob } from "~/core/check/job";
import type { Job } from "~/core/plan/types";
import { placeText } from "./places";

const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };
const [tank] = job.tanks;
const [engine] = job.consumers;
const sep = job.plans[0]?.parts.findIndex(({ id }) => id === "sep1") ?? -1;

describe("places in words", () => {
  test.each([
    ["tanks[0].sump", `${tank?.name}, sump`],
    ["tanks[0].shape.sections[1].polygon", `${tank?.name}, shape, section 2, polygon`],
    ["consumers[0].loads", `${engine?.name}, feed and burn`],
    [`plans[0].parts[${sep}].boreM`, `${job.plans[0]?.parts[sep]?.name}, bore`],
    [`plans[0].conditions.aboardM3.${tank?.id}`, `fuel aboard, ${tank?.name}`],
    ["tanks[0].ports[0].mouth", `${tank?.name}, ${tank?.ports[0]?.name}, mouth`],
    ["", ""],
  ])("%s", (path, said) => {
    const text = placeText(path, job);
    // With several plans, the plan is named before what stands in it.
    expect(job.plans.length > 1 ? text.replace(`${job.plans[0]?.name}, `, "") : text).toBe(said);
  });

  test("no fault of the jobs, however broken, shows its path", () => {
    const broken = structuredClone(job);
    const plan = broken.plans[0]!;
    broken.tanks[0]!.sump = { xM: 99, yM: 0, diameterM: 0.1, depthM: 0.1, holeM: 0.1 };
    plan.conditions.aboardM3[broken.tanks[1]!.id] = 99;
    plan.runs[0]!.to = { part: "gone", port: "in" };
    plan.lineUps[0]!.valves = { gone: { kind: "position", position: "on" } };
    const faults = checkJob(broken);
    expect(faults.length).toBeGreaterThanOrEqual(4);
    for (const { path } of faults) expect(placeText(path, broken)).not.toMatch(/[[\]_.]|[a-z][A-Z]|M3/);
  });
});
