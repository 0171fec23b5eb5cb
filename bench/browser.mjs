/** A production server and Debian's Chromium for the benches. */
import { spawn } from "node:child_process";
import { existsSync } from "node:fs";
import { chromium } from "@playwright/test";

export async function withBrowser(port, run) {
  if (!existsSync("build/server/index.js")) throw new Error("build first: npm run build");
  const server = spawn("npx", ["react-router-serve", "build/server/index.js"], {
    env: { ...process.env, PORT: String(port), NODE_ENV: "production", IRON_KEEL_DEMO: "1" },
    detached: true,
    stdio: "ignore",
  });
  const address = `http://localhost:${port}`;
  for (let i = 0; i < 100; i++) {
    if (
      await fetch(`${address}/health`).then(
        (r) => r.ok,
        () => false,
      )
    )
      break;
    await new Promise((done) => setTimeout(done, 100));
  }
  const browser = await chromium.launch({
    executablePath: "/usr/bin/chromium",
    args: [
      "--no-sandbox",
      "--disable-gpu",
      "--disable-background-networking",
      "--disable-sync",
      "--no-first-run",
    ],
  });
  try {
    await run(browser, address);
  } finally {
    await browser.close();
    process.kill(-server.pid);
  }
}

export async function openMarram(page, address, place) {
  await page.goto(address);
  await page.getByRole("link", { name: /Marram/ }).waitFor();
  if (place) {
    await page.goto(`${address}/job/marram/${place}`);
    await page.locator("#keel svg[role=img]").waitFor();
  }
}

export const quantile = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.floor(share * (values.length - 1))];
