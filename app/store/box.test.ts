import "fake-indexeddb/auto";
import { readFileSync } from "node:fs";
import { beforeEach, describe, expect, test } from "@jest/globals";
import type { BoxItem } from "~/core/box/box";
import { readBoxFile, writeBoxFile } from "~/schemas/box";
import type { JobFile } from "~/schemas/file";
import { readAllBlob, writeAllZip } from "~/schemas/zip";
import { changeBox, readBox, undoBox } from "./box";
import { database } from "./database";
import { exportAll, restoreAll } from "./files";

const seal: BoxItem = { kind: "thing", id: "seal", name: "Bowl seal", count: 2 };
const hose: BoxItem = { kind: "hose", id: "hose", marking: "A1", boreM: 0.0095, lengthM: 3, form: "coil" };

beforeEach(async () => {
  await database().box.clear();
  await database().boxSteps.clear();
});

describe("the shop's box in the browser", () => {
  test("keeps what is put in, and each change has its way back, to the first", async () => {
    await changeBox((items) => [...items, seal]);
    await changeBox((items) => [...items, hose]);
    await changeBox(() => []);
    expect((await readBox()).items).toEqual([]);
    expect(await undoBox()).toBe(true);
    expect((await readBox()).items.map(({ id }) => id).sort()).toEqual(["hose", "seal"]);
    await undoBox();
    await undoBox();
    expect(await readBox()).toEqual({ items: [], unread: 0, canUndo: false });
    expect(await undoBox()).toBe(false);
  });

  test("a change that is wrong changes nothing", async () => {
    await changeBox(() => [seal]);
    expect(await changeBox(() => [{ ...seal, count: 0 }])).toMatchObject({
      ok: false,
      faults: [{ path: "[0].count", code: "tooSmall" }],
    });
    expect((await readBox()).items).toEqual([seal]);
  });

  test("a row of a newer version is counted, left as it is by changes, and not lost", async () => {
    await database().box.put({ id: "later", version: 99, item: { kind: "unheard of" } });
    await changeBox((items) => [...items, seal]);
    expect(await readBox()).toMatchObject({ items: [seal], unread: 1 });
    expect(await database().box.get("later")).toBeDefined();
  });

  test("two thousand lines are read, changed and undone", async () => {
    const many = Array.from(
      { length: 2000 },
      (_, i): BoxItem => ({ kind: "thing", id: `t${i}`, name: `Thing ${i}`, count: 1 }),
    );
    await changeBox(() => many);
    await changeBox((items) => items.slice(1));
    expect((await readBox()).items).toHaveLength(1999);
    await undoBox();
    expect((await readBox()).items).toHaveLength(2000);
  });

  test("goes with everything in one file, and comes back from it", async () => {
    await changeBox(() => [seal, hose]);
    const file = await readAllBlob(await exportAll());
    await changeBox(() => []);
    expect(await restoreAll(file, true)).toMatchObject({ outcome: "restored" });
    expect((await readBox()).items.map(({ id }) => id).sort()).toEqual(["hose", "seal"]);
    expect(await database().settings.get("box")).toBeUndefined();
  });
});

test("a file of everything with a box that cannot be is refused before a single job is taken", async () => {
  await changeBox(() => [seal]);
  const file = await readAllBlob(await exportAll());
  if (!file.ok) throw new Error("no file");
  const { job } = JSON.parse(readFileSync("demo/reading-van.keel.json", "utf8")) as { job: JobFile["job"] };
  const spoilt = await writeAllZip({
    jobs: [{ job, book: [], snapshots: {}, pictures: new Map() }],
    settings: { ...file.settings, box: '{"format":"keel-box","version":9,"items":[]}' },
  });
  expect(await restoreAll(await readAllBlob(spoilt), true)).toMatchObject({
    outcome: "refused",
    faults: [{ code: "newerVersion" }],
  });
  expect(await database().records.count()).toBe(0);
  expect((await readBox()).items).toEqual([seal]);
});

test("words of an older box that cannot be printed are cleaned as it is read", () => {
  const items = [{ kind: "thing", id: "a", name: "Pan\nwith a lid", count: 1 }];
  const read = (version: number) => readBoxFile(JSON.stringify({ format: "keel-box", version, items }));
  expect(read(2)).toMatchObject({ ok: true, items: [{ name: "Pan with a lid" }] });
  expect(read(3)).toMatchObject({ ok: false, faults: [{ code: "controlCharacter" }] });
});

describe("a box file", () => {
  test("is read as it was written", () => {
    expect(readBoxFile(writeBoxFile([seal, hose]))).toEqual({ ok: true, items: [seal, hose] });
  });
  const file = (change: object) =>
    JSON.stringify({ format: "keel-box", version: 1, items: [seal], ...change });
  test.each([
    ["no JSON", "{", "", "notJson"],
    ["another file", JSON.stringify({ format: "keel-job" }), "format", "notABox"],
    ["a newer version", file({ version: 4 }), "version", "newerVersion"],
    [
      "a shape that nobody makes",
      file({ items: [{ kind: "adapter", id: "a", shape: "g:x", count: 1 }] }),
      "items[0].shape",
      "noSuchShape",
    ],
    ["a size of zero", file({ items: [{ ...hose, lengthM: 0 }] }), "items[0].lengthM", "tooSmall"],
    ["a line twice", file({ items: [seal, seal] }), "items[1].id", "duplicateId"],
    ["a word too many", file({ items: [{ ...seal, colour: "red" }] }), "items[0].colour", "unknownKey"],
  ])("%s is refused with its place", (_, text, path, code) => {
    expect(readBoxFile(text)).toMatchObject({ ok: false, faults: [{ path, code }] });
  });
});
