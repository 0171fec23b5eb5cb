/** A production server and Debian's Chromium for the benches. */
import { spawn } from "node:child_process";
import { existsSync } from "node:fs";
import { chromium } from "@playwright/test";
import { chromium as chromiumPath } from "../scripts/install.mjs";

async function answers(address) {
  for (let i = 0; i < 100; i++) {
    const isUp = await fetch(`${address}/health`).then(
      (r) => r.ok,
      () => false,
    );
    if (isUp) return true;
    await new Promise((done) => setTimeout(done, 100));
  }
  return false;
}

/** A port of this bench's own: `BENCH_PORT` moves all of them. */
const first = Number(process.env.BENCH_PORT ?? 4300);

/** @param profile a folder for the browser's data: without one they are held in memory */
export async function withBrowser(offset, run, profile = null) {
  const port = first + offset;
  if (!existsSync("build/server/index.js")) throw new Error("build first: npm run build");
  const server = spawn("node", ["scripts/serve.mjs"], {
    env: { ...process.env, PORT: String(port), NODE_ENV: "production", IRON_KEEL_DEMO: "1" },
    detached: true,
    stdio: "ignore",
  });
  const address = `http://localhost:${port}`;
  if (!(await answers(address))) {
    process.kill(-server.pid);
    throw new Error(`the server at ${address} does not answer: is the port taken? BENCH_PORT sets another`);
  }
  const settings = {
    executablePath: chromiumPath() ?? "/usr/bin/chromium",
    args: [
      "--no-sandbox",
      "--disable-gpu",
      "--disable-background-networking",
      "--disable-sync",
      "--no-first-run",
    ],
  };
  const browser = profile
    ? await chromium.launchPersistentContext(profile, { ...settings, viewport: { width: 1280, height: 800 } })
    : await chromium.launch(settings);
  try {
    await run(browser, address);
  } finally {
    await browser.close();
    if (server.exitCode === null) process.kill(-server.pid);
  }
}

export async function openMarram(page, address, place) {
  await page.goto(address);
  await page.getByRole("link", { name: /^Marram 10/ }).waitFor();
  if (place) {
    await page.goto(`${address}/job/marram/${place}`);
    await page.locator("#keel svg[role=img]").waitFor();
  }
}

export const quantile = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.floor(share * (values.length - 1))];

/** From a press to the task after the frame that shows what it changed, ms. */
export const pressed = (page, selector, watched) =>
  page.evaluate(
    ([press, watch]) =>
      new Promise((done) => {
        const began = performance.now();
        const target = document.querySelector(watch);
        const observer = new MutationObserver(() => {
          observer.disconnect();
          requestAnimationFrame(() => {
            const { port1, port2 } = new MessageChannel();
            port1.onmessage = () => done(performance.now() - began);
            port2.postMessage(0);
          });
        });
        observer.observe(target, { subtree: true, childList: true, characterData: true, attributes: true });
        document.querySelector(press).click();
      }),
    [selector, watched],
  );
