/** What is added to a plan that works already, what a tank's own size moves, and which way a hose is told. */
import { describe, expect, test } from "@jest/globals";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { boundsOf } from "../tanks/shape";
import type { Command } from "./command";
import { applyCommand } from "./commands";
import { startJob } from "./starters";

const change = (job: Job, ...commands: Command[]) =>
  commands.reduce((now, command) => applyCommand(now, command).job, job);
const at = { xM: 1, yM: 0, zM: 0.5 };
const valve: Command = { name: "addPart", id: "v9", kind: "twoWay", position: at };
const pump: Command = { name: "addPart", id: "p9", kind: "transferPump", position: at };
const setIn = (job: Job) =>
  currentPlan(job).lineUps.map(({ valves, pumps }) => [valves.v9, pumps.p9] as const);

describe("a part that is added by itself", () => {
  test("is shut and off in every line-up once each consumer has its line", () => {
    const job = change(startJob("s", "S", "twoTanksTwoSelectors"), valve, pump);
    expect(setIn(job).length).toBeGreaterThan(0);
    for (const [set, power] of setIn(job)) {
      expect(set).toEqual({ kind: "position", position: "shut" });
      expect(power).toBe("off");
    }
  });

  test("is open and on while an engine still waits for its line", () => {
    const engine: Command = { name: "addEngine", id: "e9", engineName: "Second engine", position: at };
    for (const [set, power] of setIn(change(startJob("s", "S", "oneTank"), engine, valve, pump))) {
      expect(set).toEqual({ kind: "position", position: "open" });
      expect(power).toBe("on");
    }
  });
});

test("a hose of another bore keeps its wall; one whose outside is typed with it keeps that", () => {
  const job = startJob("s", "S", "oneTank");
  const [run] = currentPlan(job).runs;
  const wider = change(job, { name: "editRun", id: run!.id, change: { boreM: 0.0508 } });
  const now = currentPlan(wider).runs[0]!;
  expect(now.product.outerDiameterM - now.boreM).toBeCloseTo(run!.product.outerDiameterM - run!.boreM, 9);
  const both = change(job, {
    name: "editRun",
    id: run!.id,
    change: { boreM: 0.01, product: { ...run!.product, outerDiameterM: 0.02 } },
  });
  expect(currentPlan(both).runs[0]!.product.outerDiameterM).toBe(0.02);
});

describe("a hose", () => {
  test("goes by the flow, from whichever end it is joined", () => {
    const job = startJob("s", "S", "oneTank");
    const feed = currentPlan(job).runs.find(({ to }) => to.port === "feed")!;
    const back = currentPlan(job).runs.find(({ from }) => from.port === "return")!;
    for (const { id, from, to } of [feed, back]) {
      const again = change(job, { name: "disconnect", id }, { name: "connect", id: "n", from: to, to: from });
      expect(currentPlan(again).runs.find((run) => run.id === "n")).toMatchObject({ from, to });
    }
  });
});

describe("a tank whose size is typed", () => {
  const sized = (job: Job, heightM: number, lengthM = 0.9) =>
    change(job, {
      name: "editTank",
      id: "nt",
      change: { shape: { kind: "box", lengthM, widthM: 0.4, heightM } },
    });
  const made = change(startJob("s", "S", "oneTank"), {
    name: "addTank",
    id: "nt",
    tankName: "New",
    position: { xM: 2, yM: -1, zM: 0.2 },
  });
  const ports = (job: Job) =>
    Object.fromEntries(job.tanks.find(({ id }) => id === "nt")!.ports.map((port) => [port.id, port]));

  test.each([0.15, 0.25, 0.8, 1.6])(
    "%s m high keeps its assumed mouths inside, the pickup as far over the floor, hose ends as far over the top",
    (heightM) => {
      const { supply, return: back } = ports(sized(made, heightM));
      const was = ports(made);
      expect(supply!.outside.zM - heightM).toBeCloseTo(was.supply!.outside.zM - 0.4, 9);
      expect(supply!.mouth.zM).toBeCloseTo(was.supply!.mouth.zM, 9);
      for (const { mouth } of [supply!, back!]) {
        expect(mouth.zM).toBeGreaterThan(0);
        expect(mouth.zM).toBeLessThan(heightM);
        expect(mouth.xM).toBeLessThan(0.9);
      }
    },
  );

  test("back to what it was has them back, and what a tape said stays", () => {
    const { x } = boundsOf(made.tanks.at(-1)!.shape);
    const back = sized(sized(made, 0.9), 0.4, x[1]);
    for (const [id, { mouth, outside }] of Object.entries(ports(back))) {
      expect(mouth.zM).toBeCloseTo(ports(made)[id]!.mouth.zM, 9);
      expect(outside.zM).toBeCloseTo(ports(made)[id]!.outside.zM, 9);
    }
    const taped = change(made, {
      name: "editTank",
      id: "nt",
      change: { given: { "ports.supply.mouth.zM": { basis: "measured" } } },
    });
    expect(ports(sized(taped, 0.8)).supply!.mouth.zM).toBe(ports(made).supply!.mouth.zM);
  });
});
