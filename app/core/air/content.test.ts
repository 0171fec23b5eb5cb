/** What lines hold when the work begins: only what is known to be gone is gone. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { runsOut } from "../laws/runOut";
import { newPart } from "../plan/blank";
import { currentPlan } from "../plan/ports";
import type { Job, LineUp, Plan } from "../plan/types";
import { benchTank, lineTo } from "./bench.fixture";
import { type Content, fillContent, missingIn } from "./content";
import { airIn, reachOf } from "./joints";
import { bleedTask } from "./report";
import { AirSession } from "./session";

const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };
const lineUp = currentPlan(job).lineUps[0] as LineUp;
function held(content: Content) {
  const task = bleedTask(job, lineUp, content)!;
  const session = AirSession.start(task.network, lineUp, task.conditions)!;
  fillContent(session, content, task.way);
  return { session, ...airIn(session.model, reachOf(session.model, task).cells) };
}

describe("a line", () => {
  test("that is dry holds air but for the tube that stands in the tank", () => {
    const { airM3, roomM3 } = held({ kind: "dry" });
    expect(airM3 / roomM3).toBeGreaterThan(0.98);
    expect(airM3).toBeLessThan(roomM3);
  });
  test("whose filter was changed lacks that filter's volume alone", () => {
    expect(held({ kind: "filterChanged", partId: "sep1" }).airM3).toBeCloseTo(800e-6, 9);
    expect(held({ kind: "filterChanged", partId: "second" }).airM3).toBeCloseTo(600e-6, 9);
  });
  test("that ran dry keeps what stands in its filters under their outlets", () => {
    const { session } = held({ kind: "ranDry" });
    const { mesh, fuelM3 } = session.model;
    const cell = mesh.vesselOf.get("sep1") as number;
    expect((fuelM3[cell] as number) / (mesh.cells.volumeM3[cell] as number)).toBeCloseTo(0.92, 9);
  });
});

test("from an opening inwards a crest holds back what lies behind it, though it stands over the opening", () => {
  expect(runsOut([0, 1, 2, 1.5, 1, 3])).toEqual([true, true, true, false, false, true]);
  expect(runsOut([0, -1, -2, 0.5])).toEqual([true, false, false, true]);
  expect(runsOut([])).toEqual([]);
});

test("a joint that was apart lets its hose run out up to the crest, and no farther", () => {
  const bench = benchTank(0.3);
  bench.plan.parts.push({ ...newPart("gauge", "low", { xM: 1.1, yM: 0.5, zM: 0 }), boreM: 0.01 });
  lineTo(bench, { part: "t", port: "supply" }, "start", { lengthM: 0.2, boreM: 0.01, riseM: 0, fromZM: 0 });
  lineTo(bench, { part: "start", port: "b" }, "end", { lengthM: 2, boreM: 0.01, riseM: 0.2, fromZM: 0 });
  const run = bench.plan.runs.find(({ id }) => id === "rend")!;
  if (run.route.kind === "measured") run.route.extremes.push({ atM: 1, zM: 0.6 });
  bench.lineUp.purpose = "prime";
  const heater = { ...job.consumers[0]!, id: "eng", position: { xM: 4, yM: 0.5, zM: 0.2 } };
  bench.job.consumers.push(heater);
  const content: Content = { kind: "opened", joint: "end.a" };
  bench.lineUp.consumers.eng = "running";
  bench.plan.runs.push({
    ...run,
    id: "rfeed",
    from: { part: "end", port: "b" },
    to: { part: "eng", port: "feed" },
    route: { kind: "measured", lengthM: 3, bends: [], extremes: [] },
  });
  bench.plan.runs.push({
    ...run,
    id: "rback",
    from: { part: "eng", port: "return" },
    to: { part: "t", port: "supply" },
    route: { kind: "measured", lengthM: 9, bends: [], extremes: [] },
  });
  const task = bleedTask(bench.job, bench.lineUp, content);
  if (!task) throw new Error("no way");
  const session = AirSession.start(task.network, bench.lineUp, task.conditions)!;
  fillContent(session, content, task.way);
  const { mesh, fuelM3 } = session.model;
  // From 'end' back: it climbs to the crest at the middle and falls to the start.
  const shares = (mesh.cellsOf.get("rend") ?? []).map((cell) => [
    mesh.cells.fromM[cell] as number,
    (fuelM3[cell] as number) / (mesh.cells.volumeM3[cell] as number),
  ]);
  for (const [fromM, share] of shares) expect(share).toBe((fromM as number) < 1 - 1e-9 ? 1 : 0);
});

describe("what a content names and the plan has not", () => {
  const plan = currentPlan(job) as Plan;
  test.each<[Content, string | null]>([
    [{ kind: "dry" }, null],
    [{ kind: "ranDry" }, null],
    [{ kind: "filterChanged", partId: "sep1" }, null],
    [{ kind: "filterChanged", partId: "lift" }, "lift"],
    [{ kind: "filterChanged", partId: "nobody" }, "nobody"],
    [{ kind: "opened", joint: "lift.in" }, null],
    [{ kind: "opened", joint: "lift.top" }, "lift.top"],
  ])("%j: %p", (content, missing) => {
    expect(missingIn(plan, content)).toBe(missing);
  });
});
