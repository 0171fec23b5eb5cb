import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { boardsJudged } from "../boards/board";
import { LineUpSolver } from "../hydraulics/solve";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { type ChangeTask, cupFor, elementChange } from "./elementChange";
import { planChanges } from "./planChanges";

const ML = 1e-6;
const task: ChangeTask = {
  heldM3: 450 * ML,
  housing: "spinOn",
  hasSensor: true,
  hasBowl: true,
  hasHatch: true,
  heldBy: "valve",
  isDuplex: true,
  pumpM3S: 30 * ML,
  blocked: new Set(),
  cupM3: null,
};
const idsOf = (of: ChangeTask) => elementChange(of).steps.map(({ id }) => id);

describe("a filter's element changed", () => {
  // The two recipes were timed as a whole: predetermined times, common practice, no source.
  test("one side of a duplex of 450 mL: 12.5 minutes and 482 mL into the cup", () => {
    const { seconds, cupM3, spilledM3 } = elementChange(task);
    expect(seconds).toBe(750);
    expect(cupM3 / ML).toBeCloseTo(482.5, 6);
    expect(spilledM3).toBe(0);
  });

  test("a single one of 1.5 L under a lid, filled by hand: 14.75 minutes", () => {
    const { seconds } = elementChange({
      ...task,
      heldM3: 1500 * ML,
      housing: "lid",
      hasSensor: false,
      isDuplex: false,
      pumpM3S: null,
    });
    expect(seconds).toBe(885);
  });

  test("a room that is taken doubles the step that needs it and no other", () => {
    const blocked = elementChange({ ...task, blocked: new Set(["bowlDrop"] as const) });
    expect(blocked.seconds).toBe(750 + 30);
    expect(blocked.steps.filter(({ isBlocked }) => isBlocked).map(({ id }) => id)).toEqual(["spinOff"]);
    // A lid that does not lift is nothing to one that is spun off.
    expect(elementChange({ ...task, blocked: new Set(["lidLift"] as const) }).seconds).toBe(750);
  });

  test("what a cup at four fifths does not hold is spilled, and nothing is lost", () => {
    for (const cup of [100, 300, 602, 604, 2000]) {
      const { cupM3, spilledM3, steps } = elementChange({ ...task, cupM3: cup * ML });
      expect(cupM3).toBeLessThanOrEqual(0.8 * cup * ML + 1e-15);
      expect(cupM3 + spilledM3).toBeCloseTo(
        steps.reduce((sum, step) => sum + step.cupM3, 0),
        12,
      );
      expect(spilledM3 > 1e-12).toBe(0.8 * cup < 482.5);
    }
  });

  test("nothing is opened before it is shut off, nothing filled before its drain is shut or run before its vent is", () => {
    for (const housing of ["spinOn", "lid"] as const)
      for (const isDuplex of [true, false])
        for (const pumpM3S of [30 * ML, null])
          for (const hasSensor of [true, false]) {
            const ids = idsOf({ ...task, housing, isDuplex, pumpM3S, hasSensor });
            const at = (id: (typeof ids)[number]) => ids.indexOf(id);
            expect(at(isDuplex ? "switchOver" : "shutValve")).toBeLessThan(at("openVent"));
            expect(at("cupUnder")).toBeLessThan(at("drainBowl"));
            expect(at("drainBowl")).toBeLessThan(at(housing === "lid" ? "liftLid" : "spinOff"));
            if (pumpM3S !== null) expect(at("shutDrain")).toBeLessThan(at("prime"));
            else if (housing === "lid") expect(at("handFill")).toBeLessThan(at("setLid"));
            expect(at("shutVent")).toBeLessThan(at("idle"));
            expect(ids.filter((id) => id === "plugSensor")).toHaveLength(hasSensor ? 1 : 0);
            expect(ids.includes("unplugSensor")).toBe(ids.includes("plugSensor"));
            expect(new Set(ids.filter((id) => id !== "newSeal")).size).toBe(
              ids.filter((id) => id !== "newSeal").length,
            );
          }
  });

  test("the cup is a round one that stands in the room under it", () => {
    expect(cupFor({ widthM: 0.1, heightM: 0.3, depthM: 0.2 }, 0.1) / ML).toBeCloseTo(Math.PI * 4 * 4 * 10, 6);
  });
});

describe("the changes of a plan", () => {
  const changes = (name: string) => {
    const { job } = JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job };
    const plan = currentPlan(job);
    const solver = new LineUpSolver(buildNetwork(job));
    return planChanges(solver, plan.conditions, boardsJudged(job, plan), job.kind);
  };
  test("Marram changes its first separator while it runs on the second, its secondary not; the cups are out of reach", () => {
    const found = new Map(changes("marram").map((one) => [one.part.id, one]));
    expect(found.get("sep1")).toMatchObject({ isDuplex: true, board: "Filter board" });
    expect(found.get("second")).toMatchObject({ isDuplex: false, board: null });
    expect(
      found
        .get("sep1")
        ?.change.steps.filter(({ isBlocked }) => isBlocked)
        .map(({ id }) => id),
    ).toEqual(["cupUnder"]);
  });
  test("a filter on the suction is filled by hand, one behind a pump by the pump", () => {
    const refill = (name: string) =>
      Object.fromEntries(
        changes(name).map(({ part, change }) => [
          part.id,
          change.steps.find(({ id }) => id === "handFill" || id === "prime")?.id,
        ]),
      );
    expect(refill("marram")).toMatchObject({ sep1: "handFill", sep2: "handFill", second: "prime" });
    expect(refill("unit-12")).toMatchObject({ sep: "handFill", fine: "prime", factory: "prime" });
  });
  test("a truck with one way has no duplex, and plugs its water sensor back in", () => {
    for (const { isDuplex } of changes("unit-12")) expect(isDuplex).toBe(false);
    const sensors = changes("unit-12").filter(({ change }) =>
      change.steps.some(({ id }) => id === "plugSensor"),
    );
    expect(sensors.map(({ part }) => part.id)).toEqual(["sep"]);
  });
});
