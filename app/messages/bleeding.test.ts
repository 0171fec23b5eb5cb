/** Bleeding in words: each step says what is opened, how it is moved and what is minded, in the job's units. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import type { WhyNot } from "~/core/air/procedure";
import { bleedTask, provedBleed } from "~/core/air/report";
import { currentPlan } from "~/core/plan/ports";
import type { Job, LineUp } from "~/core/plan/types";
import { tradeIn } from "~/core/units/trade";
import {
  airRefusalText,
  contentText,
  leftText,
  secondsText,
  stepDetail,
  stepTitle,
  whyNotText,
} from "./bleeding";
import { nameOf } from "./notes";

const read = (name: string) =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const metric = tradeIn(read("marram").units);

function stepsOf(job: Job, schools = job.schools) {
  const lineUp = currentPlan(job).lineUps[0] as LineUp;
  const task = bleedTask(job, lineUp, { kind: "dry" });
  const steps = (task && provedBleed(job, task, schools)?.procedure.steps) ?? [];
  const name = (id: string) => nameOf(job, id);
  return steps.map((step) => `${stepTitle(step, name)}: ${stepDetail(step, name, metric)}`);
}

describe("steps", () => {
  const boat = stepsOf(read("marram"));
  test("name the spare's valve, the lids, the joints, and what is put back", () => {
    expect(boat[0]).toMatch(/^Open meanwhile: Separator 2 valve: What stands behind it/);
    expect(boat[1]).toMatch(
      /^Fill by hand: Separator 1 and Separator 2: Separator 1: Separator 1 valve shut first, lid off/,
    );
    expect(boat[2]).toMatch(
      /^Lift pump, outlet joint, half a turn: key, \d+ to \d+ presses of 3 s: Lift pump, shut when/,
    );
    expect(boat.at(-1)).toMatch(/^Put back as it was: Separator 2 valve/);
    expect(boat.some((text) => text.startsWith("Top up: Separator 1"))).toBe(true);
  });
  test("carry their caution where a joint is opened", () => {
    const opened = boat.filter((text) => text.includes("half a turn"));
    expect(opened.length).toBeGreaterThan(3);
    for (const text of opened) expect(text).toMatch(/Eyes covered, face and hands away, pan under it\.$/);
  });
  test("go by the school: a relay's jumper runs by seconds", () => {
    const job = read("marram");
    const jumped = stepsOf(job, { ...job.schools, priming: "relayJumper" });
    expect(jumped[2]).toMatch(/: Lift pump on, \d+ to \d+ s, shut when/);
    expect(jumped.some((text) => text.includes("presses"))).toBe(false);
  });
  test("that run by themselves say so", () => {
    expect(stepsOf(read("unit-12"))[0]).toMatch(/^Separator, lid, half a turn: runs by itself, \d+ to \d+ s/);
  });
});

test("a hand's seconds are a range, and long ones minutes", () => {
  expect(secondsText(10)).toBe("8 to 13 s");
  expect(secondsText(0.5)).toBe("1 to 1 s");
  expect(secondsText(240)).toBe("3 to 6 min");
});

test("what is left is a share in two figures, and next to nothing is not drawn out in noughts", () => {
  expect(leftText(0.00004)).toBe("under 0.01 %");
  expect(leftText(0.0123)).toBe("1.2 %");
  expect(leftText(0.43)).toBe("43 %");
  // Two figures of nearly all of it would be written with a power of ten.
  expect(leftText(0.998)).toBe("100 %");
  expect(leftText(0.0999)).toBe("10 %");
  expect(leftText(1)).toBe("100 %");
});

test("each reason names its place, its figure and what would mend it", () => {
  const reasons: WhyNot[] = [
    { code: "noPath" },
    { code: "underVacuum", at: "engine", overFuelM: 0.4 },
    { code: "dryLift", at: "lift", dryS: 40.2, limitS: 15 },
    { code: "notSwept", at: "run1", airM3: 2e-5, hadMS: 0.1, needsMS: 0.35 },
    { code: "headHolds", at: "sep1", airM3: 6e-5 },
    { code: "runsBack", at: "sep1", airM3: 6e-5 },
    { code: "deadLeg", at: "run5", airM3: 1e-5 },
    { code: "stays", at: "run1", airM3: 1e-5 },
  ];
  const job = read("marram");
  const texts = reasons.map((reason) => whyNotText(reason, (id) => nameOf(job, id), metric));
  expect(new Set(texts).size).toBe(reasons.length);
  expect(texts[1]).toContain("Engine stands 400 mm over the fuel");
  expect(texts[2]).toContain("Lift pump would run dry for 41 s, 15 s at the most");
  expect(texts[3]).toMatch(
    /Port tank valve to Supply manifold keeps 20(\.0)? mL: fuel goes through it at 0\.1(00)? m\/s/,
  );
  expect(texts[5]).toContain("A valve before it would hold it");
});

test("a refusal and what the lines hold are told by name", () => {
  expect(airRefusalText({ code: "lidShut", at: "sep1" })).toBe(
    "the lid of sep1 is on: a whole turn takes it off",
  );
  expect(airRefusalText({ code: "stuck", at: "wait" })).toMatch(/^the model found no way on/);
  const name = (id: string) => nameOf(read("marram"), id);
  expect(contentText({ kind: "filterChanged", partId: "sep1" }, name)).toBe("Separator 1 changed");
  expect(contentText({ kind: "opened", joint: "lift.in" }, name)).toBe("a joint of Lift pump was open");
});
