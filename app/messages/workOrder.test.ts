import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { startJob } from "~/core/edit/starters";
import { planJoints } from "~/core/joints/joints";
import { derive } from "~/core/order/derive";
import { ordered, type Verb, type WorkStep } from "~/core/order/facts";
import { bareStep } from "~/core/order/minutes";
import { progressOf, startsFrom, trulyHeld } from "~/core/order/progress";
import { currentPlan } from "~/core/plan/ports";
import type { Job, Plan } from "~/core/plan/types";
import { minutesText } from "./service";
import {
  awaitedText,
  cautionText,
  holdText,
  interimText,
  namer,
  orderFaultText,
  placeTexts,
  stepIdText,
  stepText,
  toolsText,
  undoneText,
  waitText,
} from "./workOrder";

const read = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;

/** The orders of the demo jobs: as found to as planned, and from nothing. */
const orders = ["marram", "unit-12", "reading-van"].flatMap(
  (name): [Job, Plan | null, Plan, WorkStep[]][] => {
    const job = read(name);
    const plan = currentPlan(job);
    const from = startsFrom(job, plan);
    const pairs: [Plan | null, Plan][] = [[null, plan]];
    if (from) pairs.push([from, plan]);
    for (const other of job.plans) if (other.basedOn === plan.id) pairs.push([plan, other]);
    return pairs.map(([before, to]) => {
      const { steps, found } = derive(job, before, to);
      const order = ordered(steps, found);
      if (order.outcome !== "order") throw new Error(order.outcome);
      return [job, before, to, order.steps];
    });
  },
);
/** Ids, facts and codes are no words. */
const raw = /[a-z]+\.[a-z]|=|:[a-z]|undefined|null|\[object|[a-z][A-Z]/;

describe("the work order in words", () => {
  test("every step reads whole, and no two of an order alike", () => {
    for (const [job, before, plan, steps] of orders) {
      const texts = steps.map((step) => stepText(job, before, plan, step));
      for (const text of texts) expect(text).not.toMatch(raw);
      expect(new Set(texts).size).toBe(texts.length);
      for (const { place } of steps) expect(placeTexts[place]).toBeDefined();
    }
  });

  test("what opens, cuts, powers or starts carries its caution in the step itself", () => {
    const grave = [
      "undo",
      "drainTank",
      "drainBowl",
      "hoseOut",
      "partOut",
      "tankFitting",
      "cutHole",
      "boardUp",
      "power",
      "bleed",
      "start",
      "support",
      "ventilate",
      "batteryOff",
    ] as const;
    const caution = (verb: Verb) => cautionText({ verb, of: ["x"] }, []);
    for (const verb of grave) expect(caution(verb)).toMatch(/\.$/);
    expect(caution("bleed")).toContain("hands away");
    expect(caution("tankFitting")).toContain("petrol");
    expect(caution("support")).toContain("jack");
    expect(toolsText("join")).toContain("torque");
    expect(toolsText("idle")).toBeNull();
  });

  test("the step that joins stainless to aluminium says that it galls, and no other does", () => {
    const job = read("marram");
    const [run] = currentPlan(job).runs;
    const key = `${run!.from.part}.${run!.from.port}`;
    const typed = (material: "stainless" | "brass") => {
      const end = (metal: "aluminium" | "stainless" | "brass", form: "f" | "m") => ({
        family: "npt" as const,
        size: "1/2",
        form,
        material: metal,
      });
      const plan = {
        ...currentPlan(job),
        ends: {
          [run!.from.part]: { [run!.from.port]: end("aluminium", "f") },
          [run!.id]: { from: end(material, "m") },
        },
      };
      const step = { verb: "join" as const, of: [run!.from.part], port: run!.from.port };
      return cautionText(step, planJoints(job, plan));
    };
    expect([key, typed("stainless")]).toEqual([key, expect.stringMatching(/gall.*never dry/)]);
    expect(typed("brass")).not.toMatch(/gall/);
  });

  test("on paper a step that is simply later is not held; one whose part has not come is", () => {
    const job = read("marram");
    const plan = currentPlan(job);
    const before = startsFrom(job, plan);
    const laid = progressOf(job, before, plan, []).steps.find(({ verb }) => verb === "lay")!.of[0]!;
    for (const awaited of [[], [laid]]) {
      const progress = progressOf(job, before, { ...plan, awaited }, []);
      const held = progress.steps.flatMap((step) => trulyHeld(progress, step));
      expect([...new Set(held.map(({ fact }) => fact))]).toEqual(awaited.map((id) => `here.${id}`));
    }
  });

  test("every need that holds a step is a sentence with the thing's name", () => {
    for (const [job, before, plan, steps] of orders) {
      const name = namer(job, before, plan);
      for (const { pre } of steps)
        for (const fact of pre) {
          const text = holdText(fact, name);
          expect(text).toMatch(/^[A-Z0-9].*\.$/);
          expect(text).not.toMatch(raw);
        }
    }
  });

  test("what is undone is told as the thing that is to be redone", () => {
    const name = () => "Separator";
    const told = (fact: string, value: string) => undoneText({ fact, value }, name);
    expect(told("battery", "off")).toBe("Battery negative, off");
    expect(told("port.sep.in", "open")).toBe("Separator: port open");
    expect(told("plug.sep", "off")).toBe("Separator: plug off");
    expect(told("part.sep", "out")).toBe("Separator, taken out");
    expect(told("fuel.tank", "drained")).toBe("Separator, empty");
    expect(told("bowl.sep", "drained")).toBe("Separator: bowl drained");
  });

  test("a step that the plan has no longer, and an order that cannot be, are told in words and not in ids", () => {
    const name = (id: string) => ({ sep: "Separator", run: "Tank to Pump" })[id] ?? id;
    expect(stepIdText("boardPart:sep", name)).toBe("Hang on the board Separator");
    expect(stepIdText("undo:sep.in", name)).toBe("Undo Separator");
    expect(stepIdText("batteryOff:main", name)).toBe("Battery negative off");
    expect(orderFaultText({ outcome: "cannotBeOrdered", ids: ["lay:run", "fixPart:sep"] }, name)).toBe(
      "These steps need each other in a ring: Lay the hose Tank to Pump; Fix Separator.",
    );
    expect(
      orderFaultText(
        { outcome: "neverTrue", needs: [{ id: "lay:run", fact: "part.sep", value: "fixed" }] },
        name,
      ),
    ).toBe("Nothing makes this so: Lay the hose Tank to Pump: Separator is not in its place.");
  });
});

test("working time: seconds, minutes with theirs, and hours", () => {
  expect([45, 60, 750, 1500, 3600, 31920].map(minutesText)).toEqual([
    "45 s",
    "1 min",
    "12 min 30 s",
    "25 min",
    "1 h 0 min",
    "8 h 52 min",
  ]);
});

test("what is awaited is told with whom it comes from, when, and what was wrong with it", () => {
  expect(awaitedText("Separator 1", undefined)).toBe("Separator 1");
  expect(awaitedText("Separator 1", { from: "the chandler", due: "2026-06-09" })).toBe(
    "Separator 1, from the chandler, due 9 Jun 2026",
  );
  expect(awaitedText("Separator 1", { wrong: "left hand thread" })).toBe(
    "Separator 1, came wrong: left hand thread",
  );
});

test("what going on without it gives and costs, in hours, and nothing where nothing is told", () => {
  const name = (id: string) => ({ plate: "Block", meter: "Flow meter" })[id] ?? id;
  expect(interimText({ without: ["plate"], runsAfterMin: 385, moreMin: 190 }, name)).toBe(
    `Without Block until then, its hoses joined, it runs after ${minutesText(385 * 60)}: ${minutesText(190 * 60)} more in all.`,
  );
  expect(interimText({ without: ["plate", "meter"], runsAfterMin: 60, moreMin: -3 }, name)).toContain(
    `Block and Flow meter until then`,
  );
  // What is saved by rounding is not told as a gain.
  expect(interimText({ without: ["plate"], runsAfterMin: 60, moreMin: -3 }, name)).toContain(
    `: ${minutesText(0)} more in all.`,
  );
  expect(interimText(null, name)).toBeNull();
});

test("hoses blown through as one are named by their first and last, with the pump by whose bypass it goes", () => {
  const job = startJob("j", "J", "oneTank");
  const own = currentPlan(job);
  const pump = own.parts.find(({ kind }) => kind === "liftPump")!;
  const [into, out] = (["in", "out"] as const).map(
    (port) =>
      own.runs.find(({ from, to }) => [from, to].some((ref) => ref.part === pump.id && ref.port === port))!,
  );
  const before: Plan = {
    ...own,
    parts: own.parts.map((part) =>
      part.kind === "liftPump" ? { ...part, off: { kind: "bypass", opensPa: 700, dropPa: 2500 } } : part,
    ),
  };
  const blow = (of: string[]): WorkStep => ({
    ...bareStep("blow"),
    id: `blow:${of.join("+")}`,
    of,
    place: "line",
    pre: [],
    post: [],
  });
  const text = stepText(job, before, before, blow([into!.id, out!.id, pump.id]));
  expect(text).toMatch(
    /^Blow through the old hose .* to Lift pump, on to Lift pump to Engine, by the bypass of Lift pump, off$/,
  );
  expect(stepText(job, before, before, blow([out!.id]))).toBe(
    "Blow through the old hose Lift pump to Engine",
  );
  expect(text).not.toMatch(raw);
});

test("how long work goes on before what has not come must be here, in hours and with its day", () => {
  const until = { missing: ["plate"], due: "2026-04-02", beforeMin: 130, afterMin: 45 };
  const name = (id: string) => (id === "plate" ? "Block" : id);
  expect(waitText(until, name)).toBe(
    `${minutesText(130 * 60)} of it before Block must be here (due 2 Apr 2026), ${minutesText(45 * 60)} after.`,
  );
  expect(waitText({ ...until, missing: ["plate", "x"], due: null }, name)).toContain(
    "Block and 1 more must be here (no day is told)",
  );
  expect(waitText(null, name)).toBeNull();
});
