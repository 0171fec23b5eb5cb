/** JavaScript that a visit loads, gzipped, by page: what the browser asked for, not what the build could split. */
import { readFileSync } from "node:fs";
import { gzipSync } from "node:zlib";
import { withBrowser } from "./browser.mjs";

const size = (path) => gzipSync(readFileSync(`build/client${path}`), { level: 9 }).length / 1000;

await withBrowser(10, async (browser, address) => {
  const context = await browser.newContext({ serviceWorkers: "block" });
  const page = await context.newPage();
  const seen = new Map();
  page.on("request", (request) => {
    const { pathname } = new URL(request.url());
    if (pathname.endsWith(".js")) seen.set(pathname, size(pathname));
  });
  const total = () => [...seen.values()].reduce((sum, kB) => sum + kB, 0);
  await page.goto(address);
  await page.getByRole("link", { name: /Marram/ }).waitFor();
  await page.waitForTimeout(500);
  const list = total();
  console.log(`job list: ${list.toFixed(0)} kB`);
  for (const place of ["layout", "prove"]) {
    await page.goto(`${address}/job/marram/${place}`);
    await page.locator("#keel svg[role=img]").waitFor();
    await page.waitForTimeout(1500);
    console.log(`${place}: ${(total() - list).toFixed(0)} kB more than the list (running total)`);
  }
  console.log(
    `charts loaded by then: ${[...seen.keys()].some((path) => /chart-/i.test(path)) ? "yes" : "no"}`,
  );
});
