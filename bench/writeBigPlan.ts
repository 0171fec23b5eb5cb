import { mkdirSync, writeFileSync } from "node:fs";
import { dirname } from "node:path";
import { writeJobFile } from "~/schemas/file";
import { bigJob } from "./bigPlan";

const [, , file] = process.argv;
if (!file) throw new Error("usage: writeBigPlan FILE");
mkdirSync(dirname(file), { recursive: true });
writeFileSync(
  file,
  writeJobFile({ job: bigJob(200, { checks: true, feedLH: 60, boreM: 0.0254 }), book: [], snapshots: {} }),
);
