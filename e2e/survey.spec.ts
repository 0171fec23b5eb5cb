import { readFileSync } from "node:fs";
import { choose, fill, openMarram, setSlider, storedJob } from "./helpers";
import { expect, expectAccessible, type Page, test } from "./test";

const section = (page: Page) => page.getByRole("group", { name: "Port wing, section looking forward" });
const capacity = (page: Page) => page.getByRole("definition").first();
const panel = (page: Page, name: string) => page.getByRole("tab", { name, exact: true }).click();
const portWing = async (page: Page) =>
  (
    JSON.parse(await storedJob(page, "marram")) as {
      tanks: { shape: { section: [number, number][] }; opening?: unknown }[];
    }
  ).tanks[0];

test("a corner dragged changes the tank as it is let go, and undo puts it back", async ({ page }) => {
  await openMarram(page, "survey");
  await expect(capacity(page)).toHaveText("340 L");
  const corner = section(page).getByRole("button", { name: /^Corner 3:/ });
  const box = await corner.boundingBox();
  if (!box) throw new Error("no corner");
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x - 20, y + 3, { steps: 8 });
  await expect(section(page).getByText(/mm$/).first()).toBeVisible();
  await page.mouse.up();
  await expect(capacity(page)).not.toHaveText("340 L");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(capacity(page)).toHaveText("340 L");
});

test("by keyboard alone: a corner moved by a millimetre, a length typed, the tank tilted until its return is wet", async ({
  page,
}) => {
  await openMarram(page, "survey");
  const before = (await portWing(page))?.shape.section[2]?.[1] ?? 0;
  await section(page)
    .getByRole("button", { name: /^Corner 3:/ })
    .focus();
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("ArrowUp");
  await expect.poll(async () => (await portWing(page))?.shape.section[2]?.[1]).toBeCloseTo(before + 0.002, 9);
  await fill(page.getByRole("textbox", { name: "3 across" }), "26 in");
  await expect.poll(async () => (await portWing(page))?.shape.section[2]?.[0]).toBeCloseTo(26 * 0.0254, 9);
  await expect(section(page).getByText("return, dry")).toBeVisible();
  await setSlider(page, "Aboard", "ArrowRight", 60);
  await expect(section(page).getByText("return, wet")).toBeVisible();
  await setSlider(page, "Pitch", "ArrowLeft", 40);
  await expect(page.getByText("−20°").first()).toBeVisible();
  await page.getByRole("button", { name: "Stand it level" }).press("Enter");
  await expect(page.getByRole("button", { name: "Stand it level" })).toHaveCount(0);
});

test("a shape that cannot be is refused with its reason, and nothing stored changes", async ({ page }) => {
  await openMarram(page, "survey");
  const before = await storedJob(page, "marram");
  await fill(page.getByRole("textbox", { name: "Length", exact: true }), "40 m");
  await expect(page.getByText(/was a size typed in another unit/)).toBeVisible();
  await section(page)
    .getByRole("button", { name: /^Corner 3:/ })
    .focus();
  await fill(page.getByRole("textbox", { name: "3 across" }), "-900 mm");
  await expect(page.getByText(/crosses itself/)).toBeVisible();
  await fill(page.getByRole("textbox", { name: "Wall, if sizes are outside" }), "400 mm");
  await expect(page.getByText(/no inside is left|at most/)).toBeVisible();
  expect(await storedJob(page, "marram")).toBe(before);
});

test("a plate's figure far from the shape is a finding", async ({ page }) => {
  await openMarram(page, "survey");
  await fill(page.getByRole("textbox", { name: "Capacity on its plate" }), "260 L");
  await expect(
    page.getByRole("button", { name: /Port wing measures 340 L, its plate says 260 L/ }),
  ).toBeVisible();
});

test("every kind of shape is drawn, in three dimensions too", async ({ page }) => {
  const faults: string[] = [];
  page.on("pageerror", (error) => faults.push(String(error)));
  await openMarram(page, "survey");
  await page.getByRole("button", { name: "3-D" }).click();
  for (const shape of [
    "Box",
    "Lying, fore and aft",
    "Lying, across",
    "Standing cylinder",
    "Through sections",
  ]) {
    await choose(page, "mouse", /Shape/, shape);
    await expect(page.getByRole("button", { name: /Shape/ })).toContainText(shape);
    await expect(page.getByRole("img", { name: "Port wing in three dimensions" })).toBeVisible();
  }
  await page.getByRole("button", { name: "Plan", exact: true }).click();
  await expect(page.getByRole("img", { name: "Port wing from above" })).toBeVisible();
  expect(faults).toEqual([]);
});

test("dips: the table goes out as CSV, readings come back from one, and a bad file changes nothing", async ({
  page,
}) => {
  await openMarram(page, "survey");
  await panel(page, "Dip");
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "CSV", exact: true }).click(),
  ]);
  const text = readFileSync(await download.path(), "utf8");
  expect(text.split("\r\n")[0]).toBe("depth mm,volume L");
  expect(text.trim().split("\r\n").at(-1)).toMatch(/^620,339\.\d+$/);
  const before = await storedJob(page, "marram");
  const file = (content: string) => ({
    name: "dips.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(content),
  });
  await page.getByLabel("CSV of dips").setInputFiles(file("depth\ndeep"));
  await expect(page.getByText(/line 2: .*deep/)).toBeVisible();
  expect(await storedJob(page, "marram")).toBe(before);
  await page.getByLabel("CSV of dips").setInputFiles(file("depth,at\n200 mm,2026-06-01\n8 in,2026-06-02"));
  await expect(page.getByText("2 dips entered.")).toBeVisible();
  await expect(page.getByRole("cell", { name: "2 Jun 2026", exact: true })).toBeVisible();
  await page.getByRole("link", { name: "Dip card" }).click();
  await expect(page.getByRole("heading", { name: "Marram, Port wing: dip table" })).toBeVisible();
});

test("the pickup's map holds the tank at an attitude, and the fuel left follows", async ({ page }) => {
  await openMarram(page, "survey");
  await panel(page, "Pickup");
  await expect(page.getByText("Fuel left when the supply comes clear")).toBeVisible();
  await page
    .getByRole("img", { name: /Dead fuel over pitch and roll/ })
    .click({ position: { x: 80, y: 200 } });
  await expect(page.getByRole("button", { name: "Stand it level" })).toBeVisible();
  await expect(page.getByRole("cell", { name: "with a sump" })).toBeVisible();
});

test("a hole moved by the arrow keys until it cannot be cut", async ({ page }) => {
  await openMarram(page, "survey");
  await page
    .getByRole("button", { name: /^Day tank/ })
    .first()
    .click();
  await panel(page, "Opening");
  const hole = page.getByRole("button", { name: /^spare: a 200 mm/ });
  await hole.focus();
  for (let i = 0; i < 9; i++) await page.keyboard.press("Shift+ArrowRight");
  await expect(page.getByRole("button", { name: /^spare: a 290 mm.*cannot be cut as drawn/ })).toBeVisible();
  await expect(
    page.getByRole("button", { name: /Day tank, spare hole: .* too near the plate's edge/ }),
  ).toBeVisible();
});

test("every panel of a tank has no accessibility fault", async ({ page }) => {
  test.slow();
  await openMarram(page, "survey");
  for (const name of ["Dip", "Pickup", "Return", "Vent", "Opening", "Condition", "Weight"]) {
    await panel(page, name);
    await page.waitForTimeout(300);
    await expectAccessible(page, "#place");
  }
});

test("the report is a PDF with every tank", async ({ page }) => {
  await openMarram(page, "survey?part=report");
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Survey report, PDF" }).click(),
  ]);
  const bytes = readFileSync(await download.path());
  expect(bytes.subarray(0, 5).toString()).toBe("%PDF-");
  expect(bytes.length).toBeGreaterThan(5000);
});

test("a hose is read, and its finding goes when it is renewed", async ({ page }) => {
  await openMarram(page, "survey?part=hoses");
  await page.getByRole("button", { name: "Separator 2 to Separator tee out", exact: true }).click();
  await fill(
    page.getByRole("textbox", { name: "Printed on it, as it stands" }),
    "ISO 7840 A1 12.7 mm 03/2026",
  );
  await choose(page, "mouse", /To the hand/, "sound");
  await expect(page.getByRole("row", { name: /Separator 2 to Separator tee out.*Keep/ })).toBeVisible();
  await expect(page.getByRole("button", { name: /^Hose Separator 2/ })).toHaveCount(0);
});

test.describe("by touch, on a phone", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test("a sample is entered and judged", async ({ page }) => {
    await openMarram(page, "survey?part=samples");
    const card = page.getByRole("region", { name: "Sample of Day tank" });
    await card.getByRole("button", { name: "New sample" }).tap();
    await card.getByRole("button", { name: /Growth/ }).tap();
    await page.getByRole("option", { name: "specks" }).tap();
    await card.getByRole("button", { name: "Enter in the log" }).tap();
    await expect(card.getByRole("heading", { name: "Day tank: Growth" })).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true);
  });

  test("a corner is moved with a finger", async ({ page }) => {
    await openMarram(page, "survey");
    const corner = section(page).getByRole("button", { name: /^Corner 3:/ });
    await corner.scrollIntoViewIfNeeded();
    await corner.tap();
    await expect(page.getByRole("textbox", { name: "3 across" })).toBeVisible();
    await fill(page.getByRole("textbox", { name: "3 down from the top" }), "300 mm");
    await expect.poll(async () => (await portWing(page))?.shape.section[2]?.[1]).toBeCloseTo(0.32, 9);
  });
});

test("a tank's panel stands beside its drawing, under its own tabs", async ({ page }) => {
  await openMarram(page, "survey");
  const strip = page.getByRole("tablist", { name: "What is asked of Port wing" });
  const tabs = (await strip.boundingBox())!;
  const panel = (await page.getByRole("tabpanel").last().boundingBox())!;
  expect(panel.y).toBeGreaterThanOrEqual(tabs.y + tabs.height - 1);
  expect(panel.y).toBeLessThan(tabs.y + tabs.height + 24);
  expect(Math.abs(panel.x - tabs.x)).toBeLessThan(2);
});
