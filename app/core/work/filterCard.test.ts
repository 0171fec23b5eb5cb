/** The card of a filter: what a bleed takes is added to the change by hand, and nothing is dropped or done twice. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { bleedProcedure } from "../air/procedure";
import { bleedTask } from "../air/report";
import { boardsJudged } from "../boards/board";
import { LineUpSolver } from "../hydraulics/solve";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { planChanges } from "../service/planChanges";
import { filterCard } from "./filterCard";

const load = (name: string) =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;

function of(name: string, id: string) {
  const job = load(name);
  const plan = currentPlan(job);
  const changes = planChanges(
    new LineUpSolver(buildNetwork(job)),
    plan.conditions,
    boardsJudged(job, plan),
    job.kind,
  );
  const one = changes.find(({ part }) => part.id === id)!;
  const task = bleedTask(job, plan.lineUps[0]!, { kind: "filterChanged", partId: id })!;
  return { one, procedure: bleedProcedure(task, job.schools)! };
}
const ids = ({ steps }: ReturnType<typeof filterCard>) =>
  steps.map((step) => (step.kind === "change" ? step.id : `bleed ${step.index}`));

describe("of a pair", () => {
  const { one } = of("marram", "sep1");
  const card = filterCard(one, null);
  test("it is the change itself, filled by hand while the other feeds", () => {
    expect(ids(card)).toEqual(one.change.steps.map(({ id }) => id));
    expect(card.seconds).toBeCloseTo(one.change.seconds, 9);
    expect(ids(card)).toContain("handFill");
    expect(card.verdict).toEqual({ code: "good" });
  });
});

describe("alone behind the pump", () => {
  const { one, procedure } = of("marram", "second");
  const card = filterCard(one, procedure);
  test("its bleed stands where the pump would fill it, every other step once, and what was opened is shut", () => {
    expect(ids(card)).not.toContain("prime");
    const bleed = procedure.steps.map((_, i) => `bleed ${i}`);
    const at = one.change.steps.findIndex(({ id }) => id === "prime");
    const own = one.change.steps.map(({ id }) => id);
    expect(ids(card)).toEqual([...own.slice(0, at), ...bleed, ...own.slice(at + 1)]);
    // A final filter has no bowl to drain; where one is drained its vent is shut again.
    expect(own).not.toContain("drainBowl");
    expect(of("marram", "sep1").one.change.steps.map(({ id }) => id)).toEqual(
      expect.arrayContaining(["openVent", "drainBowl", "shutDrain", "shutVent"]),
    );
  });

  test("takes the change without the pump's filling, what runs, and 30 s for a joint opened and shut: by hand", () => {
    const prime = one.change.steps.find(({ id }) => id === "prime")!.seconds;
    const joints = procedure.steps.filter(({ kind }) => kind === "bleed").length;
    const valves = procedure.steps.reduce(
      (sum, step) => sum + (step.kind === "valves" ? step.ids.length : 0),
      0,
    );
    // A jug runs 20 mL a second after 20 s to fetch it.
    const poured = procedure.steps.reduce(
      (sum, step) =>
        sum +
        (step.kind === "fill"
          ? step.vessels.reduce((all, { pouredM3 }) => all + 20 + pouredM3 / 20e-6, 0)
          : 0),
      0,
    );
    expect(card.seconds).toBeCloseTo(
      one.change.seconds - prime + procedure.seconds + 30 * joints + 10 * valves + poured,
      6,
    );
  });
});

test("what spills goes before what takes long, and the dearest step of the change is named", () => {
  const { one } = of("marram", "sep1");
  const with_ = (change: Partial<typeof one.change>) =>
    filterCard({ change: { ...one.change, ...change } }, null);
  expect(with_({ spilledM3: 2e-4 }).verdict).toEqual({ code: "spills", spilledM3: 2e-4 });
  const slow = one.change.steps.map((step) => (step.id === "moveBowl" ? { ...step, seconds: 900 } : step));
  expect(with_({ steps: slow }).verdict).toEqual({ code: "slow", dearest: "moveBowl" });
});
