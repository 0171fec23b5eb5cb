import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { checkJob } from "../check/job";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { seeded } from "../random/seeded";
import type { Command } from "./command";
import { applyCommand } from "./commands";
import { differencesOf, reconciled } from "./reconcile";

const marram = (JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job }).job;
const after = (job: Job, ...commands: Command[]) =>
  commands.reduce((now, one) => applyCommand(now, one).job, job);
const all = (here: Job, there: Job) => new Set(differencesOf(here, there).map(({ key }) => key));
/** As a file would have it: through the command that takes a whole job. */
const kept = (here: Job, there: Job, taken: ReadonlySet<string>) =>
  after(here, { name: "replaceJob", job: reconciled(here, there, taken) });

describe("one job changed on two devices", () => {
  const here = after(
    marram,
    { name: "editPart", id: "lift", change: { name: "Pump of here" } },
    { name: "editPart", id: "sep1", change: { boreM: 0.011 } },
  );
  const there = after(
    marram,
    { name: "editPart", id: "lift", change: { name: "Pump of there", boreM: 0.012 } },
    { name: "removePart", id: "valvePol" },
    { name: "setConditions", change: { fuelC: 3 } },
  );

  test("differs by part and figure, and by nothing else", () => {
    const told = differencesOf(here, there);
    const said = told.map(({ what, id, field }) => `${what} ${id} ${field ?? "whole"}`);
    expect(said).toEqual(
      expect.arrayContaining(["part lift name", "part lift boreM", "part sep1 boreM", "part valvePol whole"]),
    );
    expect(said).toContain(`plan ${marram.currentPlanId} conditions.fuelC`);
    expect(differencesOf(here, structuredClone(here))).toEqual([]);
  });

  test("nothing taken is the job here, all taken the job there", () => {
    expect(reconciled(here, there, new Set())).toEqual(here);
    const whole = kept(here, there, all(here, there));
    expect(differencesOf(whole, there)).toEqual([]);
    expect(checkJob(whole)).toEqual([]);
  });

  test("a figure is taken with how it is known, and the rest stays as it is here", () => {
    const known: Command = {
      name: "editPart",
      id: "lift",
      change: { boreM: 0.012, given: { boreM: { entered: "12 mm", basis: "measured" } } },
    };
    const other = after(marram, known);
    const key = differencesOf(here, other).find(({ id, field }) => id === "lift" && field === "boreM")!.key;
    const lift = currentPlan(kept(here, other, new Set([key]))).parts.find(({ id }) => id === "lift");
    expect(lift).toMatchObject({
      name: "Pump of here",
      boreM: 0.012,
      given: { boreM: { entered: "12 mm", basis: "measured" } },
    });
  });

  test("a part that comes over brings its settings; of two hoses at one port the one that was taken stays", () => {
    const run = currentPlan(marram).runs[2]!;
    const insert = (id: string): Command => ({
      name: "insertPart",
      id,
      kind: "twoWay",
      runId: run.id,
      newRunId: `${id}r`,
    });
    const [mine, theirs] = [after(marram, insert("mine")), after(marram, insert("theirs"))];
    const plan = currentPlan(kept(mine, theirs, all(mine, theirs)));
    expect(plan.parts.some(({ id }) => id === "theirs")).toBe(true);
    for (const { valves } of plan.lineUps) expect(valves.theirs).toBeDefined();
    expect(plan.runs.some(({ id }) => id === "theirsr")).toBe(true);
    expect(plan.runs.some(({ id }) => id === "miner")).toBe(false);
  });

  test("whatever is taken of sixty pairs of changed jobs, the job that comes of it is sound", () => {
    for (let seed = 0; seed < 60; seed++) {
      const random = seeded(8100 + seed);
      const changed = (tag: string) => {
        let job = marram;
        for (let i = 0; i < 5; i++) {
          const plan = currentPlan(job);
          const pick = <T>(items: readonly T[]) => items[Math.floor(random() * items.length)] as T;
          const id = `${tag}${i}`;
          const command = pick<Command>([
            { name: "removePart", id: pick(plan.parts).id },
            {
              name: "insertPart",
              id,
              kind: pick(["twoWay", "filter", "liftPump", "selector"] as const),
              runId: pick(plan.runs).id,
              newRunId: `${id}r`,
            },
            { name: "removeTank", id: pick(job.tanks).id },
            { name: "addTank", id, tankName: id, position: { xM: 1, yM: 0, zM: 0 } },
            { name: "editPart", id: pick(plan.parts).id, change: { name: id } },
            { name: "disconnect", id: pick(plan.runs).id },
            { name: "addLineUp", id, lineUpName: id },
            { name: "forkPlan", id, planName: id },
          ]);
          try {
            job = after(job, command);
          } catch {
            // Refused as it would be by hand.
          }
          if (job.tanks.length === 0) job = marram;
        }
        return job;
      };
      const [mine, theirs] = [changed("m"), changed("t")];
      const taken = new Set([...all(mine, theirs)].filter(() => random() < 0.5));
      const job = kept(mine, theirs, taken);
      expect([seed, checkJob(job)]).toEqual([seed, []]);
    }
  });
});
