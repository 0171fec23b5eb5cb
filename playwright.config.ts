import { defineConfig } from "@playwright/test";
import { SEEDED, SHELF_WORD } from "./e2e/seeded";
import { chromium } from "./scripts/install.mjs";

const port = Number(process.env.E2E_PORT ?? 4173);

export default defineConfig({
  testDir: "e2e",
  fullyParallel: true,
  workers: 2,
  // A shared machine may stall for seconds: one more try before a test counts as failed.
  retries: 1,
  timeout: 60_000,
  expect: { timeout: 10_000 },
  reporter: process.env.E2E_REPORT ? [["line"], ["json", { outputFile: process.env.E2E_REPORT }]] : "line",
  projects: [
    { name: "seed", testMatch: /seed\.setup\.ts/ },
    { name: "interface", dependencies: ["seed"], use: { storageState: SEEDED } },
  ],
  use: {
    // A failed test is tried once more, and leaves its trace; traced from the start, every test takes half as long again.
    trace: "on-first-retry",
    // Cleared between tests, not made anew: a page that has read the application once opens in half the time.
    reuseContext: true,
    baseURL: `http://localhost:${port}`,
    locale: "en-GB",
    viewport: { width: 1280, height: 800 },
    // Marks that move cost a page without a graphics processor most of its time; the test of them turns them on.
    contextOptions: { reducedMotion: "reduce" },
    launchOptions: {
      executablePath: chromium() ?? "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
  webServer: {
    command: "node scripts/serve.mjs",
    env: {
      PORT: String(port),
      NODE_ENV: "production",
      IRON_KEEL_DEMO: "1",
      IRON_KEEL_SHELF: "1",
      IRON_KEEL_SHELF_WORD: SHELF_WORD,
    },
    url: `http://localhost:${port}/health`,
    reuseExistingServer: false,
  },
});
