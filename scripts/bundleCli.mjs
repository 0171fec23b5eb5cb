/** The command line in one file, for tests that call it many times: `node scripts/bundleCli.mjs`. */
import { resolve } from "node:path";
import { build } from "vite";

await build({
  configFile: false,
  logLevel: "error",
  resolve: { alias: { "~": resolve("app") } },
  ssr: { noExternal: true },
  build: { ssr: "cli/keel.ts", outDir: "build/cli", emptyOutDir: true, target: "node20" },
});
