import { readFileSync } from "node:fs";
import { openMarram } from "./helpers";
import { expect, expectAccessible, test } from "./test";

test("a shop sees where the fuel, the filter and the reading stand, enters one, and takes the dates to its calendar", async ({
  page,
}) => {
  await openMarram(page, "care");
  await expect(page.getByText(/^Separator 1 stands at 1\.84 of 4 times clean; due between/)).toBeVisible();
  await expect(page.getByText(/as it should be$/)).toBeVisible();
  const due = page.getByRole("region", { name: "What is due" });
  await expect(due.getByText("15 Dec 2026")).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    due.getByRole("button", { name: "Calendar file" }).click(),
  ]);
  const text = readFileSync(await download.path(), "utf8");
  expect(text).toContain("UID:marram-elSep1-trend@iron-keel");
  expect(text).toContain("DTSTART;VALUE=DATE:20261215");
  const read = page.getByRole("textbox", { name: "Vacuum read" });
  await read.fill("18 kPa");
  await read.press("Enter");
  const hours = page.getByRole("textbox", { name: "Engine hours" });
  await hours.fill("412.5");
  await hours.press("Enter");
  await expect(hours).toHaveValue("412.5");
  await page.getByRole("button", { name: "Enter in the log" }).click();
  await expect(page.getByText(/more than the plan computes: look for the cause$/)).toBeVisible();
  await expectAccessible(page, "#place");
});

test("at 390 wide the three answers stand first and nothing hangs over", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await openMarram(page, "care");
  await expect(page.getByText(/^Separator 1 stands at/)).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});

test("by keys what is wrong is looked for: a reading, the next step, and a reading taken back", async ({
  page,
}) => {
  await openMarram(page, "care");
  await page.getByRole("button", { name: "Find what is wrong" }).press("Enter");
  const read = page.getByRole("textbox", { name: /Vacuum gauge, one side: the plan says/ });
  await read.fill("22 kPa");
  await read.press("Enter");
  await page.getByRole("button", { name: "Read", exact: true }).press("Enter");
  const suspects = page.getByRole("list", { name: "What it may be" });
  await expect(suspects.getByText("Separator 1 is loaded")).toBeVisible();
  await expectAccessible(page, "#place");
  await page.getByRole("button", { name: "Take it back" }).press("Enter");
  await expect(page.getByText("What is wrong? Say what is known, then read once.")).toBeVisible();
});

test("a customer is handed the document: whom it is for is asked once, parts are chosen, and it is saved", async ({
  page,
}) => {
  await openMarram(page, "care");
  const handOver = page.getByRole("region", { name: "Hand-over" });
  await handOver.getByRole("textbox", { name: "Owner" }).fill("The harbour trust");
  await page.keyboard.press("Enter");
  await handOver.getByLabel("On", { exact: true }).fill("2026-11-26");
  await handOver.locator("label").filter({ hasText: "How it is bled" }).click();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    handOver.getByRole("button", { name: "Document, A4" }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/hand-over-A4\.pdf$/);
  expect(
    readFileSync(await download.path())
      .subarray(0, 5)
      .toString(),
  ).toBe("%PDF-");
});

test.describe("by touch, on a phone", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });
  test("a hidden fault is looked for, and what it was is told", async ({ page }) => {
    await openMarram(page, "care");
    await page.getByRole("button", { name: "Find what is wrong" }).tap();
    await page.getByRole("button", { name: "Practise: a fault is hidden" }).tap();
    for (let i = 0; i < 3; i++) await page.getByRole("button", { name: "Do it" }).tap();
    await expect(page.getByText(/Something may be wrong: \d+ minutes spent/)).toBeVisible();
    await page.getByRole("button", { name: /^It is|say what it is/ }).tap();
    await page.getByRole("option", { name: "Nothing is wrong" }).tap();
    await expect(page.getByText(/You spent \d+ minutes/)).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  });
});

for (const width of [1280, 390])
  test(`what is done with foul fuel is held against each other, ${width} wide: a tank that stands still takes longer`, async ({
    page,
  }) => {
    await page.setViewportSize({ width, height: 844 });
    await openMarram(page, "care");
    await page.getByRole("button", { name: "Treat the fuel" }).click();
    const polish = page.getByRole("row", { name: /^Polish/ });
    const before = await polish.textContent();
    const still = page.getByRole("textbox", { name: "Of the tank stands still" });
    await still.fill("10");
    await still.press("Enter");
    await expect(polish).not.toHaveText(before ?? "");
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
    await expectAccessible(page, "#place");
  });
