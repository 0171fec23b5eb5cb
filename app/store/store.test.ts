import "fake-indexeddb/auto";
import { readFileSync } from "node:fs";
import { beforeEach, describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { madeFrom } from "~/core/edit/commands";
import type { Job } from "~/core/plan/types";
import { readJobFile, writeJobFile } from "~/schemas/file";
import { VERSION } from "~/schemas/version";
import { readAllBlob, readJobBlob } from "~/schemas/zip";
import { enter, forgetBook, openBook, readBook } from "./book";
import { database, KeelDatabase } from "./database";
import { copyJob, exportAll, exportJob, fileSizes, importJob, restoreAll } from "./files";
import { commit, lastChange, MOST_UNDO, redo, type Tab, undo } from "./history";
import { openJob, readJob } from "./jobs";
import { createJob, deleteJob, listJobs, restoreCutShort, restoreJob } from "./list";
import { allTables } from "./records";

const text = readFileSync("demo/marram.keel.json", "utf8");
/** Entries that the demo job has of its own. */
const OWN = (JSON.parse(text) as { book: unknown[] }).book.length;
const file = readJobFile(text);
const readOf = (value: unknown) => readJobFile(JSON.stringify(value));
const job = (JSON.parse(text) as { job: Job }).job;
const page: Tab = { id: "page", since: 0 };
const stored = async (id = "marram") => {
  const state = await readJob(id, page);
  return state.status === "open" ? state.job : null;
};
const say = (value: unknown) => JSON.parse(JSON.stringify(value));

beforeEach(async () => {
  await Promise.all(allTables().map((table) => table.clear()));
  forgetBook("marram");
  await importJob(file, "ask");
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
    expect(await undo("marram")).toEqual({ outcome: "nothing" });
    await redo("marram");
    await redo("marram");
    expect(await stored()).toEqual(after);
    expect(await redo("marram")).toEqual({ outcome: "nothing" });
  });

  test("the last of them that stands is told", async () => {
    expect(await lastChange("marram")).toBeNull();
    await commit("marram", { name: "rename", jobName: "A" });
    await commit("marram", { name: "rename", jobName: "B" });
    expect(await lastChange("marram")).toMatchObject({ jobName: "B" });
    await undo("marram");
    expect(await lastChange("marram")).toMatchObject({ jobName: "A" });
  });

  test("after an undo the new change takes the place of what could have been redone", async () => {
    await commit("marram", { name: "rename", jobName: "A" });
    await undo("marram");
    await commit("marram", { name: "rename", jobName: "B" });
    expect(await redo("marram")).toEqual({ outcome: "nothing" });
    expect((await stored())?.name).toBe("B");
  });

  test("of one gesture are one step, with one first and one last patch however long it is", async () => {
    for (let i = 0; i < 40; i++)
      await commit("marram", { name: "editPart", id: "lift", change: { name: `Pump ${i}` } }, "drag-1");
    const nameNow = async () => (await stored())?.plans[0]?.parts.find(({ id }) => id === "lift")?.name;
    expect(await nameNow()).toBe("Pump 39");
    const [step] = await database().steps.toArray();
    expect(step?.patches).toHaveLength(1);
    expect(step?.inverse).toHaveLength(1);
    await undo("marram");
    expect(await stored()).toEqual(job);
    await redo("marram");
    expect(await nameNow()).toBe("Pump 39");
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
      commit("marram", { name: "addPart", id: "__proto__", kind: "tee", position: { xM: 0, yM: 0, zM: 0 } }),
    ]);
    for (const result of results) {
      expect(result.ok).toBe(false);
      if (!result.ok) expect(result.faults.length).toBeGreaterThan(0);
    }
    expect(await stored()).toEqual(job);
    expect(await database().steps.count()).toBe(0);
  });

  test("are kept up to the limit, the oldest going first", async () => {
    const db = database();
    const step = {
      jobId: "marram",
      command: { name: "rename" as const, jobName: "x" },
      patches: [],
      inverse: [],
      gesture: null,
      tab: "",
      isUndone: false,
    };
    await db.steps.bulkPut(
      Array.from({ length: MOST_UNDO }, (_, i) => ({ ...step, seq: i + 1, madeAt: i, playedAt: i })),
    );
    await commit("marram", { name: "rename", jobName: "Tern" });
    expect(await db.steps.count()).toBe(MOST_UNDO);
    expect((await db.steps.where("jobId").equals("marram").first())?.seq).toBe(2);
  });

  test("to a row that no longer parses say so, and undo does too", async () => {
    await commit("marram", { name: "rename", jobName: "Tern" });
    await database().documents.put({ id: "marram", doc: { ...job, tanks: "gone" } });
    await database().records.update("marram", { stamp: "other" });
    const result = await commit("marram", { name: "rename", jobName: "x" });
    expect(result).toMatchObject({ ok: false, faults: [{ code: "brokenRow" }] });
    expect(await undo("marram")).toMatchObject({ outcome: "refused", faults: [{ code: "brokenRow" }] });
  });

  test("what undo would bring back is checked like a change", async () => {
    await commit("marram", { name: "rename", jobName: "Tern" });
    const [step] = await database().steps.toArray();
    await database().steps.put({ ...step!, inverse: [{ op: "replace", path: ["name"], value: "" }] });
    expect(await undo("marram")).toMatchObject({ outcome: "refused", faults: [{ path: "name" }] });
    expect((await stored())?.name).toBe("Tern");
  });
});

describe("two tabs on one job", () => {
  const a: Tab = { id: "a", since: 0 };
  const b: Tab = { id: "b", since: 0 };
  const edit = (tab: Tab, altitudeM: number) =>
    commit("marram", { name: "editJob", change: { site: { ...job.site, altitudeM } } }, null, tab);
  const rename = (tab: Tab, jobName: string) => commit("marram", { name: "rename", jobName }, null, tab);

  test("each undoes and redoes its own", async () => {
    await rename(a, "A");
    await edit(b, 100);
    expect(await undo("marram", a)).toMatchObject({ outcome: "done" });
    expect(await stored()).toMatchObject({ name: "Marram", site: { altitudeM: 100 } });
    expect(await undo("marram", a)).toEqual({ outcome: "nothing" });
    expect(await redo("marram", a)).toMatchObject({ outcome: "done" });
    expect(await undo("marram", b)).toMatchObject({ outcome: "done" });
    expect(await stored()).toMatchObject({ name: "A", site: { altitudeM: job.site.altitudeM } });
  });

  test("undo asks where the other has since changed the same, and then takes both back", async () => {
    await rename(a, "A");
    await rename(b, "B");
    expect(await undo("marram", a)).toEqual({ outcome: "asks", others: 1 });
    expect((await stored())?.name).toBe("B");
    expect(await undo("marram", a, true)).toMatchObject({ outcome: "done" });
    expect(await stored()).toEqual(job);
  });

  test("figures of one record are each their own: neither is asked about for the other's sake, nor taken back with it", async () => {
    const site = async (tab: Tab, change: object) => {
      const shown = (await stored()) as Job;
      return commit(
        "marram",
        madeFrom(shown, { name: "editJob", change: { site: { ...shown.site, ...change } } }),
        null,
        tab,
      );
    };
    await site(a, { altitudeM: 300 });
    await site(b, { ambientLowC: -12 });
    expect(await undo("marram", a)).toMatchObject({ outcome: "done" });
    expect((await stored())?.site).toEqual({ ...job.site, ambientLowC: -12 });
    await redo("marram", a);
    await site(b, { altitudeM: 500 });
    await site(b, { ambientHighC: 41 });
    expect(await undo("marram", a)).toEqual({ outcome: "asks", others: 1 });
    expect(await undo("marram", a, true)).toMatchObject({ outcome: "done" });
    expect((await stored())?.site).toEqual({ ...job.site, ambientLowC: -12, ambientHighC: 41 });
  });

  test("a list that the other made longer means the same up to its end; what both added is asked about", async () => {
    const add = (tab: Tab, id: string) =>
      commit("marram", { name: "addTank", id, tankName: id, position: { xM: 0, yM: 0, zM: 0 } }, null, tab);
    await commit("marram", { name: "editTank", id: "dayTank", change: { name: "Day" } }, null, a);
    await add(b, "spare");
    expect(await undo("marram", a)).toMatchObject({ outcome: "done" });
    expect((await stored())?.tanks.map(({ name }) => name)).toEqual([
      ...job.tanks.map(({ name }) => name),
      "spare",
    ]);
    await add(a, "mine");
    await add(b, "theirs");
    expect(await undo("marram", a)).toEqual({ outcome: "asks", others: 1 });
  });

  test("sixty changes from two tabs, none waited for: each is kept, and each tab takes its own thirty back", async () => {
    const results = await Promise.all(
      Array.from({ length: 60 }, (_, i) => {
        const [tab, field] = i % 2 === 0 ? ([a, "altitudeM"] as const) : ([b, "ambientHighC"] as const);
        const value = field === "altitudeM" ? 100 + i : 20 + i / 4;
        return commit(
          "marram",
          madeFrom(job, { name: "editJob", change: { site: { ...job.site, [field]: value } } }),
          null,
          tab,
        );
      }),
    );
    expect(results.filter(({ ok }) => ok)).toHaveLength(60);
    expect((await stored())?.site).toMatchObject({ altitudeM: 158, ambientHighC: 34.75 });
    expect(await database().steps.where("[jobId+seq]").between(["marram", 0], ["marram", 999]).count()).toBe(
      60,
    );
    for (let i = 0; i < 30; i++) expect(await undo("marram", a)).toMatchObject({ outcome: "done" });
    expect((await stored())?.site).toEqual({ ...job.site, ambientHighC: 34.75 });
  });

  test("redo over the other's change of the same is refused with its reason", async () => {
    await rename(a, "A");
    await undo("marram", a);
    await rename(b, "B");
    expect(await redo("marram", a)).toMatchObject({ outcome: "refused", faults: [{ code: "changedSince" }] });
  });

  test("a part taken out of a list by one makes places in it mean other things to the other", async () => {
    await commit("marram", { name: "editPart", id: "lift", change: { name: "Pump" } }, null, a);
    await commit("marram", { name: "removePart", id: "sep2" }, null, b);
    expect(await undo("marram", a)).toMatchObject({ outcome: "asks" });
  });

  test("a page that opened later may undo what was there before it", async () => {
    await rename(a, "A");
    const later: Tab = { id: "c", since: (await database().records.get("marram"))?.turn ?? 0 };
    expect(await undo("marram", later)).toMatchObject({ outcome: "done" });
    expect(await stored()).toEqual(job);
  });
});

describe("the book", () => {
  const dip = (depthM: number) => ({ kind: "dip" as const, tankId: "dayTank", depthM });

  test("takes entries that undo does not take out again, and that do not raise the job's revision", async () => {
    const before = (await readBook("marram")).all.length;
    await commit("marram", { name: "rename", jobName: "Tern" });
    expect(await enter("marram", [dip(0.1), dip(0.2)])).toMatchObject({ ok: true });
    await undo("marram");
    expect((await readBook("marram")).all).toHaveLength(before + 2);
    expect((await database().records.get("marram"))?.revision).toBe(2);
  });

  test("strikes by an entry", async () => {
    const result = await enter("marram", [dip(0.1)]);
    const [id = ""] = result.ok ? result.ids : [];
    await enter("marram", [{ kind: "strike", entryId: id }]);
    const { all, standing } = await readBook("marram");
    expect(all.some((entry) => entry.id === id)).toBe(true);
    expect(standing.some((entry) => entry.id === id)).toBe(false);
  });

  test("keeps a plan once a content, however many entries cite it", async () => {
    const at = () => database().snapshots.count();
    const before = await at();
    await enter("marram", [dip(0.1)]);
    await commit("marram", { name: "setConditions", change: { fuelC: 4 } });
    await enter("marram", [dip(0.2)]);
    const same = await at();
    await commit("marram", { name: "editPart", id: "lift", change: { boreM: 0.011 } });
    await enter("marram", [dip(0.3)]);
    expect(await at()).toBe(same + 1);
    expect(same - before).toBeLessThanOrEqual(1);
  });

  test("refuses all of it where one names what is not there", async () => {
    const before = (await readBook("marram")).all.length;
    const result = await enter("marram", [dip(0.1), { ...dip(0.1), tankId: "none" }, dip(-1)]);
    expect(result).toMatchObject({ ok: false });
    if (!result.ok)
      expect(result.faults.map(({ path }) => path)).toEqual(["book[1].tankId", "book[2].depthM"]);
    expect((await readBook("marram")).all).toHaveLength(before);
  });

  test("of thousands of entries goes out and in again", async () => {
    const many = Array.from({ length: 2_000 }, (_, i) => dip(0.05 + (i % 100) / 1000));
    expect(await enter("marram", many)).toMatchObject({ ok: true });
    const written = await exportJob("marram");
    await importJob(await readJobBlob(written!.blob), "keepBoth");
    const beside = (await listJobs()).jobs.find(({ name }) => name.includes("imported"));
    expect((await readBook(beside?.id ?? "")).all).toHaveLength(2_000 + OWN);
    const sizes = await fileSizes("marram");
    expect(sizes?.plainBytes).toBe(written!.blob.size);
  }, 20_000);

  test("that is long opens with its last page, and is read on from there; a short one is there at once", async () => {
    expect((await openBook("marram")).isWhole).toBe(true);
    forgetBook("marram");
    await enter(
      "marram",
      Array.from({ length: 500 }, (_, i) => dip(0.05 + i / 10_000)),
    );
    const first = await openBook("marram");
    const whole = await readBook("marram");
    expect(first.isWhole).toBe(false);
    expect(whole).toMatchObject({ isWhole: true, all: { length: 500 + OWN } });
    expect(first.all.length).toBeGreaterThan(100);
    expect(first.all).toEqual(whole.all.slice(-first.all.length));
    expect(await openBook("marram")).toBe(whole);
  });

  test("a row that does not parse is passed over and counted, and the rest stands", async () => {
    await enter("marram", [dip(0.1)]);
    const last = await database().book.toCollection().last();
    await database().book.put({ ...last!, entry: { kind: "dip" } as never });
    forgetBook("marram");
    const { all, broken } = await readBook("marram");
    expect(broken).toBe(1);
    expect(all).toHaveLength(OWN);
  });

  test("two devices' books of one job are joined by id", async () => {
    const before = await exportJob("marram");
    await enter("marram", [dip(0.31)]);
    const here = await exportJob("marram");
    const other = JSON.parse(await before!.blob.text());
    other.book.push({ ...other.book.find((one: { kind: string }) => one.kind === "dip"), id: "elsewhere" });
    await importJob(readOf(other), "replace");
    const ids = (await readBook("marram")).all.map(({ id }) => id);
    const mine = readJobFile(await here!.blob.text());
    expect(ids).toEqual(expect.arrayContaining(mine.ok ? mine.book.map(({ id }) => id) : ["?"]));
    expect(ids).toContain("elsewhere");
    expect(new Set(ids).size).toBe(ids.length);
  });
});

describe("pictures", () => {
  const picture = {
    type: "image/jpeg" as const,
    full: new Blob([new Uint8Array(400_000).fill(7)]),
    preview: new Blob([new Uint8Array(9)]),
  };
  const photo = (pictureId: string) => ({ kind: "photo" as const, ofId: "lift", note: "", pictureId });

  test("lie apart from the job, go out in a ZIP on request, and come back", async () => {
    await enter("marram", [photo("p1")], new Map([["p1", picture]]));
    const plain = await exportJob("marram");
    expect(plain?.extension).toBe("keel.json");
    expect(plain!.blob.size).toBeLessThan(400_009);
    expect(await fileSizes("marram")).toMatchObject({ pictures: 1, pictureBytes: 400_009 });
    const zip = await exportJob("marram", true);
    expect(zip?.extension).toBe("keel.zip");
    await importJob(await readJobBlob(zip!.blob), "keepBoth");
    expect(await database().pictures.count()).toBe(2);
  });
});

describe("jobs", () => {
  test("go out and come in without loss, and the export is noted", async () => {
    expect(await (await exportJob("marram"))?.blob.text()).toBe(text);
    const { jobs } = await listJobs();
    expect(jobs[0]).toMatchObject({ name: "Marram", changedSinceExport: false });
    expect(jobs[0]?.exportedAt).not.toBeNull();
    await enter("marram", [{ kind: "dip", tankId: "dayTank", depthM: 0.1 }]);
    expect((await listJobs()).jobs[0]?.changedSinceExport).toBe(true);
  });

  test("that exist are not touched until it is said how; replacing one can be undone", async () => {
    await commit("marram", { name: "rename", jobName: "Mine" });
    expect(await importJob(file, "ask")).toMatchObject({ outcome: "exists", name: "Mine" });
    expect((await stored())?.name).toBe("Mine");
    const beside = await importJob(file, "keepBoth");
    expect(beside.outcome).toBe("kept");
    expect((await listJobs()).jobs.map(({ name }) => name).sort()).toEqual(["Marram (imported)", "Mine"]);
    await importJob(file, "replace");
    expect((await stored())?.name).toBe("Marram");
    await undo("marram");
    expect((await stored())?.name).toBe("Mine");
  });

  test("are made, copied under an id of their own, deleted and brought back", async () => {
    const made = await createJob("Skiff", "twoTanksTwoSelectors");
    const copy = await copyJob(made);
    expect(copy).not.toBe(made);
    await deleteJob(made);
    expect(await readJob(made, page)).toEqual({ status: "gone" });
    expect((await listJobs()).deleted).toEqual([{ id: made, name: "Skiff" }]);
    await restoreJob(made);
    expect((await stored(made))?.name).toBe("Skiff");
  });

  test("with the longest of names are copied and kept beside, and open", async () => {
    await commit("marram", { name: "rename", jobName: "n".repeat(80) });
    const copy = await copyJob("marram");
    expect((await stored(copy ?? ""))?.name).toMatch(/^n+ copy$/);
    expect((await stored(copy ?? ""))?.name).toHaveLength(80);
  });

  test("a copy has the book of what it was copied from", async () => {
    const copy = await copyJob("marram");
    expect((await readBook(copy ?? "")).all).toEqual((await readBook("marram")).all);
  });

  test("two phones' logs of one job are joined by a file, twice the same, and the plan here stays", async () => {
    // What the other phone has: the same job, renamed there, with a look at a joint of its own.
    const other = JSON.parse(text) as { job: Job; book: { id: string }[] };
    const [first] = other.book;
    other.job.name = "Of the other phone";
    other.book.push({ ...first!, id: "otherPhone" });
    await commit("marram", { name: "rename", jobName: "Of this phone" });
    const mine = await enter("marram", [
      { kind: "leakCheck", lineUpId: "runPort", joint: { part: "sep1", port: "out" }, result: "dry" },
    ]);
    expect(mine.ok).toBe(true);
    const file = readOf(other);
    for (let turn = 0; turn < 2; turn++) {
      expect(await importJob(file, "logAlone")).toMatchObject({ outcome: "kept", name: "Of this phone" });
      forgetBook("marram");
      const { all, broken } = await readBook("marram");
      expect([all.length, broken]).toEqual([OWN + 2, 0]);
      expect(new Set(all.map(({ id }) => id)).size).toBe(OWN + 2);
      expect((await stored())?.name).toBe("Of this phone");
    }
    expect((await listJobs()).jobs[0]).toMatchObject({ name: "Of this phone" });
  });

  test("the list reads no job", async () => {
    await database().documents.clear();
    expect((await listJobs()).jobs[0]).toMatchObject({ name: "Marram", tanks: 3, parts: 19 });
  });

  test("that no longer parse are set aside whole when they are opened, never dropped", async () => {
    await database().documents.put({ id: "marram", doc: { ...job, tanks: "gone" } });
    await database().records.update("marram", { stamp: "other" });
    // A live query only asks: it must not write.
    expect(await readJob("marram", page)).toMatchObject({ status: "broken" });
    expect((await listJobs()).aside).toEqual([]);
    expect(await openJob("marram", page)).toMatchObject({ status: "broken" });
    const { jobs, aside } = await listJobs();
    expect(jobs).toEqual([]);
    expect(aside[0]?.name).toBe("Marram");
    expect(JSON.parse(aside[0]?.text ?? "")).toMatchObject({ job: { tanks: "gone", name: "Marram" } });
    expect(JSON.parse(aside[0]?.text ?? "").book).toHaveLength(OWN);
    expect(aside[0]?.faults[0]).toContain("tanks");
  });

  test("with keys that have no value, as older pages kept them, are read, changed and undone", async () => {
    const row = await database().documents.get("marram");
    const doc = row?.doc as Job;
    const tanks = doc.tanks.map((tank) => ({ ...tank, wallM: undefined }));
    await database().documents.put({ ...row, id: "marram", doc: { ...doc, tanks } } as never);
    await database().records.update("marram", { stamp: "older page" });
    expect(await commit("marram", { name: "rename", jobName: "Tern" })).toMatchObject({ ok: true });
    expect((await stored())?.tanks[0]).toEqual(doc.tanks[0]);
    expect(await undo("marram")).toMatchObject({ outcome: "done" });
    const ids = await enter("marram", [
      {
        kind: "bled",
        lineUpId: job.plans.at(-1)?.lineUps[0]?.id ?? "",
        step: "s",
        came: "done",
        seconds: undefined,
      } as never,
    ]);
    expect(ids.ok).toBe(true);
  });

  test("a fault that was found, kept of old with its place in place of its day, is read with the day before it", async () => {
    const { seq: _, ...row } = (await database().book.where({ jobId: "marram" }).first())!;
    const { at } = row.entry;
    const old = { kind: "faultFound", id: "old", planId: row.entry.planId, planHash: row.entry.planHash };
    const entry = { ...old, at: "vacuum", lineUpId: "runPort", fault: "airLeak", note: "washer" };
    await database().book.clear();
    await database().book.bulkAdd([row, { ...row, id: "old", entry: entry as never }]);
    forgetBook("marram");
    const { all, broken } = await readBook("marram");
    expect(broken).toBe(0);
    expect(all.at(-1)).toEqual({ ...entry, at, ofId: "vacuum" });
  });

  test("written by a newer version are shown, not opened, and nothing of them changes", async () => {
    await database().records.update("marram", { version: VERSION + 1 });
    const before = say(await database().documents.get("marram"));
    expect((await listJobs()).jobs[0]).toMatchObject({ isNewer: true });
    expect(await openJob("marram", page)).toEqual({ status: "newer" });
    expect(await commit("marram", { name: "rename", jobName: "x" })).toMatchObject({
      ok: false,
      faults: [{ code: "newerRow" }],
    });
    expect(say(await database().documents.get("marram"))).toEqual(before);
  });
});

describe("everything", () => {
  test("is saved and restored at once, asking before it replaces", async () => {
    const skiff = await createJob("Skiff", "oneTank");
    await enter(
      "marram",
      [{ kind: "photo", ofId: "lift", note: "", pictureId: "p" }],
      new Map([["p", { type: "image/png", full: new Blob([new Uint8Array(5)]) }]]),
    );
    const before = [await stored(), await stored(skiff)];
    const all = await readAllBlob(await exportAll());
    await commit("marram", { name: "rename", jobName: "Changed" });
    await database().pictures.clear();
    await deleteJob(skiff);
    expect(await restoreAll(all, false)).toEqual({ outcome: "asks", jobs: 2, replaced: ["Changed"] });
    expect((await stored())?.name).toBe("Changed");
    expect(await restoreAll(all, true)).toEqual({ outcome: "restored", jobs: 2 });
    expect([await stored(), await stored(skiff)]).toEqual(before);
    expect(await database().pictures.count()).toBe(1);
    await undo("marram");
    expect((await stored())?.name).toBe("Changed");
  });
});

describe("what is cut short", () => {
  const OTHERS = 4;
  /** The store fails at the n-th row that is put into a table, as a page does that is ended there. */
  const cutAt = (table: "documents" | "book" | "snapshots", n: number) => {
    let count = 0;
    const hook = () => {
      count += 1;
      if (count === n) throw new Error("ended here");
    };
    database()[table].hook("creating", hook as never);
    database()[table].hook("updating", hook as never);
    return () => {
      database()
        [table].hook("creating")
        .unsubscribe(hook as never);
      database()
        [table].hook("updating")
        .unsubscribe(hook as never);
    };
  };
  const whole = async () =>
    say(
      await Promise.all(
        ["records", "documents", "steps", "book", "snapshots", "settings"].map((name) =>
          database().table(name).toArray(),
        ),
      ),
    );

  test.each<["documents" | "book" | "snapshots", number]>([
    ["documents", 1],
    ["book", 1],
    ["snapshots", 1],
  ])(
    "a replacing import that fails at %s %i leaves record, history, document and log as they were",
    async (table, n) => {
      await commit("marram", { name: "rename", jobName: "Mine" });
      const other = JSON.parse(text) as { book: { id: string }[] };
      other.book.push({ ...other.book[0]!, id: "elsewhere" });
      const before = await whole();
      const heal = cutAt(table, n);
      try {
        await expect(importJob(readOf(other), "replace")).rejects.toThrow();
      } finally {
        heal();
      }
      expect(await whole()).toEqual(before);
      expect((await stored())?.name).toBe("Mine");
      expect(await importJob(readOf(other), "replace")).toMatchObject({ outcome: "kept" });
      expect((await stored())?.name).toBe("Marram");
    },
  );

  test("a restore that fails at its third job keeps none of them, and is told once at the next start", async () => {
    for (let i = 0; i < OTHERS; i++) await copyJob("marram");
    const all = await readAllBlob(await exportAll());
    await Promise.all(allTables().map((table) => table.clear()));
    const heal = cutAt("documents", 3);
    try {
      await expect(restoreAll(all, true)).rejects.toThrow();
    } finally {
      heal();
    }
    expect(await database().records.count()).toBe(0);
    expect(await database().book.count()).toBe(0);
    expect(await restoreCutShort()).toMatch(/^20\d\d-/);
    expect(await restoreCutShort()).toBeNull();
    expect(await restoreAll(all, true)).toEqual({ outcome: "restored", jobs: OTHERS + 1 });
    expect(await restoreCutShort()).toBeNull();
  });
});

describe("what commit accepts", () => {
  test("goes out in a file and comes back equal, whatever was done", async () => {
    const number = fc.oneof(fc.double({ noNaN: true }), fc.constantFrom(0, -0, 1e-9, 0.01, 1, 40));
    const id = fc.constantFrom("lift", "sep1", "sep2", "supply", "dayTank", "x", "__proto__", "constructor");
    const field = fc.constantFrom("boreM", "name", "reliefPa", "curve", "element", "given", "colour");
    const value = fc.oneof(number, fc.constantFrom("", "n", "é漢", null, undefined, [], {}));
    const command = fc.oneof(
      fc.record({ name: fc.constant("editPart" as const), id, change: fc.dictionary(field, value) }),
      fc.record({ name: fc.constant("removePart" as const), id }),
      fc.record({
        name: fc.constant("setConditions" as const),
        change: fc.record({ fuelC: number, aboardM3: fc.dictionary(id, number) }, { requiredKeys: [] }),
      }),
      fc.record({ name: fc.constant("put" as const), id, x: number, y: number }),
      fc.record({ name: fc.constant("rename" as const), jobName: fc.string() }),
    );
    await fc.assert(
      fc.asyncProperty(fc.array(command, { maxLength: 6 }), async (commands) => {
        for (const one of commands) await commit("marram", one as never);
        const now = await stored();
        const read = readJobFile(writeJobFile({ job: now!, book: [], snapshots: {} }));
        expect(read).toMatchObject({ ok: true });
        expect(read.ok && say(read.job)).toEqual(say(now));
      }),
      { numRuns: 40 },
    );
  });
});

describe("a browser with the data of 0.3.0", () => {
  const names = ["marram", "unit-12", "reading-van"];
  const first = (name: string) =>
    JSON.parse(readFileSync(`app/schemas/fixtures/v1/${name}.keel.json`, "utf8")).job as Job & {
      book: unknown[];
    };

  /** A store as 0.3.0 left it: three jobs, one changed twice and the second change undone, one that is broken. */
  async function oldStore(name: string): Promise<void> {
    const { default: Dexie } = await import("dexie");
    const old = new Dexie(name);
    old
      .version(1)
      .stores({ jobs: "id, deletedAt", history: "[jobId+seq], jobId", setAside: "id", settings: "key" });
    const row = (doc: { id: string; name: string }, more = {}) => ({
      id: doc.id,
      name: doc.name,
      revision: 0,
      cursor: 0,
      updatedAt: "2026-01-01T00:00:00Z",
      exportedAt: null,
      exportedRevision: null,
      deletedAt: null,
      doc,
      ...more,
    });
    const [marram, ...others] = names.map(first);
    const changed = { ...marram!, name: "Tern" };
    const renamed = (to: string, from: string, seq: number) => ({
      jobId: marram!.id,
      seq,
      command: { name: "rename", jobName: to },
      patches: [{ op: "replace", path: ["name"], value: to }],
      inverse: [{ op: "replace", path: ["name"], value: from }],
      gesture: null,
    });
    await old
      .table("jobs")
      .bulkPut([
        row(changed, { revision: 3, cursor: 1 }),
        ...others.map((doc) => row(doc)),
        row({ ...first("marram"), id: "broken", tanks: "gone" } as never),
      ]);
    await old.table("history").bulkPut([renamed("Tern", "Marram", 1), renamed("Gull", "Tern", 2)]);
    await old.table("settings").put({ key: "seeded:marram.keel.json", value: "x" });
    old.close();
  }

  test("opens after the update with nothing lost, and undo goes over it", async () => {
    database().close();
    await new KeelDatabase().delete();
    await oldStore("iron-keel");
    await database().open();
    const { jobs, aside } = await listJobs();
    expect(jobs.map(({ name }) => name).sort()).toEqual(["Tern", "The reading van", "Unit 12"]);
    expect(aside.map(({ id }) => id.split("-")[0])).toEqual(["broken"]);
    expect(JSON.parse(aside[0]!.text)).toMatchObject({ version: 1, job: { tanks: "gone" } });
    const {
      book,
      keptRevisions: _,
      ...then
    } = first("marram") as Job & { book: unknown[]; keptRevisions: unknown };
    // A dosing pump's share of its period is the time of its stroke since version 3.
    const now = JSON.parse(JSON.stringify(then), (key, one) => {
      if (key === "nudges") return undefined;
      if (one?.kind !== "dosingPump") return one;
      const { drawShare, ...rest } = one;
      return { ...rest, strokeS: drawShare / one.mostHz };
    }) as object;
    expect(await stored()).toEqual({ ...now, name: "Tern" });
    forgetBook("marram");
    expect((await readBook("marram")).all).toHaveLength(book.length);
    await redo("marram");
    expect((await stored())?.name).toBe("Gull");
    await undo("marram");
    await undo("marram");
    expect((await stored())?.name).toBe("Marram");
    expect(await undo("marram")).toEqual({ outcome: "nothing" });
    expect(await database().settings.count()).toBe(1);
    // Opened again, nothing is left to bring up.
    expect((await listJobs()).jobs).toHaveLength(3);
  });
});
