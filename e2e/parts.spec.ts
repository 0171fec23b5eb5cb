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
  await expect(
    page.getByRole("row", { name: /1\/2 NPT male to -8 37° flare male Engine, feed/ }),
  ).toBeVisible();
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

test.describe("by touch, on a phone", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

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

test("hose is put into the box, cut from it by the list, and undone; the box goes out and comes in as a file", async ({
  page,
}) => {
  await openDemo(page, "unit12", "parts");
  await page.getByRole("tab", { name: "The box" }).click();
  const length = page.getByRole("textbox", { name: "Length, to put it in" });
  await length.fill("30 m");
  await page.keyboard.press("Enter");
  await expect(page.getByText("1 line in the box, for all jobs.")).toBeVisible();
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
  await expect(page.getByText("1 line in the box, for all jobs.")).toBeVisible();
  await expectAccessible(page, "#place");
});
