import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import type { Book, BookEntry } from "../book/entries";
import { applyCommand } from "../edit/commands";
import { currentPlan } from "../plan/ports";
import type { Job, Plan } from "../plan/types";
import {
  FROM_NOTHING,
  hoursLeft,
  makerOf,
  type Progress,
  progressOf,
  startsFrom,
  untilDelivery,
} from "./progress";

const { job } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job };
const plan = currentPlan(job);
const before = startsFrom(job, plan);
const mark = (stepId: string, isDone = true, at = "2026-06-01T08:00:00Z"): BookEntry => ({
  kind: "stepDone",
  id: `m${stepId}${isDone}`.slice(0, 14),
  at,
  planId: plan.id,
  planHash: "",
  stepId,
  isDone,
});
const after = (...stepIds: string[]) =>
  progressOf(
    job,
    before,
    plan,
    stepIds.map((id) => mark(id)),
  );
const ledger = ({ ledger: list }: Progress) => list.map(({ fact, value }) => `${fact}=${value}`);

/** Everything that a step hangs on, in order, and the step itself. */
function upTo(id: string): string[] {
  const { steps } = after();
  const wanted = new Set<string>();
  const collect = (one: string) => {
    if (wanted.has(one)) return;
    for (const need of steps.find((step) => step.id === one)?.needs ?? []) collect(need);
    wanted.add(one);
  };
  collect(id);
  return [...wanted];
}

test("ticked as it is proposed, or anything that can be done now, the work never stands still before its end", () => {
  const read = (name: string) =>
    (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
  for (const name of ["marram", "unit-12", "reading-van"]) {
    const job = read(name);
    const pairs = job.plans.map((plan) => [startsFrom(job, plan), plan] as const);
    for (const [before, plan] of pairs)
      for (const pick of ["proposed", "last"] as const) {
        const book: BookEntry[] = [];
        for (let i = 0; i < 400; i++) {
          const { next, now } = progressOf({ ...job, currentPlanId: plan.id }, before, plan, book);
          if (!next) break;
          const step = pick === "proposed" ? next.step : now.at(-1);
          expect([name, plan.id, pick, next.step.id, next.holds]).toEqual([
            name,
            plan.id,
            pick,
            next.step.id,
            [],
          ]);
          book.push({
            kind: "stepDone",
            id: `t${i}`,
            at: new Date(1e12 + i * 1000).toISOString(),
            planId: plan.id,
            planHash: "",
            stepId: step?.id ?? "",
            isDone: true,
          });
        }
      }
  }
});

describe("where the work stands", () => {
  test("it starts from the plan that this one is based on, and a plan based on none from nothing", () => {
    expect(before?.id).toBe("found");
    expect(startsFrom(job, before!)).toBeNull();
  });

  test("nothing ticked: nothing undone, and what opens is held by what makes safe, the nearest first", () => {
    const progress = after();
    expect(progress.ledger).toEqual([]);
    expect(progress.next?.holds).toEqual([]);
    const holds = progress.holds.get("undo:sep1.out")?.map(({ fact }) => fact) ?? [];
    expect(holds[0]).toBe("battery");
    expect(holds).toEqual(
      expect.arrayContaining(["extinguisher", "ventilated", "eyes", "pan.board", "photo.board"]),
    );
    expect(makerOf(progress, progress.holds.get("undo:sep1.out")![0]!)?.id).toBe("batteryOff:main");
  });

  test("what is undone is in the ledger with who redoes it, until it is redone; a tick taken back undoes nothing", () => {
    const open = after(...upTo("undo:sep1.out"));
    expect(ledger(open)).toEqual(expect.arrayContaining(["battery=off", "port.sep1.out=open"]));
    expect(open.ledger.find(({ fact }) => fact === "port.sep1.out")).toMatchObject({
      undidBy: "undo:sep1.out",
      redoneBy: "join:sep1.out",
    });
    const shut = after(...upTo("join:sep1.out"));
    expect(ledger(shut)).not.toContain("port.sep1.out=open");
    const back: Book = [mark("batteryOff:main"), mark("batteryOff:main", false, "2026-06-01T09:00:00Z")];
    expect(progressOf(job, before, plan, back).ledger).toEqual([]);
  });

  test("all ticked: the ledger is empty, nothing is left and no hour with it", () => {
    const all = after(...after().steps.map(({ id }) => id));
    expect(all.ledger).toEqual([]);
    expect(all.next).toBeNull();
    expect(hoursLeft(all, 1)).toMatchObject({ finishMin: 0, slots: [] });
  });

  test("power is held by one open joint, and by nothing else when that is all that is left", () => {
    const needed = upTo("power:main").filter((id) => id !== "power:main" && id !== "join:supply.c");
    const without = needed.filter((id) => !["clip:run4", "batteryOn:main", "setLineUp:runPort"].includes(id));
    const progress = after(...without);
    const facts = progress.holds.get("power:main")!.map(({ fact }) => fact);
    expect(facts).toContain("port.supply.c");
    expect(new Set(facts)).toEqual(new Set(["battery", "lineUp", "port.supply.c", "clip.run4"]));
  });

  test("a hold that is set aside holds that step no more, is told, and makes nothing so", () => {
    const aside: BookEntry = {
      kind: "holdAside",
      id: "a1",
      at: "2026-06-01T08:00:00Z",
      planId: plan.id,
      planHash: "",
      stepId: "undo:sep1.out",
      fact: "eyes",
      reason: "goggles lost",
      by: "the fitter",
    };
    const done = upTo("undo:sep1.out").filter((id) => id !== "eyes:main" && id !== "undo:sep1.out");
    const held = after(...done);
    expect(held.holds.get("undo:sep1.out")).toEqual([{ fact: "eyes", value: "yes" }]);
    const free = progressOf(job, before, plan, [...done.map((id) => mark(id)), aside]);
    expect(free.holds.get("undo:sep1.out")).toEqual([]);
    expect(free.asides).toEqual([aside]);
    // Another step is still held by the same.
    expect(free.holds.get("undo:valve1.a")).toContainEqual({ fact: "eyes", value: "yes" });
  });

  test("the plan is edited half way: ticks stay, nothing is done twice, and what is no longer wanted is said", () => {
    const done = [...upTo("undo:sep1.out"), "boardPart:sep2"];
    const next = applyCommand(job, { name: "removePart", id: "sep2" }).job;
    const progress = progressOf(
      next,
      before,
      currentPlan(next),
      done.map((id) => mark(id)),
    );
    expect(progress.outcome).toBe("order");
    for (const id of upTo("undo:sep1.out"))
      if (progress.steps.some((step) => step.id === id)) expect(progress.done.has(id)).toBe(true);
    expect(progress.noLongerWanted).toContain("boardPart:sep2");
    expect(progress.now.map(({ id }) => id)).not.toContain("undo:sep1.out");
  });

  test("a plan's ticks are its own", () => {
    expect(progressOf(job, before, plan, [{ ...mark("batteryOff:main"), planId: "other" }]).done.size).toBe(
      0,
    );
  });

  test("two people are never slower than one, and no faster than the longest way", () => {
    const progress = after();
    const [one, two] = [1, 2].map((people) => hoursLeft(progress, people));
    expect(two!.finishMin).toBeLessThanOrEqual(one!.finishMin);
    const longest = progress.steps
      .filter(({ id }) => one!.critical.has(id))
      .reduce((sum, { workMin, waitMin }) => sum + workMin + waitMin, 0);
    expect(two!.finishMin).toBeGreaterThanOrEqual(longest);
  });
});

describe("what an order starts from", () => {
  test("an order can be asked for from nothing, and from any plan but itself", () => {
    expect(startsFrom(job, plan, FROM_NOTHING)).toBeNull();
    expect(startsFrom(job, plan, "found")?.id).toBe("found");
    expect(startsFrom(job, plan, plan.id)?.id).toBe("found");
    expect(startsFrom(job, plan, "gone")?.id).toBe("found");
  });
});

describe("a half done job", () => {
  const unit = JSON.parse(readFileSync("demo/unit-12.keel.json", "utf8")) as { job: Job; book: Book };
  const [from, to] = ["planA", "planB"].map((id) => unit.job.plans.find((one) => one.id === id)!) as [
    Plan,
    Plan,
  ];
  const progress = progressOf(unit.job, from, to, unit.book);

  test("Unit 12: plugs of the factory filter off, the panel open, and what is behind it no longer hidden", () => {
    expect(ledger(progress)).toEqual(
      expect.arrayContaining(["plug.factory.water=off", "plug.factory.heat=off", "cover.sideP=open"]),
    );
    expect(progress.hidden.size).toBe(0);
    expect([...progressOf(unit.job, from, to, []).hidden].sort()).toEqual([
      "bleed",
      "factory",
      "plate",
      "press",
    ]);
  });

  test("what can be done before the block comes and what is left for then are all there is to do", () => {
    const until = untilDelivery(progress, to, 1)!;
    expect([until.missing, until.due]).toEqual([["plate"], "2026-04-02"]);
    const minutes = (filter: (id: string) => boolean) =>
      progress.steps.reduce(
        (sum, { id, workMin }) => sum + (!progress.done.has(id) && filter(id) ? workMin : 0),
        0,
      );
    // What takes the old out waits for nothing.
    expect(until.beforeMin).toBeGreaterThanOrEqual(
      minutes((id) => /^(undo|hoseOut|partOut|drainBowl|tapeSpare|makeEnds)/.test(id)),
    );
    expect(until.beforeMin).toBeLessThan(minutes(() => true));
    expect(until.beforeMin + until.afterMin).toBe(hoursLeft(progress, 1).finishMin);
    const come = progressOf(unit.job, from, to, [
      ...unit.book,
      { ...unit.book[0]!, id: "c", stepId: "checkIn:plate" } as BookEntry,
    ]);
    expect(untilDelivery(come, to, 1)).toBeNull();
  });
});
