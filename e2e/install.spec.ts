import { choose, openDemo, openMarram, press } from "./helpers";
import { expect, expectAccessible, test } from "./test";

test("a fitter ticks on, is held once rightly, goes to what holds, and takes a tick back", async ({
  page,
}) => {
  await openMarram(page, "install");
  await expect(page.getByText(/^19 of \d+ steps done/)).toBeVisible();
  const ledger = page.getByRole("region", { name: "Undone and not yet redone" });
  await expect(ledger.getByText("Battery negative, off")).toBeVisible();
  await page.getByRole("button", { name: /^Test/ }).click();
  await page.getByRole("button", { name: "Show: Power to the pump" }).click();
  const step = page.getByRole("region", { name: "The next step" });
  await expect(step.getByText(/^Held\./)).toBeVisible();
  await expect(step.getByRole("button", { name: "Done" })).toBeDisabled();
  await step.getByRole("button", { name: "Go to what holds it" }).click();
  await expect(step.getByRole("heading")).not.toHaveText("Power to the pump");
  await step.getByRole("button", { name: "Back to the next" }).click();
  await step.getByRole("button", { name: "Done" }).click();
  await expect(page.getByText(/^20 of \d+ steps done/)).toBeVisible();
  await page.reload();
  await expect(page.getByText(/^20 of \d+ steps done/)).toBeVisible();
  await page.getByRole("button", { name: /^Make safe/ }).click();
  await page.getByRole("button", { name: "Take the tick back: Battery negative off" }).click();
  await expect(page.getByText(/^19 of \d+ steps done/)).toBeVisible();
  await expect(ledger.getByText("Battery negative, off")).toBeHidden();
  await expectAccessible(page, "#place");
});

test("by keys a hold is set aside with reason and name, and stands in the ledger", async ({ page }) => {
  await openDemo(page, "unit12", "install");
  await expect(page.getByText(/^0 of \d+ steps done/)).toBeVisible();
  await page.getByRole("button", { name: /^Along the lines/ }).press("Enter");
  await page
    .getByRole("button", { name: /^Show: Wire/ })
    .first()
    .press("Enter");
  const step = page.getByRole("region", { name: "The next step" });
  await step.getByRole("button", { name: "Set this hold aside…" }).press("Enter");
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("textbox", { name: "Reason" }).fill("no battery aboard");
  await dialog.getByRole("textbox", { name: "Who answers for it" }).fill("the fitter");
  await page.keyboard.press("Enter");
  await dialog.getByRole("button", { name: "Set aside" }).press("Enter");
  await expect(page.getByText("Holds set aside 1")).toBeVisible();
});

test.describe("by touch, under the vehicle", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });
  test("from 'make safe' on one tick a step, large enough for a glove", async ({ page }) => {
    await openDemo(page, "unit12", "install");
    const step = page.getByRole("region", { name: "The next step" });
    const done = step.getByRole("button", { name: "Done" });
    expect((await done.boundingBox())!.height).toBeGreaterThanOrEqual(72);
    for (let i = 1; i <= 4; i++) {
      await done.tap();
      await expect(page.getByText(new RegExp(`^${i} of \\d+ steps done`))).toBeVisible();
    }
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  });

  test("a job that is half done goes on to 'power', held once by what has not come", async ({ page }) => {
    await openDemo(page, "unit12", "install");
    await choose(page, "mouse", /To$/, "Factory filter out, block in");
    await expect(page.getByText(/^14 of 51 steps done/)).toBeVisible();
    const ledger = page.getByRole("region", { name: "Undone and not yet redone" });
    await expect(ledger.getByText("Factory filter, Fuel heater: plug off")).toBeVisible();
    await expect(ledger.getByText(/^Block, from the fittings supplier, due/)).toBeVisible();
    const step = page.getByRole("region", { name: "The next step" });
    const [done, title] = [step.getByRole("button", { name: "Done" }), step.getByRole("heading")];
    // What is asked for too early is held, and the hold leads to the block that has not come.
    await page.getByRole("button", { name: /^Along the lines/ }).tap();
    await page.getByRole("button", { name: "Show: Fix Block" }).tap();
    await expect(done).toBeDisabled();
    await expect(step.getByText("Block has not come.")).toBeVisible();
    await step.getByRole("button", { name: "Go to what holds it" }).tap();
    await expect(title).toHaveText("Check in Block");
    for (let i = 15; (await title.textContent())?.trim() !== "Power to the pump"; i++) {
      expect(i).toBeLessThan(51);
      await done.tap();
      await expect(page.getByText(new RegExp(`^${i} of 51 steps done`))).toBeVisible();
    }
    await expect(ledger.getByText("Factory filter, Water sensor", { exact: true })).toBeVisible();
    await expect(done).toBeEnabled();
  });
});

for (const hand of ["mouse", "keyboard"] as const) {
  test(`a floor over a valve is told, and the work opens and closes it, by ${hand}`, async ({ page }) => {
    await openMarram(page, "install?part=access");
    await press(page, hand, page.getByRole("button", { name: "Add a cover" }));
    const name = page.getByRole("textbox", { name: "It is called" });
    await name.fill("Cabin sole");
    await name.press("Enter");
    if (hand === "mouse")
      await page
        .getByRole("button", { name: /^Separator 1 valve/ })
        .first()
        .click();
    const valve = page
      .getByRole("group", { name: "Behind Cabin sole", exact: true })
      .getByRole("button", { name: "Separator 2 valve", exact: true });
    await press(page, hand, valve);
    await expect(page.getByText(/^Cabin sole: [12] things? behind it/)).toBeVisible();
    await expectAccessible(page, "#place");
    await page.getByRole("button", { name: "Take Cabin sole out" }).press("Enter");
    await expect(page.getByText(/^Nothing is in the way/)).toBeVisible();
  });
}

test("the sheets of the work print: order, torques, leaks, and an estimate at the shop's own rate", async ({
  page,
}) => {
  await openMarram(page, "install");
  const prints = page.getByRole("navigation", { name: "To print" });
  await prints.getByRole("link", { name: "Order" }).click();
  await expect(page.getByRole("heading", { level: 1, name: /work order/ })).toBeVisible();
  await expect(page.getByRole("cell", { name: /Battery negative off/ })).toBeVisible();
  await page.getByRole("link", { name: "Back" }).click();
  await prints.getByRole("link", { name: "Estimate" }).click();
  const rate = page.getByRole("textbox", { name: /Your rate/ });
  await rate.fill("60");
  await rate.press("Enter");
  await expect(page.getByText(/^Labour at that rate: \d+\.$/)).toBeVisible();
  for (const [name, heading] of [
    ["Torques", /torques/],
    ["Leak sheet", /leak test/],
  ] as const) {
    await page.getByRole("link", { name: "Back" }).click();
    await prints.getByRole("link", { name }).click();
    await expect(page.getByRole("heading", { level: 1, name: heading })).toBeVisible();
  }
});

test("the screen is kept awake on request, asked for anew when the page comes back, and let go", async ({
  page,
}) => {
  // What stands in for the system: it counts what is asked and lets go when the page is hidden.
  await page.addInitScript(() => {
    const held: EventTarget[] = [];
    const count = { asked: 0, released: 0 };
    Object.assign(window, { wakeCount: count, letGo: () => held.pop()?.dispatchEvent(new Event("release")) });
    Object.defineProperty(navigator, "wakeLock", {
      value: {
        request: () => {
          count.asked += 1;
          const lock = Object.assign(new EventTarget(), {
            release: () => {
              count.released += 1;
              return Promise.resolve();
            },
          });
          held.push(lock);
          return Promise.resolve(lock);
        },
      },
    });
  });
  const count = () => page.evaluate(() => (window as unknown as { wakeCount: object }).wakeCount);
  await openMarram(page, "install");
  const stays = page.getByRole("button", { name: "Screen stays on" });
  await stays.click();
  await expect(stays).toHaveAttribute("aria-pressed", "true");
  await expect.poll(count).toEqual({ asked: 1, released: 0 });
  await page.evaluate(() => {
    (window as unknown as { letGo: () => void }).letGo();
  });
  await expect(page.getByRole("button", { name: "Screen may sleep: refused" })).toBeVisible();
  await page.evaluate(() => document.dispatchEvent(new Event("visibilitychange")));
  await expect(stays).toBeVisible();
  await expect.poll(count).toEqual({ asked: 2, released: 0 });
  await stays.click();
  await expect.poll(count).toEqual({ asked: 2, released: 1 });
});
