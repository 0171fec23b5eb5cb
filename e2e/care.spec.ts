import { readFileSync } from "node:fs";
import { choose, fill, openDemo, openMarram, press } from "./helpers";
import { expect, expectAccessible, test } from "./test";

test("a shop sees where the fuel, the filter and the reading stand, enters one, and takes the dates to its calendar", async ({
  page,
}) => {
  await openMarram(page, "care");
  await expect(
    page.getByText(/^Separator 1: 10\.4 kPa read, 20 kPa is its limit; due between/),
  ).toBeVisible();
  await expect(page.getByText(/as it should be$/)).toBeVisible();
  await page.getByRole("tab", { name: "Service" }).click();
  const due = page.getByRole("region", { name: "What is due" });
  await expect(due.getByText("20 Dec 2026")).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    due.getByRole("button", { name: "Calendar file" }).click(),
  ]);
  const text = readFileSync(await download.path(), "utf8");
  expect(text).toContain("UID:marram-elSep1-trend@iron-keel");
  expect(text).toContain("DTSTART;VALUE=DATE:20261220");
  await page.getByRole("tab", { name: "Readings" }).click();
  const read = page.getByRole("textbox", { name: "Vacuum gauge, vacuum" });
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
  await expect(page.getByText(/^Separator 1: .* read, .* is its limit/)).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});

test("by keys what is wrong is looked for: a reading, the next step, and a reading taken back", async ({
  page,
}) => {
  await openMarram(page, "care");
  await page.getByRole("tab", { name: "Readings" }).focus();
  await page.keyboard.press("ArrowRight");
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

test("the suspects' own lines lie over the Keel, each by its name, and go with the search", async ({
  page,
}) => {
  await openMarram(page, "care");
  await page.getByRole("tab", { name: "Find what is wrong" }).click();
  const read = page.getByRole("textbox", { name: /the plan says/ }).first();
  await read.fill("14 kPa");
  await read.press("Enter");
  await page.getByRole("button", { name: "Read", exact: true }).click();
  const first = page.getByRole("list", { name: "What it may be" }).getByRole("listitem").first();
  await expect(first).toBeVisible();
  const name = (await first.locator("span").first().textContent()) ?? "";
  const keel = page.locator("#keel svg[role=img]");
  await expect(keel.getByText(name, { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Begin again" }).click();
  await expect(keel.getByText(name, { exact: true })).toHaveCount(0);
});

test("a customer is handed the document: whom it is for is asked once, parts are chosen, and it is saved", async ({
  page,
}) => {
  await openMarram(page, "care?part=handover");
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
    await page.getByRole("tab", { name: "Find what is wrong" }).tap();
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
    await page.getByRole("tab", { name: "Fuel" }).click();
    const polish = page.getByRole("row", { name: /^Polish/ });
    const before = await polish.textContent();
    const still = page.getByRole("textbox", { name: "Of the tank stands still" });
    await still.fill("10");
    await still.press("Enter");
    await expect(polish).not.toHaveText(before ?? "");
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
    await expectAccessible(page, "#place");
  });

test("a filter is changed by the card: minutes, what comes, its own bleed, and it is in the log", async ({
  page,
}) => {
  await openMarram(page, "care?part=service");
  const card = page.getByRole("region", { name: "Change a filter" });
  await expect(card.getByText(/under a quarter of an hour and nothing beside the cup/)).toBeVisible();
  await expect(card.getByText(/The engine runs on over the other filter/)).toBeVisible();
  const steps = card.getByRole("list", { name: "Steps of the change" }).getByRole("listitem");
  const order = async (...parts: string[]) => {
    const texts = await steps.allTextContents();
    const found = parts.map((part) => texts.findIndex((text) => text.includes(part)));
    expect(found.every((at) => at >= 0)).toBe(true);
    expect(found).toEqual([...found].sort((a, b) => a - b));
  };
  await order(
    "switch over",
    "cup under its drain",
    "spin the element off",
    "fill it by hand",
    "look for a leak",
  );
  // Alone behind the pump it stops the engine, and is bled by its own lid.
  await choose(page, "mouse", /Which$/, "Secondary");
  await expect(card.getByText(/The engine stands meanwhile/)).toBeVisible();
  await expect(card.getByText(/^Bled so, .* of air is left/)).toBeVisible();
  await order("stop the engine", "spin the element off", "Secondary, lid, half a turn", "look for a leak");
  await expectAccessible(page, "#place");
  const due = page.getByRole("region", { name: "What is due" });
  await due.getByRole("button", { name: /^Done: Separator 1: element/ }).click();
  await expect(page.getByRole("heading", { name: "How long elements lasted" })).toBeVisible();
  await expect(
    page.getByText(/^One taken out of the box: element for filter, 10 µm, 1 left\./),
  ).toBeVisible();
});

for (const hand of ["mouse", "keyboard"] as const)
  test(`fuel taken aboard, a particle code and an interval of the maker's are entered, by ${hand}`, async ({
    page,
  }) => {
    await openMarram(page, "care?part=fuel");
    await fill(page.getByRole("textbox", { name: "Fuel added" }), "180 L");
    await fill(page.getByRole("textbox", { name: "Where" }), "Fuel quay");
    await press(page, hand, page.getByRole("button", { name: "Enter in the log" }).first());
    await expect(page.getByRole("cell", { name: "Fuel quay" })).toBeVisible();
    const code = page.getByRole("textbox", { name: /^Code by ISO 4406/ });
    await fill(code, "22/20");
    await expect(page.getByRole("alert")).toHaveText(/Three whole numbers/);
    await fill(code, "21/19/16");
    await press(page, hand, page.getByRole("button", { name: "Enter in the log" }).last());
    await expect(page.getByRole("cell", { name: "21/19/16" })).toBeVisible();
    await page.getByRole("tab", { name: "Service" }).click();
    const due = page.getByRole("region", { name: "What is due" });
    await press(page, hand, due.getByRole("button", { name: /^How often: Separator 1: element/ }));
    const dialog = page.getByRole("dialog");
    await fill(dialog.getByRole("textbox", { name: "Every so many months" }), "6");
    await press(page, hand, dialog.getByRole("button", { name: "Keep it" }));
    await expect(due.getByText(/Every 6 months, by its maker/)).toBeVisible();
  });

test("a shop sees over all jobs what is due, and what each job's worst finding is", async ({ page }) => {
  await page.goto("/");
  const due = page.getByRole("region", { name: "What is due over all jobs" });
  await expect(due.getByRole("link", { name: /^Marram: Port wing: sample/ })).toBeVisible({
    timeout: 20_000,
  });
  await expect(
    page.getByText("Run on starboard returns to Port wing", { exact: false }).first(),
  ).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    due.getByRole("button", { name: /^Calendar of \d+ dates/ }).click(),
  ]);
  const text = readFileSync(await download.path(), "utf8");
  expect(text).toContain("UID:marram-elSep1-trend@iron-keel");
  expect(text.match(/BEGIN:VEVENT/g)?.length).toBeGreaterThan(5);
  await expectAccessible(page, "main");
});

test("the stand-in is heard, and its readings and a table's are entered; a table with a fault is not", async ({
  page,
}) => {
  await openDemo(page, "unit12", "care");
  const panel = page.getByRole("region", { name: "Readings from elsewhere" });
  await panel.getByRole("button", { name: "Listen to the stand-in" }).click();
  const came = panel.getByRole("list", { name: "What came" });
  await expect(came.getByText(/Pressure gauge: [3-9] readings, .*as it should be/)).toBeVisible();
  await panel.getByRole("button", { name: "Stop listening" }).click();
  await panel.getByRole("button", { name: /^Enter \d+ readings in the log/ }).click();
  await expect(page.getByRole("cell", { name: "Bed tank" }).first()).toBeVisible();
  const table = (last: string) => ({
    name: "log.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(
      `When,Vacuum gauge,Cabin\n2026-05-01T10:00:00Z,3.4,20\n2026-05-01T11:00:00Z,${last},21\n`,
    ),
  });
  const open = panel.locator('input[type="file"]');
  await open.setInputFiles(table("much"));
  await expect(panel.getByRole("alert")).toHaveText(/Row 3: 'Vacuum gauge: much' is no figure of it/);
  await expect(panel.getByRole("button", { name: /^Enter 0 readings/ })).toBeDisabled();
  await open.setInputFiles(table("3.6"));
  await expect(panel.getByText(/Left out, since this plan has no such instrument: Cabin/)).toBeVisible();
  await expectAccessible(page, "#place");
  await panel.getByRole("button", { name: "Enter 2 readings in the log" }).click();
  await expect(page.getByText("1 May 2026, 11:00").first()).toBeVisible();
});

test.describe("the owner, at sea", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });
  test("with no signal a reading is entered, and told what it means; the plan cannot be changed there", async ({
    page,
    context,
  }) => {
    await openMarram(page, "care?part=handover");
    await page.getByRole("link", { name: "The owner's page" }).tap();
    await expect(page.getByRole("heading", { level: 1, name: "Marram" })).toBeVisible();
    await context.setOffline(true);
    const read = page.getByRole("textbox", { name: "Vacuum gauge, vacuum" });
    await fill(read, "18 kPa");
    await expect(page.getByRole("status").filter({ hasText: /more than the plan computes/ })).toBeVisible();
    await page.getByRole("button", { name: "Enter in the log" }).first().tap();
    await expect(
      page.getByText(/^18 kPa on .*more than the plan computes: look for the cause$/),
    ).toBeVisible();
    await expect(page.getByRole("button", { name: /^How often/ })).toHaveCount(0);
    await expect(page.getByRole("navigation", { name: "Places" })).toHaveCount(0);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    await expectAccessible(page, "#place");
    await context.setOffline(false);
  });
});

test.describe("on a phone, with one thumb", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  test("a reading stands first, is typed by number keys and entered by one touch more", async ({ page }) => {
    await openMarram(page, "care");
    const dial = page.getByRole("textbox", { name: "Vacuum gauge, vacuum" });
    const [first, chart] = [await dial.boundingBox(), await page.locator("canvas").first().boundingBox()];
    expect(first!.y).toBeLessThan(chart!.y);
    await expect(dial).toHaveAttribute("inputmode", "decimal");
    const enter = page.getByRole("button", { name: "Enter in the log" });
    await enter.tap();
    await expect(page.getByText("Type what a dial reads first.")).toBeVisible();
    await dial.tap();
    await page.keyboard.type("9.4");
    await enter.tap();
    await expect(page.getByText("9.4 kPa").first()).toBeVisible();
    await expect(dial).toHaveValue("");
  });
});
