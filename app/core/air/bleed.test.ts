/** Which way is bled, also with the engine stopped, and where the fuel is let out at last. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { applyCommand } from "../edit/commands";
import { startJob } from "../edit/starters";
import { LineUpSolver } from "../hydraulics/solve";
import { judgeLineUp } from "../hydraulics/worst";
import { buildNetwork } from "../network/network";
import { newPart, newRun } from "../plan/blank";
import { crossedPump } from "../plan/crossover";
import { currentPlan } from "../plan/ports";
import type { Job, LineUp, Plan } from "../plan/types";
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

describe("a priming pump with a way round it", () => {
  /** A starter with the pump, two tees and a valve beside it let in before the separator. */
  function crossed(position: "open" | "shut"): Job {
    const start = startJob("j", "One", "oneTank");
    const plan = currentPlan(start);
    const valve = plan.parts.find(({ kind }) => kind === "twoWay")!;
    const filter = plan.parts.find(({ kind }) => kind === "filter")!;
    const before = plan.runs.find(({ to }) => to.part === filter.id)!;
    const at = (xM: number, zM = 0.5) => ({ xM, yM: 0, zM });
    const ref = (part: string, port: string) => ({ part, port });
    const hose = (id: string, from: string, out: string, to: string, into: string) =>
      newRun(id, ref(from, out), ref(to, into), 0.15, before.boreM);
    const [lineUp] = plan.lineUps as [LineUp];
    return {
      ...start,
      schools: { ...start.schools, primer: "electricBypass", filterFill: "finalDry" },
      plans: [
        {
          ...plan,
          parts: [
            ...plan.parts,
            newPart("tee", "t1", at(1.4)),
            {
              ...newPart("primingPump", "pp", at(1.3, 0.45)),
              off: { kind: "blocked" },
            } as Plan["parts"][number],
            newPart("twoWay", "cv", at(1.3, 0.55)),
            newPart("tee", "t2", at(1.2)),
          ],
          runs: [
            ...plan.runs.filter((run) => run !== before),
            hose("c1", valve.id, "b", "t1", "a"),
            hose("c2", "t1", "c", "pp", "in"),
            hose("c3", "pp", "out", "t2", "c"),
            hose("c4", "t1", "b", "cv", "a"),
            hose("c5", "cv", "b", "t2", "a"),
            hose("c6", "t2", "b", filter.id, "in"),
          ],
          lineUps: [
            {
              ...lineUp,
              valves: { ...lineUp.valves, cv: { kind: "position", position } },
              pumps: { ...lineUp.pumps, pp: "off" },
            },
          ],
        },
      ],
    };
  }
  const bled = (one: Job) => {
    const task = bleedTask(one, currentPlan(one).lineUps[0]!, { kind: "dry" })!;
    return { task, procedure: bleedProcedure(task, one.schools)! };
  };

  test("is primed with the way round shut, by the pump alone, and left with it open", () => {
    const { procedure } = bled(crossed("open"));
    const [first, ...later] = procedure.steps;
    expect(first).toMatchObject({ kind: "valves", isBack: false, ids: ["cv"] });
    const last = later.findLast(({ kind }) => kind === "valves");
    expect(last).toMatchObject({ kind: "valves", isBack: true, ids: ["cv"] });
    expect(later.some((step) => step.kind === "bleed" && step.by.id === "pp")).toBe(true);
    expect(later.some(({ kind }) => kind === "fill")).toBe(false);
    expect(procedure.isBled).toBe(true);
    expect(procedure.left).toBeLessThan(0.001);
  });

  test("that stands shut already, or has none, is no crossing", () => {
    expect(crossedPump(currentPlan(crossed("shut")), currentPlan(crossed("shut")).lineUps[0]!)).toBeNull();
    expect(crossedPump(currentPlan(job), currentPlan(job).lineUps[0]!)).toBeNull();
  });
});
