/** Installs what is needed, once: packages by the committed lock file, and Debian's Chromium where it is wanted. */
import { execFileSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";

const run = (command, args, options = {}) => execFileSync(command, args, { stdio: "inherit", ...options });
const STAMP = "node_modules/.installed";
const wanted = () => createHash("sha256").update(readFileSync("package-lock.json")).digest("hex");

export function installPackages() {
  if (existsSync(STAMP) && readFileSync(STAMP, "utf8") === wanted()) return;
  run("npm", ["install", "--no-audit", "--no-fund", "--loglevel=error"]);
  writeFileSync(STAMP, wanted());
}

/** Debian's Chromium without a window of its own, which starts and draws sooner; where a release has none, the whole of it. */
const browsers = ["/usr/bin/chromium-headless-shell", "/usr/bin/chromium"];
export const chromium = () => browsers.find((path) => existsSync(path));

export function installChromium() {
  if (chromium()) return;
  const asRoot = process.getuid?.() === 0 ? [] : ["sudo"];
  const [first, ...rest] = [...asRoot, "apt-get"];
  run(first, [...rest, "update", "-qq"]);
  const install = (name) => run(first, [...rest, "install", "-y", "-qq", "--no-install-recommends", name]);
  try {
    install("chromium-headless-shell");
  } catch {
    install("chromium");
  }
}
