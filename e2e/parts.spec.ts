import { openDemo } from "./helpers";
import { expect, expectAccessible, test } from "./test";

test("a fitter finds out why 37 on 45 degrees weeps, and what to buy", async ({ page }) => {
  await openDemo(page, "unit12", "parts");
  const joints = page.getByRole("list", { name: "Joints" });
  await joints.getByRole("button", { name: /Engine, feed/ }).click();
  await expect(
    page.getByRole("heading", { name: "Engine, feed: screws together, does not seal" }),
  ).toBeVisible();
  await expect(page.getByText(/seats have different angles/).first()).toBeVisible();
  await expectAccessible(page, "#place");
  await page.getByRole("tab", { name: "To buy" }).click();
  const fittings = page.getByRole("list", { name: "Fittings, clamps and clips" });
  await expect(fittings.getByText("1/2 NPT male to -8 37° flare male")).toBeVisible();
});

test("by keys an end is entered by what is in the hand, and the joint is judged; undo takes it back", async ({
  page,
}) => {
  await openDemo(page, "unit12", "parts");
  const joints = page.getByRole("list", { name: "Joints" });
  const gauge = joints.getByRole("button", { name: /Pressure gauge, one side/ });
  await gauge.focus();
  await page.keyboard.press("Enter");
  const side = page.getByRole("group", { name: "Pressure gauge, one side" });
  await side.getByText("By what is in the hand").press("Enter");
  await side.getByRole("textbox", { name: "Outside, by caliper" }).fill("13.7 mm");
  await page.keyboard.press("Enter");
  await side.getByRole("textbox", { name: "Ten threads measure" }).fill("14.1 mm");
  await page.keyboard.press("Enter");
  await side.getByRole("button", { name: "1/4 NPT male" }).press("Enter");
  await expect(
    page.getByRole("heading", { name: "Pressure gauge, one side: needs an adapter" }),
  ).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("heading", { name: "Pressure gauge, one side: not known" })).toBeVisible();
});

test("by keys a buyer checks a delivery in and sees that nothing waits", async ({ page }) => {
  await openDemo(page, "unit12", "parts");
  await page.getByRole("tab", { name: "Joints" }).focus();
  await page.keyboard.press("ArrowRight");
  const line = page
    .getByRole("list", { name: "Parts", exact: true })
    .getByRole("listitem")
    .filter({ hasText: "Frame pump" });
  await line.getByRole("switch").or(line.getByRole("checkbox")).first().press("Space");
  const pump = page.getByRole("list", { name: "Awaited" }).getByRole("listitem");
  await pump.getByRole("button", { name: "It has come" }).press("Enter");
  for (const look of ["One came, as ordered", "Every end started by hand", "Seals and washers are with it"])
    await pump
      .getByRole("switch", { name: look })
      .or(pump.getByRole("checkbox", { name: look }))
      .press("Space");
  await pump.getByRole("button", { name: "Check in" }).press("Enter");
  await expect(page.getByRole("list", { name: "Awaited" })).toBeHidden();
});

test.describe("by touch, on a phone", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

  test("a fitter finds out why 37 on 45 degrees weeps; a buyer checks a delivery in", async ({ page }) => {
    await openDemo(page, "unit12", "parts");
    await page
      .getByRole("list", { name: "Joints" })
      .getByRole("button", { name: /Engine, feed/ })
      .tap();
    await expect(page.getByText(/seats have different angles/).first()).toBeVisible();
    await page.getByRole("tab", { name: "To buy" }).tap();
    const fittings = page.getByRole("list", { name: "Fittings, clamps and clips" });
    await expect(fittings.getByText("1/2 NPT male to -8 37° flare male")).toBeVisible();
    const line = page
      .getByRole("list", { name: "Parts", exact: true })
      .getByRole("listitem")
      .filter({ hasText: "Frame pump" });
    await line.locator("label").filter({ hasText: "here" }).tap();
    await expect(page.getByText(/1 awaited: \d+ steps of \d+ wait for it/)).toBeVisible();
    const pump = page.getByRole("list", { name: "Awaited" }).getByRole("listitem");
    await pump.getByRole("button", { name: "It has come" }).tap();
    for (const look of ["One came, as ordered", "Every end started by hand", "Seals and washers are with it"])
      await pump.locator("label").filter({ hasText: look }).tap();
    await pump.getByRole("button", { name: "Check in" }).tap();
    await expect(pump).toBeHidden();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  });

  test("a joint is looked at and its end chosen from the list", async ({ page }) => {
    await openDemo(page, "unit12", "parts");
    await page
      .getByRole("list", { name: "Joints" })
      .getByRole("button", { name: /Pressure gauge, one side/ })
      .tap();
    const side = page.getByRole("group", { name: "Pressure gauge, one side" });
    await side.getByRole("button", { name: /Kind of end/ }).tap();
    await page.getByRole("option", { name: "hose barb or beaded tube" }).tap();
    await side.getByRole("button", { name: /Size/ }).tap();
    await page.getByRole("option", { name: "9.53", exact: true }).tap();
    await expect(page.getByRole("heading", { name: "Pressure gauge, one side: seals" })).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  });
});

test("a buyer awaits a delivery, checks it in, sets a wrong one apart and sees what waits", async ({
  page,
}) => {
  await openDemo(page, "unit12", "parts");
  await page.getByRole("tab", { name: "To buy" }).click();
  const parts = page.getByRole("list", { name: "Parts", exact: true });
  for (const name of ["Frame pump", "Separator"]) {
    const line = parts.getByRole("listitem").filter({ hasText: name });
    await line.locator("label").filter({ hasText: "here" }).click();
    await expect(line.getByText("not here yet")).toBeVisible();
  }
  await expect(page.getByText(/2 awaited: \d+ steps of \d+ wait for it/)).toBeVisible();
  const awaited = page.getByRole("list", { name: "Awaited" });
  const pump = awaited.getByRole("listitem").filter({ hasText: "Lift pump" });
  await pump.getByRole("textbox", { name: "From" }).fill("chandler");
  await page.keyboard.press("Enter");
  await pump.getByLabel("Due").fill("2026-12-03");
  await pump.getByRole("button", { name: "It has come" }).click();
  const checkIn = pump.getByRole("button", { name: "Check in" });
  await expect(checkIn).toBeDisabled();
  for (const look of ["One came, as ordered", "Every end started by hand", "Seals and washers are with it"])
    await pump.locator("label").filter({ hasText: look }).click();
  await checkIn.click();
  await expect(pump).toBeHidden();
  const separator = awaited.getByRole("listitem").filter({ hasText: "water separator" });
  await separator.getByRole("button", { name: "It has come" }).click();
  await separator.getByRole("textbox", { name: /Wrong: set apart/ }).fill("ports are 1/4, not 1/2");
  await page.keyboard.press("Enter");
  await expect(separator.getByText("Set apart: ports are 1/4, not 1/2")).toBeVisible();
  await expect(page.getByText(/1 awaited/)).toBeVisible();
  await expectAccessible(page, "#place");
  const order = page.waitForEvent("download");
  await page.getByRole("button", { name: "Order, PDF A4" }).click();
  expect((await order).suggestedFilename()).toMatch(/order-A4\.pdf$/);
});

test("hose is put into the box, cut from it by the list, and undone; the box goes out and comes in as a file", async ({
  page,
}) => {
  await openDemo(page, "unit12", "parts");
  await page.getByRole("tab", { name: "The box" }).click();
  const length = page.getByRole("textbox", { name: "Length, to put it in" });
  await length.fill("30 m");
  await page.keyboard.press("Enter");
  await expect(page.getByText("13 lines in the box, for all jobs.")).toBeVisible();
  const saving = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save the box" }).click();
  const file = await (await saving).path();
  await page.getByRole("tab", { name: "To buy" }).click();
  await page.getByRole("button", { name: "Cut: take these from the box" }).first().click();
  await expect(page.getByRole("heading", { name: "Cut list, from the box first" })).toBeVisible();
  await page.getByRole("tab", { name: "The box" }).click();
  await expect(page.getByRole("button", { name: /^Take 30 m/ })).toBeHidden();
  await page.getByRole("button", { name: "Undo in the box" }).click();
  await expect(page.getByRole("button", { name: /^Take 30 m|^Take 98/ })).toBeVisible();
  await page
    .getByLabel("A box file")
    .setInputFiles({ name: "other.json", mimeType: "application/json", buffer: Buffer.from("{}") });
  await expect(page.getByText(/other.json: format is not a file of the shop's box/)).toBeVisible();
  await page.getByLabel("A box file").setInputFiles(file);
  await expect(page.getByText("13 lines in the box, for all jobs.")).toBeVisible();
  await expectAccessible(page, "#place");
});
