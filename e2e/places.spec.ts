import { openMarram } from "./helpers";
import { expect, expectAccessible, faultsOf, setScheme, test } from "./test";

const sheets = [
  "valves",
  "bleed",
  "dip?tank=portWing&roll=5",
  "work",
  "torque",
  "leak",
  "estimate",
  "clips",
  "labels",
  "cuts",
  "holes",
  "log",
].map((sheet) => `print/${sheet}`);

test("no sheet to print has an accessibility fault, and none is empty; by night one in four is looked at: they share their paint", async ({
  page,
}) => {
  test.slow();
  const faults = faultsOf(page);
  await openMarram(page);
  for (const [i, sheet] of sheets.entries()) {
    await test.step(sheet, async () => {
      await page.goto(`/job/marram/${sheet}`);
      await expect(page.getByRole("heading").first()).toBeVisible();
      await expect(page.locator("#place")).not.toBeEmpty();
      await expect(page).toHaveTitle(/Iron Keel/);
      await expectAccessible(page, "#place");
      if (i % 4 > 0) return;
      await setScheme(page, "night");
      await expectAccessible(page, "#place", "contrast");
      await setScheme(page, "day");
    });
  }
  expect(faults).toEqual([]);
});

test("what stands round every place has no accessibility fault, nor has the job list", async ({ page }) => {
  await openMarram(page, "install");
  await page.locator("#keel").getByRole("button", { name: "Lift pump", exact: true }).click();
  await expect(page.getByText("Run on starboard returns to Port wing")).toBeVisible();
  await expectAccessible(page, "body");
  await setScheme(page, "night");
  await expectAccessible(page, "body", "contrast");
  await page.goto("/");
  await expect(page.getByRole("link", { name: /^Marram 10/ })).toBeVisible();
  await expectAccessible(page, "body");
  await setScheme(page, "night");
  await expectAccessible(page, "body", "contrast");
});

test("at 390 wide the plumbing is an outline, the Keel upright, and no sheet scrolls sideways", async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await openMarram(page);
  await expect(page.getByRole("list", { name: "Plumbing as an outline" })).toBeVisible();
  await expect(page.locator("#keel").getByRole("button", { name: /^Separator 1 −/ })).toBeVisible();
  await page
    .getByRole("list", { name: "Plumbing as an outline" })
    .getByRole("button", { name: /^Port tank valve open/ })
    .click();
  await page.getByRole("button", { name: "shut", exact: true }).click();
  await expect(page.getByText("no way from a tank").first()).toBeVisible();
  for (const place of sheets) {
    await page.goto(`/job/marram/${place}`);
    await expect(page.locator("#place")).not.toBeEmpty();
    const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    expect(over, place).toBeLessThanOrEqual(0);
  }
});

test("the first HTML is styled without JavaScript, and its classes hold after hydration", async ({
  browser,
  page,
}) => {
  const bare = await browser.newContext({ javaScriptEnabled: false });
  const first = await bare.newPage();
  await first.goto("/");
  expect(await first.locator("main").evaluate((main) => getComputedStyle(main).maxWidth)).toBe("980px");
  const html = await (await first.request.get("/")).text();
  expect(html).toMatch(/<style[^>]*data-styled/);
  const classes = [...html.matchAll(/<main class="([^"]+)"/g)].map(([, names]) => names);
  await bare.close();
  const faults = faultsOf(page);
  await page.goto("/");
  await expect(page.getByRole("link", { name: /^Marram 10/ })).toBeVisible();
  expect(await page.locator("main").getAttribute("class")).toBe(classes[0]);
  expect(faults).toEqual([]);
});

test("on a phone head and places take 96 px, in words, and what stands in the head is reached behind one button", async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await openMarram(page, "care");
  const places = page.getByRole("navigation", { name: "Places" });
  const { y, height } = (await places.boundingBox())!;
  expect(y + height).toBeLessThanOrEqual(96);
  for (const name of ["Survey", "Lay out", "Prove", "Fit", "Parts", "Install", "Bleed", "Care"])
    await expect(places.getByText(name, { exact: true })).toBeVisible();
  // The place that is open is in sight, however far the others scroll.
  await expect(places.getByRole("link", { name: /Care/ })).toBeInViewport();
  await page.getByRole("button", { name: "More", exact: true }).click();
  const more = page.getByRole("dialog", { name: "More" });
  for (const name of [
    "Redo",
    /^Units/,
    "Save the job as a file",
    "Day or night",
    "Keys and what can be done",
  ])
    await expect(more.getByRole("button", { name })).toBeVisible();
  await more.getByRole("button", { name: /^Units/ }).click();
  await expect(more).toHaveCount(0);
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await expect(page.getByRole("button", { name: "Undo", exact: true })).toBeDisabled();
});
