import { SEEDED } from "./seeded";
import { expect, faultsOf, test } from "./test";

test("a first visit brings the demo jobs, and says nothing is wrong", async ({ page }) => {
  const faults = faultsOf(page);
  await page.goto("/");
  for (const name of [/^Marram 10/, /^Unit 12 Road/, /^The reading van Mobile/])
    await expect(page.getByRole("link", { name })).toBeVisible();
  expect(faults).toEqual([]);
  await page.context().storageState({ path: SEEDED, indexedDB: true });
});
