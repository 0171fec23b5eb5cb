import AxeBuilder from "@axe-core/playwright";
import { expect, test } from "@playwright/test";
import { openMarram } from "./helpers";

const places = [
  "survey",
  "survey?part=fuel",
  "survey?part=hoses",
  "survey?part=samples",
  "survey?part=report",
  "layout",
  "prove",
  "fit",
  "parts",
  "install",
  "bleed",
  "care",
  "print/valves",
  "print/bleed",
  "print/dip?tank=portWing&roll=5",
];

for (const scheme of ["light", "dark"] as const) {
  test.describe(`${scheme} scheme`, () => {
    test.use({ colorScheme: scheme });

    test("the job list has no accessibility fault", async ({ page }) => {
      await page.goto("/");
      await expect(page.getByRole("link", { name: /Marram/ })).toBeVisible();
      const { violations } = await new AxeBuilder({ page }).analyze();
      expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([]);
    });

    for (const place of places) {
      test(`${place} has no accessibility fault and nothing empty`, async ({ page }) => {
        const faults: string[] = [];
        page.on("pageerror", (error) => faults.push(String(error)));
        page.on("console", (message) => message.type() === "error" && faults.push(message.text()));
        await openMarram(page, place);
        await expect(page.locator("#place")).not.toBeEmpty();
        if (place === "layout" || place === "install")
          await expect(page.getByRole("img", { name: /Keel|Run on port wing:/ }).first()).toBeVisible();
        await page.waitForTimeout(600);
        await expect(page).toHaveTitle(/Iron Keel/);
        const { violations } = await new AxeBuilder({ page }).analyze();
        expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([]);
        expect(faults).toEqual([]);
      });
    }
  });
}

test("at 390 wide every place reads without sideways scrolling, the plumbing as an outline, the Keel upright", async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await openMarram(page);
  await expect(page.getByRole("list", { name: "Plumbing as an outline" })).toBeVisible();
  await expect(page.locator("#keel").getByRole("button", { name: /^Separator 1 −/ })).toBeVisible();
  await page
    .getByRole("list", { name: "Plumbing as an outline" })
    .getByRole("button", { name: "Port tank valve open" })
    .click();
  await page.getByRole("button", { name: "shut", exact: true }).click();
  await expect(page.getByText("no way from a tank").first()).toBeVisible();
  for (const place of places) {
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
  await page.goto("/");
  await expect(page.getByRole("link", { name: /Marram/ })).toBeVisible();
  expect(await page.locator("main").getAttribute("class")).toBe(classes[0]);
});
