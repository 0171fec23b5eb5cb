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
    await page.goto(`${address}/job/book${count}/layout`);
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

  // Copies of a row and of what the list tells of it, as many as a shop has after years.
  const fill = (from, to) =>
    first.evaluate(
      async ([low, high]) => {
        const [{ name }] = await indexedDB.databases();
        const db = await new Promise((done, fail) => {
          const asked = indexedDB.open(name);
          asked.onsuccess = () => done(asked.result);
          asked.onerror = () => fail(asked.error);
        });
        const stores = ["records", "documents", "settings"];
        const all = db.transaction(stores, "readwrite");
        const read = (store, key) =>
          new Promise((done) => {
            all.objectStore(store).get(key).onsuccess = ({ target }) => done(target.result);
          });
        const [record, document, glance] = await Promise.all([
          read("records", "marram"),
          read("documents", "marram"),
          read("settings", "glance:marram"),
        ]);
        for (let i = low; i < high; i++) {
          all.objectStore("records").put({ ...record, id: `n${i}`, name: `Copy ${i}` });
          all.objectStore("documents").put({ ...document, id: `n${i}` });
          if (glance) all.objectStore("settings").put({ ...glance, key: `glance:n${i}` });
        }
        await new Promise((done) => (all.oncomplete = done));
        db.close();
        return Boolean(glance);
      },
      [from, to],
    );
  await first.goto(address);
  await first
    .getByText(/Next due/)
    .first()
    .waitFor({ timeout: 60000 });
  await first.waitForTimeout(4000);
  for (const [from, to] of [
    [0, 46],
    [46, 196],
  ]) {
    if (!(await fill(from, to))) throw new Error("the list has told nothing of Marram");
    const lists = [];
    for (let i = 0; i < 9; i++) {
      await first.goto(address);
      // Of the page alone: to the frame in which its screenful of rows stands, each with what is due.
      lists.push(
        await first.evaluate(
          (least) =>
            new Promise((done) => {
              const look = () =>
                (document.body.textContent.match(/Next due/g) ?? []).length >= least
                  ? done(performance.now())
                  : requestAnimationFrame(look);
              look();
            }),
          20,
        ),
      );
    }
    console.log(
      `list of ${to + 4} jobs with what is due, from the address to its screenful of rows: median ${quantile(lists, 0.5).toFixed(0)} ms, p95 ${quantile(lists, 0.95).toFixed(0)}`,
    );
  }
});
