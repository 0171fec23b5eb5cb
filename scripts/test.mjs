/** Everything that must hold: installs what is needed, then types, lint, unit tests, build and the real interface. */
import { spawn } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { installChromium, installPackages } from "./install.mjs";

installPackages();
installChromium();
rmSync("test-results", { recursive: true, force: true });
mkdirSync("test-results", { recursive: true });

let passed = 0;
let failed = 0;
let flaky = 0;
const read = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, "utf8")) : null);

/** Runs a command; one that runs beside others keeps its words to itself until it ends. */
function run(command, args, { env = {}, isBeside = false }) {
  return new Promise((done) => {
    const child = spawn(command, args, {
      stdio: isBeside ? ["ignore", "pipe", "pipe"] : "inherit",
      env: { ...process.env, ...env },
    });
    let words = "";
    child.stdout?.on("data", (chunk) => (words += chunk));
    child.stderr?.on("data", (chunk) => (words += chunk));
    child.on("error", () => done({ status: 1, words }));
    child.on("close", (status) => done({ status, words }));
  });
}

/** Runs a step; its own counts where it has them, else one for the step. */
async function step(name, command, args, { env, count, isBeside } = {}) {
  const began = Date.now();
  if (!isBeside) console.log(`\n== ${name}`);
  const { status, words } = await run(command, args, { env, isBeside });
  if (isBeside) console.log(`\n== ${name}\n${words}`);
  const [good, bad, twice] = count?.() ?? [0, 0, 0];
  passed += good;
  failed += bad;
  flaky += twice;
  if (status !== 0 && bad === 0) failed += 1;
  else if (status === 0 && good === 0) passed += 1;
  console.log(`-- ${name}: ${Math.round((Date.now() - began) / 1000)} s`);
  return status === 0;
}

const unitReport = "test-results/unit.json";
const e2eReport = "node_modules/.e2e.json";
const isBeside = true;
// Types and lint keep one core busy, unit tests what is left of two.
const [, isTypes] = await Promise.all([
  step(
    "unit tests",
    "npx",
    ["jest", "--json", `--outputFile=${unitReport}`, "--silent=false", "--maxWorkers=2"],
    {
      isBeside,
      count: () => {
        const report = read(unitReport);
        return report
          ? [report.numPassedTests, report.numFailedTests + report.numRuntimeErrorTestSuites, 0]
          : [0, 0, 0];
      },
    },
  ),
  (async () => {
    const holds = await step("types", "npm", ["run", "-s", "typecheck"], { isBeside });
    await step("lint", "npm", ["run", "-s", "lint"], { isBeside });
    return holds;
  })(),
]);
if (isTypes && (await step("build", "npm", ["run", "-s", "build"]))) {
  rmSync(e2eReport, { force: true });
  await step("the interface", "npx", ["playwright", "test"], {
    env: { E2E_REPORT: e2eReport },
    count: () => {
      const stats = read(e2eReport)?.stats;
      return stats ? [stats.expected, stats.unexpected, stats.flaky] : [0, 0, 0];
    },
  });
}
if (flaky > 0) console.log(`\n${flaky} held only when tried again: their traces stand in test-results`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
