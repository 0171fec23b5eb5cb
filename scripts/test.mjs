/** Everything that must hold: installs what is needed, then types, lint, unit tests, build and the real interface. */
import { spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { installChromium, installPackages } from "./install.mjs";

installPackages();
installChromium();
rmSync("test-results", { recursive: true, force: true });
mkdirSync("test-results", { recursive: true });

let passed = 0;
let failed = 0;
const read = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, "utf8")) : null);

/** Runs a step; its own counts where it has them, else one for the step. */
function step(name, command, args, { env = {}, count } = {}) {
  console.log(`\n== ${name}`);
  const { status } = spawnSync(command, args, { stdio: "inherit", env: { ...process.env, ...env } });
  const [good, bad] = count?.() ?? [0, 0];
  passed += good;
  failed += bad;
  if (status !== 0 && bad === 0) failed += 1;
  else if (status === 0 && good === 0) passed += 1;
  return status === 0;
}

const unitReport = "test-results/unit.json";
const e2eReport = "test-results/../node_modules/.e2e.json";
step("types", "npm", ["run", "-s", "typecheck"]);
step("lint", "npm", ["run", "-s", "lint"]);
step("unit tests", "npx", ["jest", "--json", `--outputFile=${unitReport}`, "--silent=false"], {
  count: () => {
    const report = read(unitReport);
    return report
      ? [report.numPassedTests, report.numFailedTests + report.numRuntimeErrorTestSuites]
      : [0, 0];
  },
});
if (step("build", "npm", ["run", "-s", "build"])) {
  rmSync(e2eReport, { force: true });
  step("the interface", "npx", ["playwright", "test"], {
    env: { E2E_REPORT: e2eReport },
    count: () => {
      const stats = read(e2eReport)?.stats;
      return stats ? [stats.expected + stats.flaky, stats.unexpected] : [0, 0];
    },
  });
}
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
