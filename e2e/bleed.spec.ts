import { openDemo, openMarram, press } from "./helpers";
import { expect, expectAccessible, test } from "./test";

test("a trainee bleeds Marram by the steps, spoils it, goes back, and sees the air fall", async ({
  page,
}) => {
  await openMarram(page, "bleed");
  await expect(page.getByText(/^Ends with under 0\.01 % of air/)).toBeVisible();
  await page.getByRole("button", { name: "Practise" }).click();
  await expect(page.getByText("of air left, 100 %", { exact: false })).toBeVisible();
  const place = page.locator("#place");
  for (let i = 0; i < 9; i++) await place.getByRole("button", { name: "Separator 1", exact: true }).click();
  await expect(page.getByText("of air left, 100 %", { exact: false })).toBeHidden();
  const left = await page.getByText(/of air left/).textContent();
  // The mistake: the jug where it only runs through, taken back by its own moment.
  await place.getByRole("button", { name: "Secondary", exact: true }).click();
  await page.getByRole("button", { name: /before: jug at Secondary/ }).click();
  await expect(page.getByText(/of air left/)).toHaveText(left ?? "");
  await page.getByRole("button", { name: "Lift pump, outlet joint: shut" }).click();
  await page.getByRole("button", { name: "+¼ turn" }).click();
  await page.getByRole("button", { name: "Press: Lift pump" }).click();
  await expect(page.getByRole("button", { name: "Lift pump runs" })).toBeVisible();
  // The key's cycle ends by itself.
  await expect(page.getByRole("button", { name: "Press: Lift pump" })).toBeVisible({ timeout: 15_000 });
  await expect(page.getByText(/of air left/)).not.toHaveText(left ?? "");
  await expectAccessible(page, "#place");
});

for (const hand of ["mouse", "keyboard"] as const)
  test(`by ${hand} a real bleed is ticked with what came, survives a reload, and begins anew`, async ({
    page,
  }) => {
    await openDemo(page, "unit12", "bleed");
    await expect(page.getByText(/^Ends with/)).toBeVisible();
    await press(page, hand, page.getByRole("button", { name: "For real" }));
    const now = page.locator('#place li[aria-current="step"]');
    await expect(now).toContainText("Separator, lid");
    await press(page, hand, page.getByRole("button", { name: "Opened" }));
    await press(page, hand, page.getByRole("button", { name: "Solid: shut" }));
    await expect(now).not.toContainText("Separator, lid");
    await page.reload();
    await press(page, hand, page.getByRole("button", { name: "For real" }));
    await expect(page.getByText(/^solid after \d+ s/)).toBeVisible();
    await press(page, hand, page.getByRole("button", { name: "Begin a new bleed" }));
    await expect(now).toContainText("Separator, lid");
  });

test("a filter that was changed has a short bleed of its own, and the card prints", async ({ page }) => {
  await openMarram(page, "bleed");
  await page.getByRole("button", { name: /The lines are/ }).click();
  await page.getByRole("option", { name: "Secondary just changed" }).click();
  const steps = page.getByRole("list", { name: "Steps of the bleed" });
  await expect(steps.getByText("Secondary, lid, half a turn")).toBeVisible();
  await expect(steps.getByText(/feed joint/)).toBeHidden();
  await page.getByRole("link", { name: "Bleed card" }).click();
  await expect(page.getByRole("cell", { name: /Engine, feed joint/ }).first()).toBeVisible();
});

for (const width of [390, 768])
  test(`at ${width} wide nothing hangs over, in all three modes`, async ({ page }) => {
    await page.setViewportSize({ width, height: 844 });
    await openDemo(page, "unit12", "bleed");
    for (const mode of ["Read", "Practise", "For real"]) {
      await page.getByRole("button", { name: mode, exact: true }).click();
      await expect(page.getByText(/^Ends with/)).toBeVisible();
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
      await expectAccessible(page, "#place");
    }
  });

test("a fault is hidden, guessed wrong, told, and the practice is kept in the log; the pan is measured", async ({
  page,
}) => {
  await openDemo(page, "unit12", "bleed");
  await page.getByRole("button", { name: "Practise" }).click();
  await page.getByRole("button", { name: "Hide a fault, and find it" }).click();
  const what = page.getByRole("button", { name: /Something is wrong/ });
  await expect(what).toBeVisible();
  await page.getByRole("button", { name: "Tell me" }).click();
  await expect(page.getByText(/^Right: /)).toBeVisible();
  await page.getByRole("button", { name: /^Frame pump, outlet joint/ }).click();
  await page.getByRole("button", { name: "+¼ turn" }).click();
  await page.getByRole("button", { name: /Press: Frame pump/ }).click();
  await expect(page.getByRole("button", { name: "Keep this practice in the log" })).toBeEnabled();
  await page.getByRole("button", { name: "Keep this practice in the log" }).click();
  await page.getByRole("button", { name: "For real" }).click();
  const pan = page.getByRole("textbox", { name: "Measured in the pan" });
  await pan.fill("500 mL");
  await pan.press("Enter");
  await expect(page.getByText(/^The plan says .* It is .* less\.$/)).toBeVisible();
});
