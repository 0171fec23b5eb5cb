/** What a change costs as the book grows, and the list of fifty jobs: a real browser, its own store, by the interface. */
import { readFileSync } from "node:fs";
import { openMarram, pressed, quantile, withBrowser } from "./browser.mjs";

const TIMES = 24;
const file = JSON.parse(readFileSync("demo/marram.keel.json", "utf8"));
const dip = file.book.find(({ kind }) => kind === "dip");

/** The demo job with so many entries in its book. */
function withEntries(count) {
  const book = Array.from({ length: count }, (_, i) => ({
    ...dip,
    id: `d${i}`,
    depthM: 0.05 + (i % 100) / 1000,
  }));
  const snapshots = count > 0 ? file.snapshots : {};
  return { ...file, job: { ...file.job, id: `book${count}`, name: `Book of ${count}` }, book, snapshots };
}

const take = async (page, address, value, name) => {
  await page.goto(address);
  await page.getByRole("button", { name: "Open a file…" }).click();
  await page.locator("#jobFile").setInputFiles({
    name: "x.keel.json",
    mimeType: "application/json",
    buffer: Buffer.from(JSON.stringify(value)),
  });
  await page.getByRole("link", { name }).waitFor({ timeout: 60000 });
};

await withBrowser(12, async (browser, address) => {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    reducedMotion: "reduce",
  });
  const first = await context.newPage();
  await openMarram(first, address);
  const sizes = [0, 1000, 20000];
  const pages = [];
  for (const count of sizes) {
    await take(first, address, withEntries(count), new RegExp(`Book of ${count}`));
    const page = await context.newPage();
    await page.goto(`${address}/job/book${count}/parts`);
    await page.locator("#keel svg[role=img]").waitFor({ timeout: 60000 });
    await page.waitForTimeout(1500);
    pages.push({ count, page, times: [] });
  }
  // One after the other in turns: a slow moment of the machine meets all of them.
  for (let i = 0; i < TIMES; i++)
    for (const { page, times } of pages) {
      await page.bringToFront();
      times.push(await pressed(page, 'button[aria-label^="Units"]', 'button[aria-label^="Units"]'));
      await page.waitForTimeout(250);
    }
  const [none, ...others] = pages.map(({ count, times }) => ({
    count,
    median: quantile(times.slice(4), 0.5),
  }));
  console.log(
    `a change with an empty book: ${none.median.toFixed(1)} ms to the picture (median of ${TIMES - 4})`,
  );
  for (const { count, median } of others)
    console.log(
      `  with ${count} entries: ${median.toFixed(1)} ms, ${(median / none.median).toFixed(2)} of it`,
    );
  for (const { page } of pages) await page.close();

  for (let i = 0; i < 46; i++) {
    const job = { ...file.job, id: `copy${i}`, name: `Copy ${i}` };
    await take(first, address, { ...file, job, book: [], snapshots: {} }, new RegExp(`^Copy ${i}\\b`));
  }
  const lists = [];
  for (let i = 0; i < 7; i++) {
    const began = performance.now();
    await first.goto(address);
    await first.getByRole("link", { name: /Copy 45/ }).waitFor();
    lists.push(performance.now() - began);
  }
  console.log(`list of fifty jobs, from the address to the last row: ${quantile(lists, 0.5).toFixed(0)} ms`);
});
