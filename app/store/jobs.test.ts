import "fake-indexeddb/auto";
import { readFileSync } from "node:fs";
import { beforeEach, describe, expect, test } from "@jest/globals";
import type { Job } from "~/core/plan/types";
import { database } from "./database";
import { storageFault } from "./faults";
import {
  commit,
  createJob,
  deleteJob,
  duplicateJob,
  exportJob,
  importJob,
  listJobs,
  loadJob,
  MOST_UNDO,
  redo,
  restoreJob,
  undo,
} from "./jobs";

const text = readFileSync("demo/marram.keel.json", "utf8");
const job = (JSON.parse(text) as { job: Job }).job;
const stored = async () => (await loadJob("marram"))?.job;

beforeEach(async () => {
  const db = database();
  await Promise.all([db.jobs.clear(), db.history.clear(), db.setAside.clear(), db.settings.clear()]);
  await importJob(text, "ask");
});

describe("changes", () => {
  test("are kept with their inverse: undo is the job as it was, redo the job as it became", async () => {
    await commit("marram", { name: "removePart", id: "sep2" });
    await commit("marram", { name: "rename", jobName: "Tern" });
    const after = await stored();
    expect(after?.name).toBe("Tern");
    await undo("marram");
    await undo("marram");
    expect(await stored()).toEqual(job);
    expect(await undo("marram")).toBeNull();
    await redo("marram");
    await redo("marram");
    expect(await stored()).toEqual(after);
    expect(await redo("marram")).toBeNull();
  });

  test("after an undo the new change takes the place of what could have been redone", async () => {
    await commit("marram", { name: "rename", jobName: "A" });
    await undo("marram");
    await commit("marram", { name: "rename", jobName: "B" });
    expect(await redo("marram")).toBeNull();
    expect((await stored())?.name).toBe("B");
  });

  test("of one gesture are one step", async () => {
    for (const dx of [1, 2, 3]) await commit("marram", { name: "nudge", id: "lift", dx, dy: 0 }, "drag-1");
    expect((await stored())?.plans[0]?.nudges.lift).toEqual({ dx: 6, dy: 0 });
    await undo("marram");
    expect(await stored()).toEqual(job);
  });

  test("from two hands at once both stand", async () => {
    await Promise.all([
      commit("marram", { name: "setConditions", change: { aboardM3: { portWing: 0.1 } } }),
      commit("marram", { name: "setConditions", change: { aboardM3: { stbdWing: 0.2 } } }),
    ]);
    expect((await stored())?.plans[0]?.conditions.aboardM3).toMatchObject({ portWing: 0.1, stbdWing: 0.2 });
  });

  test("that would not parse are refused with their place, and nothing is written", async () => {
    const results = await Promise.all([
      commit("marram", { name: "editPart", id: "lift", change: { boreM: -1 } }),
      commit("marram", { name: "editPart", id: "lift", change: { curve: [{ flowM3S: 0, risePa: 1 }] } }),
      commit("marram", { name: "setConditions", change: { aboardM3: { dayTank: 9 } } }),
      commit("marram", {
        name: "connect",
        id: "x",
        from: { part: "lift", port: "in" },
        to: { part: "sep1", port: "out" },
      }),
      commit("marram", { name: "removePart", id: "nobody" }),
    ]);
    for (const result of results) {
      expect(result.ok).toBe(false);
      if (!result.ok) expect(result.faults.length).toBeGreaterThan(0);
    }
    expect(await stored()).toEqual(job);
    expect(await database().history.count()).toBe(0);
  });

  test("are kept up to the limit, the oldest going first", async () => {
    const db = database();
    const row = await db.jobs.get("marram");
    if (!row) throw new Error("no row");
    const step = {
      jobId: "marram",
      command: { name: "rename" as const, jobName: "x" },
      patches: [],
      inverse: [],
      gesture: null,
    };
    await db.history.bulkPut(Array.from({ length: MOST_UNDO }, (_, i) => ({ ...step, seq: i + 1 })));
    await db.jobs.put({ ...row, cursor: MOST_UNDO });
    await commit("marram", { name: "rename", jobName: "Tern" });
    expect(await db.history.count()).toBe(MOST_UNDO);
    expect((await db.history.where("jobId").equals("marram").first())?.seq).toBe(2);
  });
});

describe("jobs", () => {
  test("go out and come in without loss, and the export is noted", async () => {
    const file = await exportJob("marram");
    expect(file?.text).toBe(text);
    const { jobs } = await listJobs();
    expect(jobs[0]).toMatchObject({ name: "Marram", changedSinceExport: false });
    expect(jobs[0]?.exportedAt).not.toBeNull();
    await commit("marram", { name: "rename", jobName: "Tern" });
    expect((await listJobs()).jobs[0]?.changedSinceExport).toBe(true);
  });

  test("that exist are not touched until it is said how", async () => {
    await commit("marram", { name: "rename", jobName: "Mine" });
    expect(await importJob(text, "ask")).toMatchObject({ outcome: "exists", name: "Mine" });
    expect((await stored())?.name).toBe("Mine");
    const beside = await importJob(text, "keepBoth");
    expect(beside.outcome).toBe("kept");
    expect((await listJobs()).jobs.map(({ name }) => name).sort()).toEqual(["Marram (imported)", "Mine"]);
    await importJob(text, "replace");
    expect((await stored())?.name).toBe("Marram");
  });

  test("are made, copied under an id of their own, deleted and brought back", async () => {
    const made = await createJob("Skiff", "twoTanksTwoSelectors");
    const copy = await duplicateJob(made);
    expect(copy).not.toBe(made);
    await deleteJob(made);
    expect(await loadJob(made)).toBeNull();
    expect((await listJobs()).deleted).toEqual([{ id: made, name: "Skiff" }]);
    await restoreJob(made);
    expect((await loadJob(made))?.job.name).toBe("Skiff");
  });

  test("that no longer parse are set aside whole, never dropped", async () => {
    const row = await database().jobs.get("marram");
    if (!row) throw new Error("no row");
    await database().jobs.put({ ...row, doc: { ...job, tanks: "gone" } });
    const { jobs, aside } = await listJobs();
    expect(jobs).toEqual([]);
    expect(aside[0]?.name).toBe("Marram");
    expect(JSON.parse(aside[0]?.text ?? "")).toMatchObject({ tanks: "gone", name: "Marram" });
    expect(aside[0]?.faults[0]).toContain("tanks");
  });
});

test("storage that fails is told by its kind", () => {
  expect(storageFault(new DOMException("", "QuotaExceededError"))).toContain("full");
  expect(
    storageFault(Object.assign(new Error(), { name: "AbortError", inner: { name: "QuotaExceededError" } })),
  ).toContain("full");
  expect(storageFault(new DOMException("", "InvalidStateError"))).toContain("closed");
  expect(storageFault(new Error("x"))).toContain("not kept");
});
