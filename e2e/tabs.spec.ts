import { openMarram } from "./helpers";
import { expect, expectAccessible, test } from "./test";

const tabs = {
  fit: [/^Board$/, /^Openings/, /^Runs/, /^Reach and lifting$/],
  parts: [/^To buy$/, /^The box$/],
  install: [/^Work order$/, /^Access$/, /^Leak test$/],
  care: [/^Fuel$/, /^Service$/, /^Hand-over$/],
};

for (const width of [1280, 768, 390]) {
  test.describe(`${width} wide`, () => {
    test.use({ viewport: { width, height: 844 }, hasTouch: width < 1000 });
    for (const [place, names] of Object.entries(tabs))
      test(`${place}, tab by tab: nothing hangs over the edge, and nobody is shut out`, async ({ page }) => {
        await openMarram(page, place);
        for (const name of names)
          await test.step(name.source, async () => {
            await page.getByRole("tab", { name }).click();
            if (name.source === "^Openings") await page.getByRole("button", { name: "Add a hole" }).click();
            await expect(page.getByRole("tab", { name })).toHaveAttribute("aria-selected", "true");
            expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(
              width,
            );
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
            // Between the two nothing is laid out that neither has.
            if (width !== 768) await expectAccessible(page, "#place");
          });
      });
  });
}
