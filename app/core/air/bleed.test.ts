/** Bleeding a line-up, also with the engine stopped: volumes against hoses summed by hand. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { applyCommand } from "../edit/commands";
import { LineUpSolver } from "../hydraulics/solve";
import { judgeLineUp } from "../hydraulics/worst";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { Job, LineUp } from "../plan/types";
import { bleedOf } from "./bleed";

const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };

function bleed(one: Job, change: (lineUp: LineUp) => Partial<LineUp>, endId?: string) {
  const plan = currentPlan(one);
  const solver = new LineUpSolver(buildNetwork(one));
  const [run] = plan.lineUps as [LineUp];
  const verdict = judgeLineUp(solver, { ...run, ...change(run) }, plan.conditions);
  return bleedOf(solver, verdict, plan.conditions, endId);
}
const running = () => ({});
const priming = ({ consumers }: LineUp): Partial<LineUp> => ({
  purpose: "prime",
  consumers: Object.fromEntries(Object.keys(consumers).map((id) => [id, "stopped"])),
});

describe("a bleed", () => {
  test("for priming with the engine stopped fills what running fills: the engine's inlet joint is the open end", () => {
    const [ran, primed] = [bleed(job, running), bleed(job, priming)];
    expect(primed.isPriming).toBe(true);
    expect(ran.isPriming).toBe(false);
    expect(primed.end).toMatchObject({ id: "engine", kind: "joint" });
    expect(primed.steps.map(({ partId }) => partId)).toEqual(ran.steps.map(({ partId }) => partId));
    expect(primed.steps.at(-1)?.totalM3).toBeCloseTo(ran.steps.at(-1)?.totalM3 ?? 0, 12);
  });

  test("a bleed screw on the way can be the open end, and what lies behind it is then not filled", () => {
    const plan = currentPlan(job);
    const last = plan.runs.find(({ to }) => to.part === "engine")!;
    const screwed = applyCommand(job, {
      name: "insertPart",
      id: "screw",
      kind: "bleedScrew",
      runId: last.id,
      newRunId: "behind",
    }).job;
    const [whole, part] = [bleed(screwed, priming), bleed(screwed, priming, "screw")];
    expect(whole.ends.map(({ id, kind }) => [id, kind])).toEqual([
      ["engine", "joint"],
      ["screw", "screw"],
    ]);
    expect(part.end?.id).toBe("screw");
    expect(part.steps.at(-1)?.partId).toBe("screw");
    const behind = currentPlan(screwed).runs.find(({ id }) => id === "behind")!;
    const lengthM = behind.route.kind === "measured" ? behind.route.lengthM : Number.NaN;
    const missing = (whole.steps.at(-1)?.totalM3 ?? 0) - (part.steps.at(-1)?.totalM3 ?? 0);
    // What is left out is the hose behind the screw, pi/4 d^2 L.
    expect(missing).toBeCloseTo((Math.PI / 4) * behind.boreM ** 2 * lengthM, 9);
  });

  test("a transfer from tank to tank keeps its own way; a line-up with every way shut has none", () => {
    const fill = currentPlan(job).lineUps.find(({ purpose }) => purpose === "transfer")!;
    const transfer = bleed(job, () => fill);
    expect(transfer.isPriming).toBe(false);
    expect(transfer.steps.length).toBeGreaterThan(2);
    expect(transfer.end).toBeNull();
    const shut = bleed(job, (lineUp) => ({
      ...priming(lineUp),
      valves: { ...lineUp.valves, supply: { kind: "branches", open: [] } },
    }));
    expect(shut).toEqual({ steps: [], ends: [], end: null, isPriming: false });
  });
});
