/** The first visit: what the server hands over is put in once, beside what is there; no network is no fault, a full store is. */
import "fake-indexeddb/auto";
import { readFileSync } from "node:fs";
import { afterEach, beforeEach, expect, jest, test } from "@jest/globals";
import { readJobFile } from "~/schemas/file";
import { database } from "~/store/database";
import { importJob } from "~/store/files";
import { DEMO_BOX, type DemoRows, deleteJob, listJobs, seedDemo } from "~/store/list";
import { allTables } from "~/store/records";
import { loader } from "./demo";

const answers = new Map<string, () => Promise<Response>>();
const asked: string[] = [];
const json = (value: unknown) => () =>
  Promise.resolve(
    new Response(JSON.stringify(value), { headers: { "Content-Type": "application/json; charset=utf-8" } }),
  );

beforeEach(async () => {
  answers.clear();
  asked.length = 0;
  jest.spyOn(globalThis, "fetch").mockImplementation((path) => {
    const name = String(path).replace("/demo/", "");
    asked.push(name);
    return answers.get(name)?.() ?? Promise.resolve(new Response("", { status: 404 }));
  });
  await Promise.all([...allTables(), database().box, database().settings].map((table) => table.clear()));
});
afterEach(() => {
  jest.restoreAllMocks();
});

/** What the server answers. */
const served = (name: string) =>
  loader({ params: { name } } as Parameters<typeof loader>[0]) as Promise<Response>;
const rows = async () => (await (await served("marram")).json()) as DemoRows;
const names = async () => (await listJobs()).jobs.map(({ name }) => name);

test("a job is put in once, and not again when it was deleted", async () => {
  answers.set("marram", () => served("marram"));
  await seedDemo(["marram"]);
  expect(await names()).toEqual(["Marram"]);
  await deleteJob("marram");
  await seedDemo(["marram"]);
  expect(await names()).toEqual([]);
  expect(asked.filter((name) => name === "marram")).toHaveLength(1);
});

test("one that is there already stays as it is, and is not asked for any more", async () => {
  await importJob(readJobFile(readFileSync("demo/marram.keel.json", "utf8")), "ask");
  await database().records.update("marram", { name: "Mine" });
  answers.set("marram", () => served("marram"));
  await seedDemo(["marram"]);
  expect(await names()).toEqual(["Mine"]);
  await seedDemo(["marram"]);
  expect(asked.filter((name) => name === "marram")).toHaveLength(1);
});

test("without network, or where a page answers in its place, it is asked for again", async () => {
  answers.set("marram", () => Promise.reject(new TypeError("Failed to fetch")));
  await seedDemo(["marram"]);
  answers.set("marram", () =>
    Promise.resolve(new Response("<html></html>", { headers: { "Content-Type": "text/html" } })),
  );
  await seedDemo(["marram"]);
  expect(await names()).toEqual([]);
  answers.set("marram", () => served("marram"));
  await seedDemo(["marram"]);
  expect(await names()).toEqual(["Marram"]);
});

test("one of another version is left where it is", async () => {
  const handed = await rows();
  answers.set("marram", json({ ...handed, record: { ...handed.record, version: 999 } }));
  await seedDemo(["marram"]);
  expect(await names()).toEqual([]);
});

test("a store that is full is no missing network: it is told", async () => {
  answers.set("marram", () => served("marram"));
  const full = new DOMException("no room", "QuotaExceededError");
  jest.spyOn(database().records, "put").mockImplementation(() => {
    throw full;
  });
  await expect(seedDemo(["marram"])).rejects.toThrow("no room");
  jest.spyOn(database().records, "put").mockRestore();
  // Nothing of it was half put in: the next visit brings it whole.
  expect(await names()).toEqual([]);
  await seedDemo(["marram"]);
  expect(await names()).toEqual(["Marram"]);
});

test("the box is filled where it is empty alone", async () => {
  const item = { kind: "thing", id: "w", name: "washer", count: 3 };
  answers.set(DEMO_BOX, json({ box: [item] }));
  await seedDemo(["marram"]);
  expect((await database().box.toArray()).map((row) => row.item)).toEqual([item]);
  await database().settings.clear();
  answers.set(DEMO_BOX, json({ box: [{ ...item, id: "x", name: "other" }] }));
  await seedDemo(["marram"]);
  expect((await database().box.toArray()).map((row) => row.item)).toEqual([item]);
});
