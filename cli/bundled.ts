import { execFileSync, spawnSync } from "node:child_process";
import { beforeAll } from "@jest/globals";

export interface Said {
  status: number | null;
  out: string;
  err: string;
}

/** The command line as a test calls it: bundled once a test file, each call a process of its own. */
export function bundledKeel(): (args: readonly string[], input?: string) => Said {
  beforeAll(() => {
    execFileSync("node", ["scripts/bundleCli.mjs"], { stdio: "pipe" });
  });
  return (args, input = "") => {
    const { status, stdout, stderr } = spawnSync("node", ["build/cli/keel.js", ...args], {
      input,
      encoding: "utf8",
      timeout: 60_000,
    });
    return { status, out: stdout, err: stderr };
  };
}
