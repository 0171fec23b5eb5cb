/** Writes the JSON Schemas that stand in docs, made from their source. */
import { writeFileSync } from "node:fs";
import { fileJsonSchema } from "~/schemas/file";
import { solveReportJsonSchema } from "~/schemas/solveReport";

writeFileSync("docs/job.schema.json", `${JSON.stringify(fileJsonSchema(), null, 2)}\n`);
writeFileSync("docs/solve.schema.json", `${JSON.stringify(solveReportJsonSchema(), null, 2)}\n`);
