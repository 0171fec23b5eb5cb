/** From the handler of a slider to the task after the frame that shows it; and frames of a 200-part drawing that moves. */
import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { openMarram, pressed, quantile, withBrowser } from "./browser.mjs";

const bigPlanFile = "build/bench/big.keel.json";
execFileSync("npx", ["tsx", "bench/writeBigPlan.ts", bigPlanFile], { stdio: "inherit" });

/** Gaps between frames, ms, while something is dragged about its place; it is put back. */
async function draggedFrames(page, target) {
  const box = await target.boundingBox();
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  const watched = framesOf(page, 120);
  for (let i = 0; i < 110; i++) {
    await page.mouse.move(x - 12 * Math.sin(i / 5), y + 8 * Math.cos(i / 5));
    await page.waitForTimeout(12);
  }
  const gaps = await watched;
  await page.keyboard.press("Escape");
  await page.mouse.up();
  return gaps;
}

await withBrowser(11, async (browser, address) => {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await openMarram(page, address, "prove");
  // A real mouse on the thumb: the browser hands its moves over at the head of a frame, as it does to a user.
  const thumb = page.getByRole("slider", { name: "Filter clogging" });
  const grip = await thumb.evaluate((input) => {
    const { left, top, width, height } = input.closest("[data-rac]").getBoundingClientRect();
    return { x: left + width / 2, y: top + height / 2 };
  });
  await page.evaluate(() => {
    window.taken = [];
    let start = null;
    window.addEventListener("pointermove", () => (start ??= performance.now()), { capture: true });
    // Only moves that change the Keel count, from the move to the task after the frame that shows the change.
    new MutationObserver(() => {
      if (start === null) return;
      const began = start;
      start = null;
      requestAnimationFrame(() => {
        const { port1, port2 } = new MessageChannel();
        port1.onmessage = () => window.taken.push(performance.now() - began);
        port2.postMessage(0);
      });
    }).observe(document.querySelector("#keel"), {
      subtree: true,
      attributes: true,
      childList: true,
      characterData: true,
    });
  });
  await page.mouse.move(grip.x, grip.y);
  await page.mouse.down();
  const loading = () => thumb.inputValue();
  const from = await loading();
  for (let i = 1; i <= 160; i++) {
    await page.mouse.move(grip.x + 3 * (i % 30), grip.y);
    await page.waitForTimeout(35);
  }
  await page.mouse.move(grip.x + 40, grip.y);
  await page.waitForTimeout(100);
  if ((await loading()) === from) throw new Error("the slider did not move");
  await page.mouse.up();
  const times = (await page.evaluate(() => window.taken)).slice(20);
  console.log(
    `slider to repainted Keel: median ${quantile(times, 0.5).toFixed(1)} ms, p95 ${quantile(times, 0.95).toFixed(1)} ms (${times.length} moves)`,
  );

  await page.goto(`${address}/job/marram/survey`);
  const corner = page.getByRole("button", { name: /^Corner 3:/ });
  await corner.waitFor();
  await page.waitForTimeout(1000);
  const told = (what, gaps) => {
    const kept = gaps.filter((gap) => gap <= 33.4).length / gaps.length;
    console.log(
      `${what}: ${(kept * 100).toFixed(1)} % of frames within 33 ms (median ${quantile(gaps, 0.5).toFixed(1)}, p95 ${quantile(gaps, 0.95).toFixed(1)} ms)`,
    );
  };
  told("corner of a tank dragged", await draggedFrames(page, corner));
  await page.goto(`${address}/job/marram/fit?part=board`);
  const valve = page.getByRole("button", { name: /^Separator 2 valve: .* from the left/ });
  await valve.waitFor();
  await page.waitForTimeout(1000);
  told("a part dragged on its board, clashes, hoses and Keel live", await draggedFrames(page, valve));

  await page.goto(`${address}/job/marram/bleed`);
  await page.getByRole("button", { name: "Practise" }).click();
  const key = page.getByRole("button", { name: "Press: Lift pump" });
  await key.waitFor();
  // Found by then: what is measured is the practice alone.
  await page.getByText(/^Ends with|^Air stays/).waitFor({ timeout: 30000 });
  await page.waitForTimeout(9000);
  await key.click();
  told("a bleed practised, its pump running", await framesOf(page, 130));

  await page.goto(address);
  await page.getByRole("button", { name: "Open a file…" }).click();
  await page.getByLabel("A .keel.json or .keel.zip file").setInputFiles({
    name: "big.keel.json",
    mimeType: "application/json",
    buffer: readFileSync(bigPlanFile),
  });
  await page.getByRole("link", { name: /Ladder/ }).click();
  await page.goto(`${address}/job/big/layout`);
  await page.locator("svg[data-drawing]").waitFor({ timeout: 60000 });
  await page.waitForTimeout(1500);
  const frames = await framesOf(page);
  const within = frames.filter((gap) => gap <= 33.4).length / frames.length;
  console.log(
    `200-part drawing, live runs moving: ${(within * 100).toFixed(1)} % of frames within 33 ms (p95 ${quantile(frames, 0.95).toFixed(1)} ms)`,
  );

  const devtools = await page.context().newCDPSession(page);
  // By touch, on the drawing at a size at which it does not fit.
  for (let i = 0; i < 4; i++) await page.getByRole("button", { name: "Larger" }).click();
  await page.waitForTimeout(800);
  const byHand = async (what, gesture) => {
    const watched = framesOf(page, 110);
    for (let i = 0; i < 4; i++) await gesture(i);
    told(what, await watched);
  };
  await byHand("200-part drawing panned by touch", (i) =>
    devtools.send("Input.synthesizeScrollGesture", {
      x: 500,
      y: 400,
      xDistance: i % 2 ? 220 : -220,
      yDistance: i % 2 ? 120 : -120,
      speed: 700,
      gestureSourceType: "touch",
    }),
  );
  await byHand("200-part drawing pinched by touch", async (i) => {
    const touch = (type, apart) =>
      devtools.send("Input.dispatchTouchEvent", {
        type,
        touchPoints: apart === 0 ? [] : [-apart, apart].map((by, id) => ({ x: 500 + by, y: 360, id })),
      });
    await touch("touchStart", 60);
    for (let k = 1; k <= 16; k++) {
      await touch("touchMove", 60 + (i % 2 ? -2 : 3) * k);
      await page.waitForTimeout(14);
    }
    await touch("touchEnd", 0);
  });
  await page.getByRole("button", { name: "Fit the drawing" }).click();
  await devtools.send("Performance.enable");
  const busy = async () =>
    (await devtools.send("Performance.getMetrics")).metrics.find(({ name }) => name === "TaskDuration").value;
  const before = await busy();
  await page.waitForTimeout(3000);
  console.log(`  at rest: ${((((await busy()) - before) / 3) * 1000).toFixed(0)} ms of main thread a second`);
  await page.goto(`${address}/job/big/layout`);
  await page.locator("svg[data-drawing]").waitFor({ timeout: 60000 });
  await page.waitForTimeout(3000);
  console.log(`  opened: ${((await busy()) * 1000).toFixed(0)} ms of main thread in all`);

  const ended = (what, times) => {
    const settled = times.slice(4);
    console.log(
      `  ${what}: median ${quantile(settled, 0.5).toFixed(0)} ms, p95 ${quantile(settled, 0.95).toFixed(0)} ms`,
    );
  };
  // A change of the large plan, which every name on the drawing shows: from the press to the drawing.
  const toggles = [];
  for (let i = 0; i < 24; i++) {
    toggles.push(await pressed(page, 'button[aria-label^="Units"]', "svg[data-drawing]"));
    await page.waitForTimeout(400);
  }
  ended("a change of units to the repainted drawing", toggles);
  // A typed figure, from Enter to the drawing with its new pressures.
  await page.locator('[data-drawing] [aria-label^="Hose from"]').first().focus();
  await page.keyboard.press("Enter");
  const bore = page.getByRole("textbox", { name: "Bore" });
  await bore.waitFor();
  const typed = [];
  for (let i = 0; i < 24; i++) {
    await bore.fill(i % 2 ? "8 mm" : "9.5 mm");
    const taken = typedToDrawn(page);
    await bore.press("Enter");
    typed.push(await taken);
    await page.waitForTimeout(600);
  }
  ended("a typed bore to the repainted drawing", typed);
});

/** Gaps between frames, ms; the first ten are of what went before. */
function framesOf(page, count = 180) {
  return page.evaluate(
    (frames) =>
      new Promise((done) => {
        const gaps = [];
        let last = performance.now();
        const step = (now) => {
          gaps.push(now - last);
          last = now;
          if (gaps.length < frames) requestAnimationFrame(step);
          else done(gaps.slice(10));
        };
        requestAnimationFrame(step);
      }),
    count,
  );
}

/** From Enter in a field to the task after the frame that shows another drawing, ms. */
function typedToDrawn(page) {
  return page.evaluate(
    () =>
      new Promise((done) => {
        let began = 0;
        window.addEventListener("keydown", () => (began = performance.now()), { capture: true, once: true });
        const observer = new MutationObserver(() => {
          if (began === 0) return;
          observer.disconnect();
          requestAnimationFrame(() => {
            const { port1, port2 } = new MessageChannel();
            port1.onmessage = () => done(performance.now() - began);
            port2.postMessage(0);
          });
        });
        observer.observe(document.querySelector("svg[data-drawing]"), {
          subtree: true,
          childList: true,
          characterData: true,
          attributes: true,
        });
      }),
  );
}
