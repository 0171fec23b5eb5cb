/** What a part does to the hoses it is let into, taken out of and exchanged in: asked of every hose of every demo plan. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { checkJob } from "../check/job";
import type { NewPartKind } from "../plan/blank";
import { currentPlan, placedPorts, portKey } from "../plan/ports";
import { runGeometry } from "../plan/route";
import type { Job, Plan, PortRef, Run } from "../plan/types";
import type { Command } from "./command";
import { applyCommand } from "./commands";
import { startJob } from "./starters";

const read = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const jobs = ["marram", "unit-12", "reading-van"].flatMap((name) => {
  const job = read(name);
  return job.plans.map(({ id }) => ({ ...job, currentPlanId: id }));
});
const everyHose = jobs.flatMap((job) => currentPlan(job).runs.map((run) => ({ job, run })));
const apply = (job: Job, ...commands: Command[]) =>
  commands.reduce((now, command) => applyCommand(now, command).job, job);
const hose = (plan: Plan, id: string): Run => plan.runs.find((run) => run.id === id)!;
const lengthOf = (job: Job, run: Run): number => {
  const ports = placedPorts(job, currentPlan(job));
  return runGeometry(run, ports.get(portKey(run.from))!, ports.get(portKey(run.to))!).lengthM;
};
const letIn = (runId: string, kind: NewPartKind, at: number): Command => ({
  name: "insertPart",
  id: "new",
  kind,
  runId,
  newRunId: "rest",
  at,
});
const ends = ({ from, to }: { from: PortRef; to: PortRef }) => [portKey(from), portKey(to)];

describe("let into a hose", () => {
  test.each([0.1, 0.5, 0.8])("at %s of its way it stands there, the two pieces make up the whole", (at) => {
    for (const { job, run } of everyHose) {
      const after = apply(job, letIn(run.id, "twoWay", at));
      const plan = currentPlan(after);
      const [first, rest] = [hose(plan, run.id), hose(plan, "rest")];
      expect([portKey(first.from), portKey(rest.to)]).toEqual(ends(run));
      expect([first.to.part, rest.from.part]).toEqual(["new", "new"]);
      // Where a piece would be shorter than the way between its ports, it is as long as that way at least.
      const [whole, one, two] = [lengthOf(job, run), lengthOf(after, first), lengthOf(after, rest)];
      expect(one).toBeGreaterThanOrEqual(at * whole - 1e-9);
      expect(two).toBeGreaterThanOrEqual((1 - at) * whole - 1e-9);
      const ports = placedPorts(job, currentPlan(job));
      const [a, b] = [run.from, run.to].map((ref) => ports.get(portKey(ref))!.position);
      const { position } = plan.parts.find(({ id }) => id === "new")!;
      for (const axis of ["xM", "yM", "zM"] as const)
        expect(position[axis]).toBeCloseTo(a![axis] + at * (b![axis] - a![axis]), 9);
    }
  });

  test("both pieces are of the same hose: bore, ends, wall and what it is; the rest stands right behind in the list", () => {
    for (const { job, run } of everyHose) {
      const plan = currentPlan(apply(job, letIn(run.id, "check", 0.4)));
      const [first, rest] = [hose(plan, run.id), hose(plan, "rest")];
      for (const key of ["boreM", "endBoreM", "roughnessM", "product"] as const)
        expect(rest[key]).toEqual(run[key]);
      expect(first.boreM).toBe(run.boreM);
      expect(plan.runs.indexOf(rest)).toBe(plan.runs.indexOf(first) + 1);
      expect(plan.parts.find(({ id }) => id === "new")?.boreM).toBe(run.boreM);
    }
  });

  test("a length that was measured is measured no longer: nobody put a tape on the pieces", () => {
    const measured = everyHose.filter(({ run }) => run.given?.lengthM?.basis === "measured");
    expect(measured.length).toBeGreaterThan(0);
    for (const { job, run } of measured) {
      const plan = currentPlan(apply(job, letIn(run.id, "twoWay", 0.5)));
      expect(hose(plan, run.id).given?.lengthM).toBeUndefined();
      expect(hose(plan, "rest").given?.lengthM).toBeUndefined();
    }
  });

  test("its bends stay with the piece before it, and are not counted twice", () => {
    const bent = everyHose.filter(({ run }) => run.route.kind === "measured" && run.route.bends.length > 0);
    expect(bent.length).toBeGreaterThan(0);
    const bends = ({ route }: Run) => (route.kind === "measured" ? route.bends : []);
    for (const { job, run } of bent) {
      const after = apply(job, letIn(run.id, "twoWay", 0.5));
      const [first, rest] = [hose(currentPlan(after), run.id), hose(currentPlan(after), "rest")];
      expect(bends(rest)).toEqual([]);
      expect([0, bends(run).length]).toContain(bends(first).length);
    }
  });

  test("taken out again the hose is whole: its ends, its bore, no shorter than it was; and the job is sound", () => {
    for (const { job, run } of everyHose) {
      const after = apply(job, letIn(run.id, "filter", 0.3), { name: "removePart", id: "new" });
      const plan = currentPlan(after);
      const healed = plan.runs.find((one) => ends(one).join() === ends(run).join())!;
      expect(healed.boreM).toBe(run.boreM);
      expect(lengthOf(after, healed)).toBeGreaterThanOrEqual(lengthOf(job, run) - 1e-9);
      expect(plan.runs).toHaveLength(currentPlan(job).runs.length);
      expect(checkJob(after)).toEqual([]);
    }
  });
});

describe("taken out", () => {
  const job = startJob("s", "S", "oneTank");
  const [first] = currentPlan(job).runs;

  test("between two bores the hose before it is kept, and that they differ is told", () => {
    const two = apply(job, letIn(first!.id, "twoWay", 0.5), {
      name: "editRun",
      id: "rest",
      change: { boreM: 2 * first!.boreM },
    });
    const { job: after, notes } = applyCommand(two, { name: "removePart", id: "new" });
    expect(notes).toEqual([{ code: "boresDiffer", ids: [first!.id] }]);
    expect(hose(currentPlan(after), first!.id).boreM).toBe(first!.boreM);
  });

  test("what was screwed on both sides is screwed together; a hose on one side is the hose that stays", () => {
    const screwed = apply(
      job,
      { name: "addPart", id: "a", kind: "twoWay", position: { xM: 0, yM: 0, zM: 0 } },
      { name: "addPart", id: "b", kind: "twoWay", position: { xM: 0, yM: 0, zM: 0 } },
      { name: "addPart", id: "c", kind: "twoWay", position: { xM: 0, yM: 0, zM: 0 } },
      { name: "join", id: "ab", from: { part: "a", port: "b" }, to: { part: "b", port: "a" } },
      { name: "join", id: "bc", from: { part: "b", port: "b" }, to: { part: "c", port: "a" } },
    );
    const together = currentPlan(apply(screwed, { name: "removePart", id: "b" }));
    expect(together.joints.map(ends)).toContainEqual(["a.b", "c.a"]);
    const half = apply(
      screwed,
      { name: "disconnect", id: "bc" },
      { name: "connect", id: "bc", from: { part: "b", port: "b" }, to: { part: "c", port: "a" } },
    );
    const led = currentPlan(apply(half, { name: "removePart", id: "b" }));
    expect(led.runs.map(ends)).toContainEqual(["a.b", "c.a"]);
    expect(led.joints.map(ends)).not.toContainEqual(["a.b", "c.a"]);
  });

  test("what met only it meets nothing, and is told by what it leads to", () => {
    const plan = currentPlan(job);
    const engine = job.consumers[0]!.id;
    const last = plan.parts.find(({ id }) =>
      plan.runs.some(({ from, to }) => from.part === id && to.part === engine),
    )!;
    const cut = apply(job, {
      name: "disconnect",
      id: plan.runs.find(({ to }) => to.part === last.id)!.id,
    });
    const { notes, job: after } = applyCommand(cut, { name: "removePart", id: last.id });
    expect(notes).toContainEqual({ code: "endsNoLongerMeet", ids: [engine] });
    expect(currentPlan(after).runs.some(({ to }) => to.part === engine && to.port === "feed")).toBe(false);
  });
});

describe("exchanged", () => {
  const throughKinds: NewPartKind[] = ["twoWay", "check", "filter", "liftPump", "flowMeter", "strainer"];

  test.each(throughKinds)(
    "for a %s its way through keeps both hoses, to the far ends and in length",
    (kind) => {
      for (const job of jobs)
        for (const { id, position } of currentPlan(job).parts.filter((part) => part.kind === "filter")) {
          const [into, out] = ["in", "out"].map((port) =>
            currentPlan(job).runs.find((run) => ends(run).includes(`${id}.${port}`)),
          );
          const { job: after } = applyCommand(job, { name: "replacePart", id, newId: "n", kind });
          const plan = currentPlan(after);
          const part = plan.parts.find((one) => one.id === "n")!;
          expect(part).toMatchObject({ kind, position });
          for (const run of [into, out]) {
            if (!run) continue;
            const now = hose(plan, run.id);
            const far = ends(run).filter((key) => !key.startsWith(`${id}.`));
            expect(ends(now)).toEqual(expect.arrayContaining(far));
            expect(ends(now).some((key) => key.startsWith("n."))).toBe(true);
            expect(lengthOf(after, now)).toBeGreaterThanOrEqual(lengthOf(job, run) - 0.2);
          }
          expect(checkJob(after)).toEqual([]);
        }
    },
  );

  test("for what has fewer ports the hose over is given up, and whom it led to is told", () => {
    const job = read("marram");
    const { notes, job: after } = applyCommand(job, {
      name: "replacePart",
      id: "supply",
      newId: "n",
      kind: "twoWay",
    });
    const lost = notes.find((note) => note.code === "endsNoLongerMeet");
    expect(lost && "ids" in lost ? lost.ids.length : 0).toBe(2);
    expect(currentPlan(after).runs.length + currentPlan(after).joints.length).toBe(
      currentPlan(job).runs.length + currentPlan(job).joints.length - 2,
    );
    expect(checkJob(after)).toEqual([]);
  });

  test("there and back again nothing leads elsewhere than it did", () => {
    for (const job of jobs)
      for (const { id, kind } of currentPlan(job).parts) {
        if (kind !== "liftPump" && kind !== "check" && kind !== "twoWay") continue;
        const there = apply(job, { name: "replacePart", id, newId: "n", kind: "strainer" });
        const back = apply(there, { name: "replacePart", id: "n", newId: id, kind });
        const led = (one: Job) => currentPlan(one).runs.map((run) => ends(run).join(" > "));
        expect(led(back)).toEqual(led(job));
      }
  });
});
