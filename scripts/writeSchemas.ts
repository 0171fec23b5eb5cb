/** Writes the JSON Schemas that stand in docs, made from their source. */
import { writeFileSync } from "node:fs";
import { airJsonSchemas } from "~/schemas/air";
import { diagnosisJsonSchema, simulationJsonSchema } from "~/schemas/diagnosis";
import { fileJsonSchema } from "~/schemas/file";
import { solveReportJsonSchema } from "~/schemas/solveReport";
import { trendReportJsonSchema } from "~/schemas/trendReport";
import { workReportJsonSchema } from "~/schemas/workReport";

writeFileSync("docs/job.schema.json", `${JSON.stringify(fileJsonSchema(), null, 2)}\n`);
writeFileSync("docs/solve.schema.json", `${JSON.stringify(solveReportJsonSchema(), null, 2)}\n`);
for (const [name, schema] of Object.entries({
  ...airJsonSchemas(),
  work: workReportJsonSchema(),
  trend: trendReportJsonSchema(),
  diagnosis: diagnosisJsonSchema(),
  simulation: simulationJsonSchema(),
}))
  writeFileSync(`docs/${name}.schema.json`, `${JSON.stringify(schema, null, 2)}\n`);
