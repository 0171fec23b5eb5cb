import { readFileSync } from "node:fs";
import { openMarram } from "./helpers";
import { expect, expectAccessible, test } from "./test";

test("a part is dragged on its board: the Keel follows, a clash is told, and undo brings it back", async ({
  page,
}) => {
  await openMarram(page, "fit");
  const gauge = page.getByRole("button", { name: /^Vacuum gauge: .* from the left/ });
  const before = await gauge.getAttribute("aria-label");
  const keel = page.locator("#keel");
  const drawn = await keel.innerHTML();
  const box = (await gauge.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y - 70, { steps: 6 });
  await expect.poll(() => keel.innerHTML()).not.toBe(drawn);
  await page.mouse.up();
  await expect(gauge).not.toHaveAttribute("aria-label", before ?? "");
  await expectAccessible(page, "#place");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(gauge).toHaveAttribute("aria-label", before ?? "");
});

test("by keys a newcomer adds a board, hangs a part, moves and turns it, and prints its template", async ({
  page,
}) => {
  await openMarram(page, "fit");
  await page.getByRole("button", { name: "Add a board" }).press("Enter");
  await expect(page.getByText("Nothing hangs on it yet.")).toBeVisible();
  await page.getByRole("button", { name: /Hang a part/ }).press("Enter");
  await page.getByRole("option", { name: "Polish valve" }).press("Enter");
  const valve = page.getByRole("button", { name: /^Polish valve: .* from the left/ });
  await valve.focus();
  const before = await valve.getAttribute("aria-label");
  await page.keyboard.press("Shift+ArrowRight");
  await expect(valve).not.toHaveAttribute("aria-label", before ?? "");
  await page.keyboard.press("t");
  await expect(valve).toBeFocused();
  const saving = page.waitForEvent("download");
  await page.getByRole("button", { name: "DXF" }).press("Enter");
  const file = await (await saving).path();
  expect(readFileSync(file, "utf8")).toContain("CENTRES");
});

test("places are proposed, shown before they are taken, and hung with one step of undo", async ({ page }) => {
  // The search takes what the machine gives: seconds alone, a minute beside others.
  test.slow();
  await openMarram(page, "fit");
  await page.getByRole("button", { name: /^Separator 1: .* from the left/ }).focus();
  await page.getByRole("button", { name: "Unpin" }).click();
  await page.getByRole("button", { name: "Propose places" }).click();
  // What is found is offered while the search goes on.
  await expect(page.getByText(/(^Found|Best so far): all rules kept/)).toBeVisible({ timeout: 120_000 });
  await page.getByRole("button", { name: "Hang them so" }).click();
  await expect(page.getByText(/^Nothing clashes; every hose finds its way/)).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText(/^2 clashes/)).toBeVisible();
});

test("a hole is told, is not settled until somebody has looked behind it, and then is", async ({ page }) => {
  await openMarram(page, "fit");
  await page.getByRole("tab", { name: /Openings/ }).click();
  await page.getByRole("button", { name: "Add a hole" }).click();
  await page.getByRole("button", { name: /Another hose passes/ }).click();
  await page.getByRole("option", { name: "Port tank valve to Supply manifold" }).click();
  await expect(page.getByRole("heading", { name: "Hole 1: 24 mm saw" })).toBeVisible();
  await page.getByRole("button", { name: /Behind it lies/ }).click();
  await page.getByRole("option", { name: "nothing", exact: true }).click();
  await expect(page.getByText(/1 hole, all settled/)).toBeVisible();
  await expectAccessible(page, "#place");
});

test.describe("by touch, on a phone", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });
  test("the board fits the screen and a filter's change is read step by step", async ({ page }) => {
    await openMarram(page, "fit");
    await page.getByRole("button", { name: /^Separator 2: .* from the left/ }).tap();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    await page.getByRole("tab", { name: "Reach and lifting" }).tap();
    await expect(page.getByRole("heading", { name: /Separator 1/ })).toBeVisible();
    await page
      .locator("#place summary")
      .filter({ hasText: /^\d+ steps/ })
      .first()
      .tap();
    await expect(page.getByText(/cup under its drain/).first()).toBeVisible();
  });

  test("a newcomer adds a board, hangs a part, turns it, and prints its template", async ({ page }) => {
    await openMarram(page, "fit");
    await page.getByRole("button", { name: "Add a board" }).tap();
    await page.getByRole("button", { name: /Hang a part/ }).tap();
    await page.getByRole("option", { name: "Polish valve" }).tap();
    const valve = page.getByRole("button", { name: /^Polish valve: .* from the left/ });
    await valve.tap();
    await page.getByRole("button", { name: "Turn", exact: true }).tap();
    await page.getByRole("button", { name: "Pin", exact: true }).tap();
    await expect(valve).toHaveAttribute("aria-label", /, pinned;/);
    await page.getByRole("button", { name: /Its handle stands out farthest at/ }).tap();
    await page.getByRole("option", { name: "shut", exact: true }).tap();
    const by = page.getByRole("textbox", { name: "By, from the board" });
    await by.fill("300 mm");
    await by.press("Enter");
    await expect(
      page.getByText(/^Polish valve at 'shut': its handle stands .* which does not close/),
    ).toBeVisible();
    const saving = page.waitForEvent("download");
    await page.getByRole("button", { name: "DXF" }).tap();
    expect((await saving).suggestedFilename()).toMatch(/dxf$/);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  });
});
