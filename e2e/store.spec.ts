import { readFileSync } from "node:fs";
import type { Job } from "~/core/plan/types";
import { writeJobFile } from "~/schemas/file";
import { choose, fill, openDemo, openMarram, storedJob, unfold } from "./helpers";
import { SEEDED, SHELF_WORD } from "./seeded";
import { expect, expectAccessible, faultsOf, type Page, test } from "./test";

const first = (name: string) =>
  JSON.parse(readFileSync(`app/schemas/fixtures/v1/${name}.keel.json`, "utf8")).job as {
    id: string;
    name: string;
  };

/** Puts other values into a row of the browser's store, from outside of the application. */
const spoil = (page: Page, table: string, key: string, values: object) =>
  page.evaluate(
    ([tableName, id, more]) =>
      new Promise<void>((resolve, reject) => {
        const open = indexedDB.open("iron-keel");
        open.onerror = () => reject(open.error);
        open.onsuccess = () => {
          const store = open.result.transaction(tableName, "readwrite").objectStore(tableName);
          const get = store.get(id);
          get.onsuccess = () => {
            store.put({ ...get.result, ...more }).onsuccess = () => {
              open.result.close();
              resolve();
            };
          };
        };
      }),
    [table, key, values] as const,
  );

test.describe("a browser with the data of 0.3.0", () => {
  test.use({ storageState: { cookies: [], origins: [] } });

  test("opens it after the update with nothing lost, and undo goes over it", async ({ page }) => {
    // A page of this origin that opens no store.
    await page.goto("/health");
    await page.evaluate(
      ([jobs]) =>
        new Promise<void>((resolve, reject) => {
          const open = indexedDB.open("iron-keel", 10);
          open.onerror = () => reject(open.error);
          open.onupgradeneeded = () => {
            const db = open.result;
            db.createObjectStore("jobs", { keyPath: "id" }).createIndex("deletedAt", "deletedAt");
            db.createObjectStore("history", { keyPath: ["jobId", "seq"] }).createIndex("jobId", "jobId");
            db.createObjectStore("setAside", { keyPath: "id" });
            db.createObjectStore("settings", { keyPath: "key" });
          };
          open.onsuccess = () => {
            const tables = open.result.transaction(["jobs", "history", "settings"], "readwrite");
            for (const doc of jobs ?? []) {
              const name = doc.id === "marram" ? "Tern" : doc.name;
              tables.objectStore("jobs").put({
                id: doc.id,
                name,
                revision: 1,
                cursor: doc.id === "marram" ? 1 : 0,
                updatedAt: "2026-01-01T00:00:00Z",
                exportedAt: null,
                exportedRevision: null,
                deletedAt: null,
                doc: { ...doc, name },
              });
            }
            tables.objectStore("history").put({
              jobId: "marram",
              seq: 1,
              command: { name: "rename", jobName: "Tern" },
              patches: [{ op: "replace", path: ["name"], value: "Tern" }],
              inverse: [{ op: "replace", path: ["name"], value: "Marram" }],
              gesture: null,
            });
            for (const name of ["marram", "unit-12", "reading-van"])
              tables.objectStore("settings").put({ key: `seeded:${name}.keel.json`, value: "x" });
            tables.oncomplete = () => {
              open.result.close();
              resolve();
            };
          };
        }),
      [["marram", "unit-12", "reading-van"].map(first)],
    );
    await page.goto("/");
    for (const name of [/^Tern 10/, /^Unit 12 Road/, /^The reading van Mobile/])
      await expect(page.getByRole("link", { name })).toBeVisible();
    await page.goto("/job/marram/care");
    await expect(page.getByRole("heading", { level: 1, name: "Tern" })).toBeVisible();
    await expect(page.getByRole("button", { name: /^Strike the reading/ })).toHaveCount(3);
    await page.getByRole("button", { name: "Undo" }).click();
    await expect(page.getByRole("heading", { level: 1, name: "Marram" })).toBeVisible();
    await expect(page.getByRole("button", { name: "Undo" })).toBeDisabled();
  });
});

test("two fields of one record typed quickly are both kept", async ({ page }) => {
  await openDemo(page, "unit12", "prove?part=circuits");
  await page
    .getByRole("row", { name: /^Frame pump/ })
    .getByRole("button", { name: "Frame pump" })
    .click();
  await unfold(page, /Its figures/);
  await page.getByText("Its circuit").click();
  const fuse = page.getByLabel("Fuse", { exact: true });
  const copper = page.getByRole("textbox", { name: "Copper" });
  await fuse.fill("12 A");
  await copper.fill("4 mm2");
  // One after the other in one breath: the first is not yet shown when the second is made.
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await expect(fuse).toHaveValue("12 A");
  await expect(copper).toHaveValue(/^4/);
});

test("a photograph is scaled down, goes with the file on request, and comes back with it", async ({
  page,
}) => {
  await openMarram(page, "install");
  await page.locator("#keel").getByRole("button", { name: "Lift pump", exact: true }).click();
  // A picture of 3,000 by 2,000, made here: no file of anyone's.
  const picture = await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(3000, 2000);
    const context = canvas.getContext("2d");
    for (let i = 0; i < 200; i++) {
      if (context) context.fillStyle = `hsl(${i * 17} 60% ${30 + (i % 50)}%)`;
      context?.fillRect((i * 131) % 2900, (i * 97) % 1900, 300, 200);
    }
    const blob = await canvas.convertToBlob({ type: "image/png" });
    return [...new Uint8Array(await blob.arrayBuffer())];
  });
  await page
    .getByLabel("Photograph of Lift pump")
    .setInputFiles({ name: "pump.png", mimeType: "image/png", buffer: Buffer.from(picture) });
  await page.getByRole("button", { name: /^Enlarge Lift pump/ }).click();
  const full = page.getByRole("dialog").getByRole("img");
  await expect.poll(() => full.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(1600);
  await page.getByRole("dialog").getByRole("button", { name: "Close" }).click();

  await page.getByRole("button", { name: "Save the job as a file" }).click();
  const dialog = page.getByRole("dialog");
  await expect(dialog).toContainText("1 picture can go with it");
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    dialog.getByRole("button", { name: /^Save with pictures, / }).click(),
  ]);
  expect(download.suggestedFilename()).toBe("marram.keel.zip");
  const path = await download.path();
  await page.goto("/");
  await page.getByRole("button", { name: "Open a file…" }).click();
  await page.getByLabel("A .keel.json or .keel.zip file").setInputFiles({
    name: "marram.keel.zip",
    mimeType: "application/zip",
    buffer: readFileSync(path),
  });
  await page.getByRole("button", { name: "Keep both" }).click();
  await page.getByRole("link", { name: /Marram \(imported\)/ }).click();
  await page.getByRole("link", { name: /Install/ }).click();
  await page.locator("#keel").getByRole("button", { name: "Lift pump", exact: true }).click();
  await expect(page.getByRole("button", { name: /^Enlarge Lift pump/ }).getByRole("img")).toBeVisible();
});

test("everything is saved in one file and restored, asking before it replaces", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "Save or restore everything…" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("button", { name: "Put everything together" }).click();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    dialog.getByRole("button", { name: /^Save the file, \d+ kB/ }).click(),
  ]);
  await expect(page.getByText(/last saved in one file: never/)).toHaveCount(0);
  const path = await download.path();
  await page.getByRole("button", { name: "Delete Unit 12" }).click();
  await expect(page.getByRole("link", { name: /^Unit 12 Road/ })).toHaveCount(0);
  await page.getByRole("button", { name: "Save or restore everything…" }).click();
  await dialog.getByLabel(/^Restore from/).setInputFiles(path);
  await expect(dialog.getByRole("alert")).toContainText("Marram");
  await dialog.getByRole("button", { name: "Restore", exact: true }).click();
  await expect(page.getByRole("link", { name: /^Unit 12 Road/ })).toBeVisible();
});

test("a job that stops parsing under the open page is set aside and offered as a file", async ({ page }) => {
  const faults = faultsOf(page);
  await openMarram(page, "parts");
  const doc = JSON.parse(await storedJob(page, "marram"));
  await spoil(page, "documents", "marram", { doc: { ...doc, tanks: "gone" } });
  await spoil(page, "records", "marram", { stamp: "other" });
  await page.getByRole("button", { name: /Units/ }).click();
  await expect(page.getByText(/could not be read|can no longer be read/).first()).toBeVisible();
  await page.goto("/job/marram/parts");
  await expect(page.getByText(/could not be read|not in this browser/)).toBeVisible();
  await page.goto("/");
  await expect(page.getByRole("link", { name: /^Marram 10/ })).toHaveCount(0);
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save what there is" }).click(),
  ]);
  expect(JSON.parse(readFileSync(await download.path(), "utf8"))).toMatchObject({ job: { tanks: "gone" } });
  expect(faults.filter((text) => !text.includes("404"))).toEqual([]);
});

test("the browser's data deleted under an open job: it says so, and what the page still holds is offered as a file", async ({
  page,
  context,
}) => {
  await openMarram(page, "survey?part=fuel");
  await fill(page.getByRole("textbox", { name: "Altitude" }), "120 m");
  await expect(page.getByRole("button", { name: "Undo" })).toBeEnabled();
  const session = await context.newCDPSession(page);
  await session.send("Storage.clearDataForOrigin", {
    origin: new URL(page.url()).origin,
    storageTypes: "indexeddb",
  });
  await page.getByRole("textbox", { name: "Altitude" }).fill("300 m");
  await page.getByRole("textbox", { name: "Altitude" }).press("Enter");
  const save = page.getByRole("button", { name: /Save (what this page still shows as a file|the file)/ });
  const [download] = await Promise.all([page.waitForEvent("download"), save.first().click()]);
  expect(JSON.parse(readFileSync(await download.path(), "utf8"))).toMatchObject({
    job: { name: "Marram", site: { altitudeM: 120 } },
  });
});

test("a job of a newer version is shown, not opened, and stays as it is", async ({ page }) => {
  await page.goto("/");
  await spoil(page, "records", "marram", { version: 9 });
  const before = await storedJob(page, "marram");
  await page.reload();
  await expect(page.getByText("Written by a newer version of this application")).toBeVisible();
  await page.goto("/job/marram/layout");
  await expect(page.getByText("written by a newer version of this application")).toBeVisible();
  expect(await storedJob(page, "marram")).toBe(before);
});

test("undo in one tab leaves the other's change alone, and asks where it changed the same", async ({
  page,
  context,
}) => {
  await openMarram(page, "survey?part=fuel");
  const other = await context.newPage();
  await other.goto("/job/marram/survey?part=fuel");
  await expect(other.getByRole("heading", { level: 1, name: "Marram" })).toBeVisible();
  await fill(page.getByRole("textbox", { name: "Altitude" }), "120 m");
  await expect(other.getByRole("textbox", { name: "Altitude" })).toHaveValue("120 m");
  await fill(other.getByRole("textbox", { name: "Altitude" }), "300 m");
  await expect(page.getByRole("textbox", { name: "Altitude" })).toHaveValue("300 m");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText(/Another tab has since changed the same/)).toBeVisible();
  await page.getByRole("button", { name: "Undo both" }).click();
  await expect(page.getByRole("textbox", { name: "Altitude" })).not.toHaveValue(/00 m|120 m/);
});

test("the server says what a page may do, and a session asks no other host for anything", async ({
  page,
  request,
  baseURL,
}) => {
  const asked: string[] = [];
  page.context().on("request", (one) => asked.push(one.url()));
  const faults = faultsOf(page);
  await openMarram(page, "prove");
  await expect(page.getByRole("cell", { name: /\d+ of 125/ }).first()).toBeVisible();
  await page.getByRole("link", { name: /Lay out/ }).click();
  await expect(page.locator("svg[data-drawing]").first()).toBeVisible();
  expect(faults).toEqual([]);
  const hosts = new Set(asked.filter((url) => /^\w+:\/\//.test(url)).map((url) => new URL(url).origin));
  expect([...hosts].filter((origin) => origin !== baseURL && origin !== "null")).toEqual([]);

  for (const path of ["/", "/job/marram/layout", "/shell.html", "/nowhere", "/health", "/keel.svg"]) {
    const headers = (await request.get(path)).headers();
    const policy = headers["content-security-policy"] ?? "";
    expect(policy, path).toContain("default-src 'none'");
    expect(policy, path).toContain("frame-ancestors 'none'");
    expect(policy, path).not.toMatch(/script-src[^;]*'unsafe|https?:|\*/);
    expect(headers["x-content-type-options"], path).toBe("nosniff");
    expect(headers["referrer-policy"], path).toBe("no-referrer");
    expect(headers["permissions-policy"], path).toContain("geolocation=()");
  }
  expect((await request.fetch("/", { method: "TRACE" })).status()).toBe(405);
  expect((await request.fetch("/", { method: "DELETE" })).status()).toBe(405);
});

test("a job opens where it was left, and the Keel keeps the height it was given there", async ({ page }) => {
  await openDemo(page, "unit12", "parts");
  await expect(page.locator("#keel svg[role=img]")).toHaveCount(0);
  await page.getByRole("button", { name: "Make the Keel low" }).click();
  await expect(page.locator("#keel svg[role=img]")).toBeVisible();
  await page.goto("/");
  await page.getByRole("link", { name: /^Unit 12 Road/ }).click();
  await expect(page).toHaveURL(/\/job\/unit12\/parts$/);
  await expect(page.locator("#keel svg[role=img]")).toBeVisible();
  // Another place has a height of its own, and another job a place.
  await page.goto("/job/unit12/survey");
  await expect(page.getByRole("button", { name: "Make the Keel low" })).toBeVisible();
  await page.goto("/job/marram");
  await expect(page).toHaveURL(/\/job\/marram\/survey$/);
});

test("among many jobs one is sought by its words and sorted by what is due", async ({ page }) => {
  await page.goto("/");
  for (let i = 0; i < 3; i++)
    await page.getByRole("button", { name: "Duplicate Marram", exact: true }).click();
  await expect(page.getByRole("listitem").filter({ hasText: "Changed" })).toHaveCount(6);
  const rows = page.getByRole("list", { name: "Jobs" }).getByRole("listitem");
  const sought = page.getByRole("searchbox", { name: "Find among 6 jobs" });
  await sought.fill("gritting TRUCK");
  await expect(rows).toHaveCount(1);
  await expect(rows.first()).toContainText("Unit 12");
  await sought.fill("nothing like it");
  await expect(page.getByText("No job has these words.")).toBeVisible();
  await sought.press("Escape");
  await expect(rows).toHaveCount(6);
  await choose(page, "keyboard", /Sorted/, "by name");
  await expect(rows.first()).toContainText("Marram");
  await choose(page, "mouse", /Sorted/, "worst first");
  await expect(rows.last()).toContainText("Unit 12");
  // What was done last is told on the row.
  await page.goto("/job/unit12/fit");
  await page.getByRole("button", { name: /^Units: metric/ }).click();
  await expect(page.getByRole("button", { name: /^Units: inch/ })).toBeVisible();
  await page.goto("/");
  await expect(rows.first()).toContainText("the job's own figures", { timeout: 20_000 });
  await expectAccessible(page, "main");
});

test("a job that was changed on two devices: each difference is taken from one side, and undone in one step", async ({
  page,
}) => {
  await openDemo(page, "marram");
  const here = JSON.parse(await storedJob(page, "marram")) as Job;
  const there = structuredClone(here);
  const lift = there.plans[0]!.parts.find(({ id }) => id === "lift")!;
  Object.assign(lift, { name: "Pump of the other phone", boreM: 0.0125 });
  await page.goto("/");
  await page.getByRole("button", { name: "Open a file…" }).click();
  await page.getByLabel("A .keel.json or .keel.zip file").setInputFiles({
    name: "x.keel.json",
    mimeType: "application/json",
    buffer: Buffer.from(writeJobFile({ job: there, book: [], snapshots: {} })),
  });
  await page.getByRole("button", { name: "Compare and choose" }).click();
  const dialog = page.getByRole("dialog");
  await expect(dialog).toContainText("2 differences");
  await expectAccessible(page, "[role=dialog]");
  await dialog
    .getByRole("group", { name: /name$/ })
    .getByRole("button", { name: /^In the file/ })
    .click();
  await dialog.getByRole("button", { name: "Keep: 1 as here, 1 as in the file" }).click();
  await expect(dialog).toHaveCount(0);
  const liftNow = async () =>
    (JSON.parse(await storedJob(page, "marram")) as Job).plans[0]!.parts.find(({ id }) => id === "lift")!;
  const was = here.plans[0]!.parts.find(({ id }) => id === "lift")!;
  expect(await liftNow()).toMatchObject({ name: "Pump of the other phone", boreM: was.boreM });
  await openDemo(page, "marram");
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await expect.poll(liftNow).toMatchObject({ name: was.name });
});

test("a job goes over to another device by the shop's shelf, under a name of its own", async ({
  page,
  browser,
}) => {
  await openDemo(page, "van");
  await page.keyboard.press("s");
  const word = page.getByLabel(/The shelf's word/);
  await word.fill("AAAA-AAAA");
  await page.getByRole("button", { name: "Put it on the shelf" }).click();
  await expect(page.getByText(/not the shelf's word/)).toBeVisible();
  await word.fill(SHELF_WORD);
  await page.getByRole("button", { name: "Put it on the shelf" }).click();
  await expect(page.getByText(/is on the shop's shelf/)).toBeVisible();
  // A second time it is asked whether the first may go.
  await page.keyboard.press("s");
  await page.getByRole("button", { name: "Put it on the shelf" }).click();
  await page.getByRole("button", { name: "Replace it on the shelf" }).click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  const other = await (await browser.newContext({ storageState: SEEDED })).newPage();
  await other.goto("/");
  await other.getByRole("button", { name: "Open a file…" }).click();
  const shelf = other.getByRole("region", { name: "On the shop's shelf" });
  await shelf.getByRole("button", { name: /Reading van.*kB/i }).click();
  await other.getByRole("button", { name: "Keep both" }).click();
  await expect(other.getByRole("link", { name: /Reading van.* \(imported\)/i })).toBeVisible();
  // With the word from the photographed square, the file is taken off again.
  await other.goto(`/#shelf=${SHELF_WORD}`);
  await other.getByRole("button", { name: "Open a file…" }).click();
  await shelf.getByRole("button", { name: /^Take .* off the shelf$/ }).click();
  await shelf.getByRole("button", { name: /^Take .* off the shelf$/ }).click();
  await expect(shelf.getByText("Nothing is on it.")).toBeVisible();
  await other.context().close();
});
