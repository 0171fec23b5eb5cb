import { openDemo, openMarram, press } from "./helpers";
import { expect, expectAccessible, test } from "./test";

test("a trainee bleeds Marram from dry by the steps, spoils it, goes back, and ends under 0.1 %", async ({
  page,
}) => {
  test.slow();
  await openMarram(page, "bleed");
  await expect(page.getByText(/^Ends with under 0\.01 % of air/)).toBeVisible();
  await page.getByRole("button", { name: "Practise" }).click();
  await expect(page.getByText("of air left, 100 %", { exact: false })).toBeVisible();
  const place = page.locator("#place");
  const valve = (n: 1 | 2, to: "open" | "shut") =>
    place
      .getByRole("button", { name: `Separator ${n} valve: ${to === "open" ? "shut" : "open"}`, exact: true })
      .click();
  const jug = async (name: string, times: number) => {
    for (let i = 0; i < times; i++) await place.getByRole("button", { name, exact: true }).click();
  };
  // Full to the brim behind its own shut valve, one after the other.
  const toTheBrim = async (n: 1 | 2, times: number) => {
    await valve(n, "shut");
    await jug(`Separator ${n}`, times);
    await valve(n, "open");
  };
  const key = async (cycles: number) => {
    for (let i = 0; i < cycles; i++) {
      await page.getByRole("button", { name: "Press: Lift pump" }).click();
      await expect(page.getByRole("button", { name: "Lift pump runs" })).toBeVisible();
      await expect(page.getByRole("button", { name: "Press: Lift pump" })).toBeVisible({ timeout: 20_000 });
    }
  };
  const bled = async (joint: RegExp, cycles: number) => {
    await place.getByRole("button", { name: joint }).first().click();
    await page.getByRole("button", { name: "+¼ turn" }).click();
    await page.getByRole("button", { name: "+¼ turn" }).click();
    await key(cycles);
    await page.getByRole("button", { name: "−¼ turn" }).click();
    await page.getByRole("button", { name: "−¼ turn" }).click();
  };
  const left = () => page.getByText(/of air left/).textContent();
  await page.getByRole("button", { name: "4×" }).click();
  await valve(2, "open");
  await toTheBrim(1, 9);
  await toTheBrim(2, 9);
  // The mistake: a pump run with the jug's lid side dry, taken back by its own moment.
  const before = await left();
  await jug("Secondary", 1);
  await page.getByRole("button", { name: /before: jug at Secondary/ }).click();
  expect(await left()).toBe(before);
  await bled(/^Lift pump, outlet joint: /, 3);
  await bled(/^Secondary, lid: /, 3);
  // A dead leg is not on the way that is drawn: its joint is chosen by its step.
  await bled(/^Polish valve, joint at the end of the dead leg, half a turn/, 2);
  await bled(/^Engine, feed joint: /, 2);
  await toTheBrim(1, 1);
  await toTheBrim(2, 1);
  await bled(/^Engine, feed joint: /, 4);
  await bled(/^Secondary, lid: /, 2);
  await expect(page.getByText(/of air left, .*: bled/)).toBeVisible();
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
  await page.getByRole("button", { name: /^Frame pump, outlet joint: / }).click();
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
