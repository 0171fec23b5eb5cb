/** What every test of the interface begins with: the demo jobs are in the store already, and no worker serves offline. */
import AxeBuilder from "@axe-core/playwright";
import { test as base, expect, type Page } from "@playwright/test";

export const SEEDED = "test-results/seeded.json";

export const test = base.extend<{ keepsOffline: boolean }>({
  /** Whether the page may keep itself for use without network: only where that is tested. */
  keepsOffline: [false, { option: true }],
  context: async ({ context, keepsOffline }, use) => {
    if (!keepsOffline)
      await context.addInitScript(() => {
        delete (Navigator.prototype as { serviceWorker?: unknown }).serviceWorker;
      });
    await use(context);
  },
});

/** Nothing is wrong with a part of the page for those who cannot see, hear or point; at night only its contrast is new. */
export async function expectAccessible(page: Page, include: string, only?: "contrast"): Promise<void> {
  // Without frames there is nothing to gather from other pages: that would open one for each look.
  const axe = new AxeBuilder({ page }).setLegacyMode(true).include(include);
  const { violations } = await (only ? axe.withRules(["color-contrast"]) : axe).analyze();
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([]);
}

/** Changes the page that is open over to the other scheme. */
export const setScheme = (page: Page, scheme: "day" | "night") =>
  page.evaluate((name) => {
    document.documentElement.dataset.theme = name;
  }, scheme);

/** What goes wrong in a page without being seen. */
export function faultsOf(page: Page): string[] {
  const faults: string[] = [];
  page.on("pageerror", (error) => faults.push(String(error)));
  page.on("console", (message) => message.type() === "error" && faults.push(message.text()));
  return faults;
}

export { expect, type Page };
