/** What every test of the interface begins with: the demo jobs are in the store already, and no worker serves offline. */
import { test as base, expect, type Page } from "@playwright/test";
import axe from "axe-core";

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
  // Once a page: to read the rules takes as long as to apply them.
  if (!(await page.evaluate(() => "axe" in window))) await page.evaluate(axe.source);
  const violations = await page.evaluate(
    async ([root, rules]) => {
      const { axe: rulesOf } = window as unknown as { axe: typeof axe };
      const { violations: found } = await rulesOf.run(root, {
        // What holds need not be described.
        resultTypes: ["violations"],
        ...(rules ? { runOnly: { type: "rule", values: rules } } : {}),
      });
      return found.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`);
    },
    [include, only && ["color-contrast"]] as const,
  );
  expect(violations).toEqual([]);
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
