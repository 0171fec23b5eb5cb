/** The core on the command line: its streams and its status. */
import { readFileSync } from "node:fs";
import { answered } from "./call";

// Whoever reads the first lines alone has read enough.
process.stdout.on("error", (error: NodeJS.ErrnoException) => {
  if (error.code !== "EPIPE") throw error;
  process.exit(0);
});
const { status, out, err } = await answered(process.argv.slice(2), () => readFileSync(0, "utf8"));
process.stdout.write(out);
process.stderr.write(err);
process.exitCode = status;
