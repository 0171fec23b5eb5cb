/** Faults to train on: each is what it says, in the model alone, and the same seed hides the same. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { applyCommand } from "../edit/commands";
import { currentPlan } from "../plan/ports";
import type { Job, LineUp } from "../plan/types";
import { airIn, answeredCells } from "./joints";
import { bleedTask } from "./report";
import { type Scenario, scenarioBySeed, scenariosOf, startWrong } from "./scenario";
import { AirSession } from "./session";

const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };
const task = bleedTask(job, currentPlan(job).lineUps[0] as LineUp, { kind: "dry" })!;
const of = <K extends Scenario["kind"]>(kind: K) => scenariosOf(task).filter((one) => one.kind === kind);

describe("what can be wrong with a line", () => {
  test("is a leak before the pump, a valve of the way, a filter of the way, its tank", () => {
    expect(of("shutValve").map(({ partId }) => partId)).toEqual(["valveP", "valve1"]);
    expect(of("emptyFilter").map(({ partId }) => partId)).toEqual(["sep1", "second"]);
    expect(of("lowTank").map(({ partId }) => partId)).toEqual(["portWing"]);
    const leaks = of("suctionLeak").map(({ partId }) => partId);
    expect(leaks).toContain("vacuum");
    // Behind the pump nothing is drawn.
    for (const far of ["second", "engine", "teePol"]) expect(leaks).not.toContain(far);
  });
  test("comes by its seed, the same each time, and every kind comes", () => {
    const kinds = new Set(Array.from({ length: 40 }, (_, seed) => scenarioBySeed(task, seed)?.kind));
    expect(kinds).toEqual(
      new Set(["suctionLeak", "shutValve", "emptyFilter", "lowTank", "leaning", "doubledWasher"]),
    );
    expect(scenarioBySeed(task, 7)).toEqual(scenarioBySeed(task, 7));
  });
});

describe("hidden in the model", () => {
  const air = (scenario: Scenario, seconds: number) => {
    const session = startWrong(task, scenario, 3)!;
    const cells = answeredCells(session.model, task.way);
    const before = airIn(session.model, cells).airM3;
    session.act({ do: "pump", id: "lift", on: true });
    session.act({ do: "open", joint: "engine.feed" });
    session.act({ do: "wait", seconds });
    return { session, before, after: airIn(session.model, cells).airM3 };
  };
  test("a leak draws bubbles into a full line, and no joint shows as open", () => {
    const leak = of("suctionLeak").find(({ partId }) => partId === "vacuum")!;
    const { session, before, after } = air(leak, 20);
    expect(before).toBeLessThan(1e-6);
    expect(after).toBeGreaterThan(1e-6);
    expect([...session.came.keys()]).toEqual(["engine.feed"]);
    // The orifice law's own stream at a few kPa: tens of millilitres a minute, no flood.
    expect(after).toBeLessThan(100e-6);
  });
  test("behind a shut valve the pump draws and no fuel comes", () => {
    const { session, after, before } = air(of("shutValve")[0]!, 30);
    expect(session.came.get("engine.feed")?.fuelM3).toBeLessThan(1e-6);
    expect(after).toBeGreaterThan(0.9 * before);
    session.act({ do: "valve", id: "valveP", setting: { kind: "position", position: "open" } });
    session.act({ do: "wait", seconds: 40 });
    expect(session.came.get("engine.feed")?.fuelM3).toBeGreaterThan(1e-5);
  });
  test("a filter put back dry holds its own volume of air, and the rest is full", () => {
    const { before } = air(of("emptyFilter")[1]!, 0.1);
    expect(before).toBeCloseTo(600e-6, 6);
  });
  test("a low tank stands lower", () => {
    const session = startWrong(task, of("lowTank")[0]!, 3)!;
    const full = startWrong(task, of("emptyFilter")[0]!, 3)!;
    expect(session.surfaceM("portWing")).toBeLessThan(full.surfaceM("portWing") - 0.1);
  });
});

describe("of what the boat of the demo has not", () => {
  const plan = currentPlan(job);
  const run = plan.runs.find(({ to }) => to.part === "lift")!;
  const withPart = (kind: "check" | "bulb", at = run.id): Job =>
    applyCommand(job, { name: "insertPart", id: "new", newRunId: "newRun", runId: at, kind }).job;
  const taskFor = (of: Job) => bleedTask(of, currentPlan(of).lineUps[0] as LineUp, { kind: "dry" })!;

  test("a check turned round lets nothing through; the right way round it does", () => {
    const checked = taskFor(withPart("check"));
    const scenario = scenariosOf(checked).find(({ kind }) => kind === "turnedCheck")!;
    expect(scenario.partId).toBe("new");
    const came = (session: AirSession) => {
      session.act({ do: "pump", id: "lift", on: true });
      session.act({ do: "open", joint: "engine.feed" });
      session.act({ do: "wait", seconds: 60 });
      return session.came.get("engine.feed")!.fuelM3;
    };
    expect(came(startWrong(checked, scenario, 1)!)).toBeLessThan(1e-6);
    const right = AirSession.start(checked.network, checked.lineUp, checked.conditions)!;
    expect(came(right)).toBeGreaterThan(1e-5);
  });

  test("a valve behind a bulb is one against which it goes hard", () => {
    const first = plan.runs.find(({ to }) => to.part === "supply" && to.port === "port")!;
    const squeezed = taskFor(withPart("bulb", first.id));
    const hard = scenariosOf(squeezed).filter(({ kind }) => kind === "bulbAgainstShut");
    expect(hard.map(({ partId }) => partId)).toEqual(["valve1"]);
    const session = startWrong(squeezed, hard[0]!, 1)!;
    session.act({ do: "open", joint: "engine.feed" });
    session.act({ do: "strokes", id: "new", count: 20 });
    expect(session.came.get("engine.feed")!.fuelM3).toBeLessThan(1e-6);
  });

  test("a doubled washer is offered at banjos, and where nobody has said what a filter or engine ends in", () => {
    const washers = of("doubledWasher");
    for (const one of washers) {
      const [part = "", port = ""] = one.kind === "doubledWasher" ? one.joint.split(".") : [];
      expect(plan.ends?.[part]?.[port]?.family ?? "eye").toBe("eye");
      expect(["sep1", "sep2", "second", "engine"]).toContain(part);
    }
    expect(washers.length).toBeGreaterThan(0);
  });

  test("a boat that leans has its pickup nearer the surface, or over it", () => {
    const [leaning] = of("leaning");
    const session = startWrong(task, leaning!, 1)!;
    const level = startWrong(task, of("lowTank")[0]!, 1)!;
    const depth = (one: AirSession) => one.surfaceM("portWing") - Math.min(...one.model.mesh.posture.mouthM);
    expect(depth(session)).not.toBeCloseTo(depth(level), 2);
  });
});
