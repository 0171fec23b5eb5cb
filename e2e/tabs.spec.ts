import { openMarram } from "./helpers";
import { expect, expectAccessible, test } from "./test";

const tabs = [
  ["fit", /^Board$/],
  ["fit", /^Openings/],
  ["fit", /^Runs/],
  ["fit", /^Reach and lifting$/],
  ["parts", /^To buy$/],
  ["parts", /^The box$/],
  ["install", /^Work order$/],
  ["install", /^Leak test$/],
] as const;

for (const width of [1280, 768, 390]) {
  test.describe(`${width} wide`, () => {
    test.use({ viewport: { width, height: 844 }, hasTouch: width < 1000 });
    for (const [place, name] of tabs)
      test(`${place}, ${name.source}: nothing hangs over the edge, and nobody is shut out`, async ({
        page,
      }) => {
        await openMarram(page, place);
        await page.getByRole("tab", { name }).click();
        if (name.source === "^Openings") await page.getByRole("button", { name: "Add a hole" }).click();
        await expect(page.getByRole("tab", { name })).toHaveAttribute("aria-selected", "true");
        expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
        // A table may be wider than the screen in a frame of its own that scrolls; nothing else may.
        const wide = await page.locator("#place").evaluate((root) =>
          [...root.querySelectorAll("p, button, h3, input, svg")]
            .filter((one) => {
              const box = one.getBoundingClientRect();
              return box.width > 0 && box.right > window.innerWidth + 1 && !one.closest("table, section");
            })
            .map((one) => one.textContent?.slice(0, 40) ?? one.tagName),
        );
        expect(wide).toEqual([]);
        await expectAccessible(page, "#place");
      });
  });
}
