import { SEEDED } from "./seeded";
import { expect, faultsOf, test } from "./test";

test("a first visit brings the demo jobs, and says nothing is wrong", async ({ page }) => {
  const faults = faultsOf(page);
  await page.goto("/");
  for (const name of [/^Marram 10/, /^Unit 12 Road/, /^The reading van Mobile/])
    await expect(page.getByRole("link", { name })).toBeVisible();
  // What the list tells of each job is worked out once, here, and not again in every test.
  await expect(page.getByText(/Next due/)).toHaveCount(3, { timeout: 30_000 });
  expect(faults).toEqual([]);
  await page.context().storageState({ path: SEEDED, indexedDB: true });
});
