/** One command on a fresh machine: installs, builds and starts the application with its demo jobs. */
import { execFileSync, spawn } from "node:child_process";
import { installPackages } from "./install.mjs";

installPackages();
execFileSync("npm", ["run", "-s", "build"], { stdio: ["ignore", "inherit", "inherit"] });
const port = process.env.PORT ?? "3000";
const server = spawn("node", ["scripts/serve.mjs"], {
  stdio: "inherit",
  env: { ...process.env, PORT: port, NODE_ENV: "production", IRON_KEEL_DEMO: "1" },
});
for (let tries = 0; tries < 100; tries++) {
  const up = await fetch(`http://localhost:${port}/health`).then(
    (r) => r.ok,
    () => false,
  );
  if (up) break;
  await new Promise((done) => setTimeout(done, 100));
}
console.log(`\nIron Keel with its demo jobs: http://localhost:${port}/\n`);
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
server.on("exit", (code) => process.exit(code ?? 0));
