import { mkdirSync, writeFileSync } from "node:fs";
import { dirname } from "node:path";
import { writeJobFile } from "~/schemas/file";
import { bigJob } from "./bigPlan";

const [, , file, parts = "200"] = process.argv;
if (!file) throw new Error("usage: writeBigPlan FILE [PARTS]");
mkdirSync(dirname(file), { recursive: true });
const job = bigJob(Number(parts), { checks: true, feedLH: 60, boreM: 0.0254 });
writeFileSync(file, writeJobFile({ job, book: [], snapshots: {} }));
