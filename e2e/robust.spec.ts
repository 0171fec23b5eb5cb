import { spawn } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { openMarram, saveFile, storedJob } from "./helpers";
import { expect, faultsOf, type Page, test } from "./test";

const good = readFileSync("demo/marram.keel.json", "utf8");
type Json = Record<string, unknown>;

/** The demo job with one thing done to it. */
function spoiled(
  change: (job: Json & { plans: (Json & { runs: Json[]; joints: Json[] })[] }) => void,
): string {
  const file = JSON.parse(good) as { job: never };
  change(file.job);
  return JSON.stringify(file);
}
const firstRun = (job: { plans: { runs: Json[] }[] }) => job.plans[0]?.runs[0] as Json;

const bad: [string, string, RegExp][] = [
  ["not JSON", "{ nearly", /is not JSON/],
  ["newer version", good.replace(/"version": \d+/, '"version": 7'), /is of version 7/],
  ["unknown key", spoiled((job) => Object.assign(job, { colour: "red" })), /job\.colour.*is not a field/],
  ["NaN", good.replace(/"boreM": 0\.0127/, '"boreM": NaN'), /is not JSON/],
  ["1e999", good.replace(/"boreM": 0\.0127/, '"boreM": 1e999'), /boreM.*must be/],
  [
    "null for a number",
    spoiled((job) => Object.assign(firstRun(job), { boreM: null })),
    /runs\[0\]\.boreM.*finite number/,
  ],
  [
    "text for a number",
    spoiled((job) => Object.assign(firstRun(job), { boreM: "NaN" })),
    /runs\[0\]\.boreM.*finite number/,
  ],
  [
    "negative bore",
    spoiled((job) => Object.assign(firstRun(job), { boreM: -0.01 })),
    /runs\[0\]\.boreM.*at least 0\.0005/,
  ],
  [
    "a missing port",
    spoiled((job) => Object.assign(firstRun(job), { to: { part: "supply", port: "nine" } })),
    /runs\[0\]\.to.*supply\.nine is not there/,
  ],
  [
    "two runs on one port",
    spoiled((job) => Object.assign(job.plans[0]?.runs[1] as Json, { to: firstRun(job).to })),
    /is taken by/,
  ],
  [
    "runs of no length",
    spoiled((job) =>
      Object.assign(firstRun(job), { route: { kind: "measured", lengthM: 0, bends: [], extremes: [] } }),
    ),
    /lengthM.*greater than zero/,
  ],
];

async function offer(page: Page, text: string): Promise<void> {
  await page.getByRole("button", { name: "Open a file…" }).click();
  await page
    .getByLabel("A .keel.json or .keel.zip file")
    .setInputFiles({ name: "x.keel.json", mimeType: "application/json", buffer: Buffer.from(text) });
}

test("a bad file is refused with its place, and nothing stored changes", async ({ page }) => {
  test.slow();
  await page.goto("/");
  const before = await storedJob(page, "marram");
  await page.getByRole("button", { name: "Open a file…" }).click();
  for (const [what, text, says] of bad) {
    await test.step(what, async () => {
      await page
        .getByLabel("A .keel.json or .keel.zip file")
        .setInputFiles({ name: "x.keel.json", mimeType: "application/json", buffer: Buffer.from(text) });
      await expect(page.getByRole("alert")).toContainText(says);
    });
  }
  expect(await storedJob(page, "marram")).toBe(before);
});

test("names with markup stay names", async ({ page }) => {
  const name = "<img src=x onerror=document.title='pwned'>";
  await page.goto("/");
  await offer(
    page,
    spoiled((job) => Object.assign(job, { id: "markup", name })),
  );
  await page
    .getByRole("link", { name: new RegExp("onerror") })
    .first()
    .click();
  await expect(page.getByRole("heading", { level: 1, name })).toBeVisible();
  await expect(page).not.toHaveTitle("pwned");
});

test("a job that is here already is replaced or kept beside, as asked", async ({ page }) => {
  await page.goto("/");
  await offer(page, good);
  await expect(page.getByText("Marram is here already.")).toBeVisible();
  await page.getByRole("button", { name: "Keep both" }).click();
  await expect(page.getByRole("link", { name: /Marram \(imported\)/ }).first()).toBeVisible();
});

test("jobs are duplicated, renamed, deleted and brought back", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "Duplicate Marram" }).click();
  await page
    .getByRole("link", { name: /Marram copy/ })
    .first()
    .click();
  await page.getByRole("tab", { name: "Fuel and site" }).click();
  await page.getByLabel("Job", { exact: true }).fill("Second tender");
  await page.getByLabel("Job", { exact: true }).press("Enter");
  await expect(page.getByRole("heading", { level: 1, name: "Second tender" })).toBeVisible();
  await page.goto("/");
  await page.getByRole("button", { name: "Delete Second tender" }).click();
  await expect(page.getByRole("link", { name: /Second tender/ })).toHaveCount(0);
  await page.getByRole("button", { name: "Bring it back" }).click();
  await expect(page.getByRole("link", { name: /Second tender/ }).first()).toBeVisible();
});

test("the same job in two tabs loses nothing", async ({ page, context }) => {
  await openMarram(page, "survey?part=fuel");
  const other = await context.newPage();
  await other.goto("/job/marram/survey?part=fuel");
  await expect(other.getByRole("heading", { level: 1, name: "Marram" })).toBeVisible();
  await page.getByRole("textbox", { name: "Altitude" }).fill("120 m");
  await page.getByRole("textbox", { name: "Altitude" }).press("Enter");
  await other.getByRole("textbox", { name: "Coldest" }).fill("-9 C");
  await other.getByRole("textbox", { name: "Coldest" }).press("Enter");
  await expect(page.getByRole("textbox", { name: "Coldest" })).toHaveValue("−9 °C");
  await expect(other.getByRole("textbox", { name: "Altitude" })).toHaveValue("120 m");
  // What is being typed stays while the other stores another figure of the same field.
  await page.getByRole("textbox", { name: "Altitude" }).fill("500 m");
  await other.getByRole("textbox", { name: "Altitude" }).fill("300 m");
  await other.getByRole("textbox", { name: "Altitude" }).press("Enter");
  await other.getByRole("textbox", { name: "Coldest" }).fill("-8 C");
  await other.getByRole("textbox", { name: "Coldest" }).press("Enter");
  await expect(page.getByRole("textbox", { name: "Coldest" })).toHaveValue("−8 °C");
  await page.getByRole("textbox", { name: "Altitude" }).press("Enter");
  await expect(other.getByRole("textbox", { name: "Altitude" })).toHaveValue("500 m");
});

test("edits can be undone one by one, after a reload too", async ({ page }) => {
  await openMarram(page, "install");
  const before = await storedJob(page, "marram");
  await page.locator("#keel").getByRole("button", { name: "Lift pump", exact: true }).click();
  const toggle = page.getByRole("switch", { name: /On in/ });
  for (let i = 0; i < 12; i++) {
    const was = await toggle.isChecked();
    await toggle.focus();
    await page.keyboard.press("Space");
    await expect(toggle).toBeChecked({ checked: !was });
  }
  await page.reload();
  await expect(page.getByRole("heading", { level: 1, name: "Marram" })).toBeVisible();
  const undo = page.getByRole("button", { name: "Undo", exact: true });
  for (let i = 0; i < 12; i++) await undo.click();
  await expect(undo).toBeDisabled();
  expect(await storedJob(page, "marram")).toBe(before);
});

const broken: [string, RegExp, () => void][] = [
  [
    "full",
    /storage or the disk is full/,
    () => {
      IDBObjectStore.prototype.put = () => {
        throw new DOMException("no room", "QuotaExceededError");
      };
    },
  ],
  [
    "closed",
    /storage (is closed|does not answer)/,
    () => {
      const closed = () => {
        throw new DOMException("closed", "InvalidStateError");
      };
      Object.assign(IDBObjectStore.prototype, {
        put: closed,
        get: closed,
        getAll: closed,
        openCursor: closed,
      });
    },
  ],
];

for (const [what, says, spoil] of broken) {
  test(`storage that is ${what} says so, and the job still comes out as a file`, async ({ page }) => {
    await openMarram(page, "layout");
    const before = await storedJob(page, "marram");
    await page.evaluate(spoil);
    await page.getByRole("button", { name: "Add tank" }).click();
    await expect(page.getByText(says)).toBeVisible({ timeout: 15_000 });
    const [download] = await Promise.all([
      page.waitForEvent("download", { timeout: 20_000 }),
      page.getByRole("button", { name: "Save the file" }).click(),
    ]);
    expect(JSON.parse(readFileSync(await download.path(), "utf8")).job).toEqual(JSON.parse(before));
    if (what === "closed") await expect(page.getByText("holds the job without its log")).toBeVisible();
  });
}

test("a worker that dies is started anew and the result comes", async ({ page }) => {
  await page.addInitScript(() => {
    const Real = window.Worker;
    let deaths = 0;
    window.Worker = class extends Real {
      constructor(url: string | URL, options?: WorkerOptions) {
        super(url, options);
        if (String(url).includes("keel.worker") && deaths++ === 0) {
          setTimeout(() => this.dispatchEvent(new Event("error")), 5);
          this.postMessage = () => undefined;
        }
      }
    } as typeof Worker;
  });
  await openMarram(page, "prove");
  await expect(page.getByRole("cell", { name: /\d+ of 125/ }).first()).toBeVisible();
});

test.describe("without network", () => {
  test.use({ keepsOffline: true });

  test("after one visit it opens with the server stopped, on a place never visited, and keeps edits", async ({
    browser,
  }) => {
    const port = Number(process.env.E2E_PORT ?? 4173) + 26;
    const server = spawn("node", ["scripts/serve.mjs"], {
      env: { ...process.env, PORT: String(port), NODE_ENV: "production", IRON_KEEL_DEMO: "1" },
      detached: true,
    });
    const stop = () => {
      try {
        if (server.pid) process.kill(-server.pid, "SIGKILL");
      } catch {
        // Already gone.
      }
    };
    try {
      const address = `http://localhost:${port}`;
      await expect
        .poll(
          () =>
            fetch(`${address}/health`).then(
              (answer) => answer.ok,
              () => false,
            ),
          { timeout: 15_000 },
        )
        .toBe(true);
      const context = await browser.newContext({ baseURL: address });
      const page = await context.newPage();
      await page.goto("/");
      await expect(page.getByRole("link", { name: /^Marram 10/ })).toBeVisible();
      await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
      await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
      stop();
      await expect
        .poll(() =>
          fetch(`${address}/health`).then(
            () => true,
            () => false,
          ),
        )
        .toBe(false);

      const faults = faultsOf(page);
      await page.goto("/nowhere/at-all");
      await expect(page.getByText("There is nothing at this address.")).toBeVisible();
      expect(faults.filter((text) => !/404|ERR_/.test(text))).toEqual([]);

      await page.goto("/job/marram/layout");
      await expect(
        page.getByRole("region", { name: "Plumbing" }).getByRole("button", { name: /^Return manifold/ }),
      ).toBeVisible();
      const before = await storedJob(page, "marram");

      await page
        .getByRole("region", { name: "Plumbing" })
        .getByRole("button", { name: /^Port tank valve/ })
        .click({ force: true });
      await page.getByRole("button", { name: "shut", exact: true }).click();
      await expect(page.getByText("no way from a tank").first()).toBeVisible();
      await page.reload();
      await page.getByRole("button", { name: "Undo" }).click();
      await expect(page.getByText("fed 210 L/h").first()).toBeVisible();
      expect(await storedJob(page, "marram")).toBe(before);

      await page.goto("/");
      const download = await saveFile(page, "mouse", "Marram");
      const saved = test.info().outputPath("marram.keel.json");
      writeFileSync(saved, readFileSync(await download.path()));
      await page.getByRole("button", { name: "Delete Marram" }).click();
      await expect(page.getByRole("link", { name: /^Marram 10/ })).toHaveCount(0);
      await page.getByRole("button", { name: "Open a file…" }).click();
      await page.getByLabel("A .keel.json or .keel.zip file").setInputFiles(saved);
      await expect(page.getByRole("link", { name: /^Marram 10/ })).toBeVisible();
      expect(await storedJob(page, "marram")).toBe(before);
      await context.close();
    } finally {
      stop();
    }
  });
});
