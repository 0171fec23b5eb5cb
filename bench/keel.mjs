/** From the handler of a slider to the task after the frame that shows it; and frames of a 200-part drawing that moves. */
import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { openMarram, quantile, withBrowser } from "./browser.mjs";

const bigPlanFile = "build/bench/big.keel.json";
execFileSync("npx", ["tsx", "bench/writeBigPlan.ts", bigPlanFile], { stdio: "inherit" });

await withBrowser(4311, async (browser, address) => {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await openMarram(page, address, "prove");
  const times = await page.evaluate(async () => {
    const input = document.querySelector('input[type="range"]');
    const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set;
    const taken = [];
    for (let i = 0; i < 160; i++) {
      await new Promise((done) => setTimeout(done, 30));
      const start = performance.now();
      set.call(input, String(1 + (i % 80) * 0.1));
      input.dispatchEvent(new Event("input", { bubbles: true }));
      input.dispatchEvent(new Event("change", { bubbles: true }));
      // The task after the frame: a message posted from within it.
      await new Promise((done) =>
        requestAnimationFrame(() => {
          const { port1, port2 } = new MessageChannel();
          port1.onmessage = () => done();
          port2.postMessage(0);
        }),
      );
      taken.push(performance.now() - start);
    }
    return taken.slice(20);
  });
  console.log(
    `slider to repainted Keel: median ${quantile(times, 0.5).toFixed(1)} ms, p95 ${quantile(times, 0.95).toFixed(1)} ms (${times.length} moves)`,
  );

  await page.goto(address);
  await page.getByRole("button", { name: "Open a file…" }).click();
  await page.getByLabel("A .keel.json file").setInputFiles({
    name: "big.keel.json",
    mimeType: "application/json",
    buffer: readFileSync(bigPlanFile),
  });
  await page.getByRole("link", { name: /Ladder/ }).click();
  await page.goto(`${address}/job/big/layout`);
  await page.locator('svg[data-status="laid"]').waitFor({ timeout: 60000 });
  await page.waitForTimeout(1500);
  const frames = await page.evaluate(
    () =>
      new Promise((done) => {
        const gaps = [];
        let last = performance.now();
        const step = (now) => {
          gaps.push(now - last);
          last = now;
          if (gaps.length < 180) requestAnimationFrame(step);
          else done(gaps.slice(10));
        };
        requestAnimationFrame(step);
      }),
  );
  const within = frames.filter((gap) => gap <= 33.4).length / frames.length;
  console.log(
    `200-part drawing, live runs moving: ${(within * 100).toFixed(1)} % of frames within 33 ms (p95 ${quantile(frames, 0.95).toFixed(1)} ms)`,
  );
});
