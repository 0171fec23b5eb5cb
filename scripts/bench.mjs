/** Bundles each bench as it would ship and runs it: `npm run bench`, or `npm run bench -- solver` for one. */
import { execFileSync } from "node:child_process";
import { existsSync } from "node:fs";
import { resolve } from "node:path";
import { build } from "vite";
import { installPackages } from "./install.mjs";

installPackages();
const wanted = process.argv.slice(2);
for (const name of [
  "solver",
  "proving",
  "survey",
  "joints",
  "board",
  "bleed",
  "order",
  "drawing",
  "care",
  "bundle",
  "keel",
  "store",
  "weight",
  "actions",
].filter((one) => wanted.length === 0 || wanted.includes(one))) {
  console.log(`\n== ${name}`);
  if (existsSync(`bench/${name}.mjs`)) {
    execFileSync("node", [`bench/${name}.mjs`], { stdio: "inherit" });
    continue;
  }
  await build({
    configFile: false,
    logLevel: "error",
    resolve: { alias: { "~": resolve("app") } },
    build: { ssr: `bench/${name}.ts`, outDir: "build/bench", emptyOutDir: false, target: "node20" },
  });
  execFileSync("node", [`build/bench/${name}.js`], { stdio: "inherit" });
}
