/** Which way is bled, also with the engine stopped, and where the fuel is let out at last. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { applyCommand } from "../edit/commands";
import { LineUpSolver } from "../hydraulics/solve";
import { judgeLineUp } from "../hydraulics/worst";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { Job, LineUp } from "../plan/types";
import { bledWay } from "./bleed";
import { airIn, reachOf } from "./joints";
import { bleedProcedure } from "./procedure";
import { bleedTask } from "./report";
import { AirSession } from "./session";

const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };

function wayOf(one: Job, change: (lineUp: LineUp) => Partial<LineUp>) {
  const plan = currentPlan(one);
  const solver = new LineUpSolver(buildNetwork(one));
  const [run] = plan.lineUps as [LineUp];
  const verdict = judgeLineUp(solver, { ...run, ...change(run) }, plan.conditions);
  return bledWay(solver, verdict, plan.conditions);
}
const running = () => ({});
const priming = ({ consumers }: LineUp): Partial<LineUp> => ({
  purpose: "prime",
  consumers: Object.fromEntries(Object.keys(consumers).map((id) => [id, "stopped"])),
});
/** The boat with a screw in the hose to its engine. */
function screwed(): Job {
  const last = currentPlan(job).runs.find(({ to }) => to.part === "engine")!;
  return applyCommand(job, {
    name: "insertPart",
    id: "screw",
    kind: "bleedScrew",
    runId: last.id,
    newRunId: "behind",
  }).job;
}

describe("the way that is bled", () => {
  test("for priming with the engine stopped is the way of running: the engine's inlet joint is its end", () => {
    const [ran, primed] = [wayOf(job, running), wayOf(job, priming)];
    expect([ran.isPriming, primed.isPriming]).toEqual([false, true]);
    const feed = ({ from }: typeof ran) =>
      from?.way?.legs.filter(({ side }) => side === "feed").map(({ id }) => id);
    expect(feed(primed)).toEqual(feed(ran));
    expect(primed.from?.way?.consumer?.id).toBe("engine");
  });

  test("of a transfer goes from tank to tank; with every way shut there is none", () => {
    const fill = currentPlan(job).lineUps.find(({ purpose }) => purpose === "transfer")!;
    const transfer = wayOf(job, () => fill);
    expect(transfer.isPriming).toBe(false);
    expect(transfer.from?.way?.consumer).toBeNull();
    const shut = wayOf(job, (lineUp) => ({
      ...priming(lineUp),
      valves: { ...lineUp.valves, supply: { kind: "branches", open: [] } },
    }));
    expect(shut.from).toBeNull();
  });
});

describe("where fuel is let out at last", () => {
  const one = screwed();
  const lineUp = currentPlan(one).lineUps[0]!;
  const reach = (endId?: string) => {
    const task = bleedTask(one, lineUp, { kind: "dry" }, { endId })!;
    const session = AirSession.start(task.network, lineUp, task.conditions)!;
    return { ...reachOf(session.model, task), session, task };
  };

  test("is the feed joint, or a screw before it that is asked for", () => {
    expect(reach().ends.map(({ partId, kind }) => [partId, kind])).toEqual([
      ["engine", "feed"],
      ["screw", "screw"],
    ]);
    expect(reach().joints.at(-1)?.partId).toBe("engine");
    expect(reach("screw").joints.at(-1)?.partId).toBe("screw");
    // A part that is no end leaves it at the farthest.
    expect(reach("lift").joints.at(-1)?.partId).toBe("engine");
  });

  test("and what lies behind the screw is then not answered for: its hose, pi/4 d^2 L", () => {
    const [whole, part] = [reach(), reach("screw")];
    const room = ({ session, cells }: typeof whole) => airIn(session.model, cells).roomM3;
    const behind = currentPlan(one).runs.find(({ id }) => id === "behind")!;
    const lengthM = behind.route.kind === "measured" ? behind.route.lengthM : Number.NaN;
    const hoseM3 = (Math.PI / 4) * behind.boreM ** 2 * lengthM;
    expect(room(whole) - room(part)).toBeGreaterThan(0.7 * hoseM3);
    expect(room(whole) - room(part)).toBeLessThan(1.2 * hoseM3);
  });

  test("and a bleed to the screw opens nothing behind it, and ends", () => {
    const procedure = bleedProcedure(reach("screw").task, one.schools)!;
    const opened = procedure.steps.flatMap((step) => (step.kind === "bleed" ? [step.joint.partId] : []));
    expect(opened).toContain("screw");
    expect(opened).not.toContain("engine");
    expect(procedure.left).toBeLessThanOrEqual(0.001);
  });
});
