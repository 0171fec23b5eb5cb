import { openMarram } from "./helpers";
import { expect, expectAccessible, faultsOf, type Page, setScheme, test } from "./test";

const tabs: Readonly<Record<string, readonly RegExp[]>> = {
  survey: [/^Tanks$/, /^Fuel and site$/, /^Hoses$/, /^Samples$/, /^To measure/, /^Report$/],
  layout: [],
  prove: [/^Explore/, /^Over time$/, /^Sizes$/, /^Pumps$/, /^Circuits$/, /^Pressure and leaks$/],
  fit: [/^Board$/, /^Openings/, /^Runs/, /^Reach and lifting$/],
  parts: [/^Joints/, /^To buy$/, /^The box$/],
  install: [/^Work order$/, /^Access$/, /^Leak test$/],
  bleed: [],
  care: [/^Readings/, /^Find what is wrong$/, /^Fuel$/, /^Service$/, /^Hand-over$/],
};

/** Too small for a finger: less than 44 px high or wide, and neither in a line of text nor on a drawing, which takes the nearest. */
const smallTargets = (page: Page) =>
  page.evaluate(() =>
    [
      ...document.querySelectorAll<HTMLElement>(
        "a[href], button, summary, [role=tab], input:not([type=range])",
      ),
    ]
      .filter((one) => {
        const { width, height } = one.getBoundingClientRect();
        const isSeen = width > 1 && height > 1 && getComputedStyle(one).visibility !== "hidden";
        // Its label is what is pressed.
        const isLabelled = one.closest("label") !== null && one.matches("[type=checkbox], [type=radio]");
        const inText = one.matches("p a, p span a, li a") && getComputedStyle(one).display === "inline";
        // A ring's hand reaches beyond what is drawn of it.
        const reach = Number.parseFloat(getComputedStyle(one, "::after").inset) || 0;
        return isSeen && !isLabelled && !inText && Math.min(width, height) - 2 * Math.min(0, reach) < 43.5;
      })
      .map((one) => `${one.tagName} ${one.getAttribute("aria-label") ?? one.textContent}`),
  );

for (const width of [1280, 390]) {
  test.describe(`${width} wide`, () => {
    test.use({ viewport: { width, height: 844 }, hasTouch: width < 1000, isMobile: width < 500 });
    for (const [place, names] of Object.entries(tabs))
      test(`${place}, tab by tab: nothing hangs over the edge, and nobody is shut out`, async ({ page }) => {
        const faults = faultsOf(page);
        await openMarram(page, place);
        await expect(page).toHaveTitle(/Iron Keel/);
        await expect(page.locator("#place")).not.toBeEmpty();
        const isInside = async (within: number) => {
          expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(within);
          // What is wider than the screen stands in a frame of its own that scrolls.
          const wide = await page.locator("#place").evaluate((root) => {
            const scrolls = (one: Element | null): boolean =>
              one !== null &&
              one !== root &&
              (/auto|scroll/.test(getComputedStyle(one).overflowX) || scrolls(one.parentElement));
            return [...root.querySelectorAll("p, button, h3, input:not([type=range]), svg")]
              .filter((one) => {
                const box = one.getBoundingClientRect();
                return box.width > 1 && box.right > window.innerWidth + 1 && !scrolls(one);
              })
              .map((one) => one.textContent?.slice(0, 40) ?? one.tagName);
          });
          expect(wide).toEqual([]);
        };
        const look = async () => {
          await isInside(width);
          await expectAccessible(page, "#place");
          await setScheme(page, "night");
          await expectAccessible(page, "#place", "contrast");
          await setScheme(page, "day");
          if (width === 390) return expect(await smallTargets(page)).toEqual([]);
          await page.setViewportSize({ width: 768, height: 844 });
          await isInside(768);
          await page.setViewportSize({ width, height: 844 });
        };
        if (names.length === 0) await look();
        for (const name of names)
          await test.step(name.source, async () => {
            await page.getByRole("tab", { name }).first().click();
            if (name.source === "^Openings") await page.getByRole("button", { name: "Add a hole" }).click();
            await expect(page.getByRole("tab", { name }).first()).toHaveAttribute("aria-selected", "true");
            await look();
          });
        expect(faults).toEqual([]);
      });
  });
}

test.describe("390 wide, in large type", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  test("no place loses anything over the edge", async ({ page }) => {
    await openMarram(page, "install");
    await page.getByRole("button", { name: "More" }).click();
    await page.getByRole("button", { name: "Large type" }).click();
    for (const place of Object.keys(tabs)) {
      await page.goto(`/job/marram/${place}`);
      await expect(page.locator("#place")).not.toBeEmpty();
      expect(await page.evaluate(() => document.documentElement.dataset.type)).toBe("large");
      expect(
        await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth),
        place,
      ).toBeLessThanOrEqual(0);
    }
  });
});

test.describe("at twice its size", () => {
  test.use({ viewport: { width: 640, height: 400 } });
  test("the place has what the head leaves of the screen, and the Keel stands under it", async ({ page }) => {
    await openMarram(page, "prove");
    const place = (await page.locator("#place").boundingBox())!;
    expect(place.height).toBeGreaterThan(340);
    const keel = (await page.locator("#keel").boundingBox())!;
    expect(keel.y).toBeGreaterThanOrEqual(place.y + place.height - 1);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(640);
  });
});
