/** Job files mutated by the thousand: `npm run fuzz -- [files] [first seed]`. Prints its counts, and what did not hold. */
import { readFileSync } from "node:fs";
import { readJobFile } from "~/schemas/file";
import { fuzzed, judge, judgeTable, judgeZip } from "~/schemas/fuzz.fixture";
import { writeJobZip } from "~/schemas/zip";

const [files = 10_000, first = 1] = process.argv.slice(2).map(Number);
const texts = ["marram", "unit-12", "reading-van"].map((name) =>
  JSON.stringify(JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8"))),
);
const SLOW_MS = 5000;
const counts: Record<string, number> = {
  refused: 0,
  accepted: 0,
  crash: 0,
  slow: 0,
  nonFinite: 0,
  silent: 0,
  altered: 0,
  notSolved: 0,
};
const sample = readJobFile(texts[2] as string);
if (!sample.ok) throw new Error("the demo job is refused");
const pictures = new Map([["p", { type: "image/png" as const, full: new Blob([new Uint8Array(300)]) }]]);
const zip = new Uint8Array(await (await writeJobZip({ ...sample, pictures })).arrayBuffer());
/** Eight job files, one ZIP and one table in ten. */
const tried = async (seed: number) => {
  if (seed % 10 === 0) return judgeZip(zip, seed);
  if (seed % 10 === 5) return judgeTable(sample.job, seed);
  const { text, what, isWrong } = fuzzed(texts, seed);
  return judge(text, what, isWrong);
};
for (let seed = first; seed < first + files; seed++) {
  const began = performance.now();
  const verdict = await tried(seed);
  const { what } = verdict;
  counts[verdict.outcome] = (counts[verdict.outcome] ?? 0) + 1;
  if (performance.now() - began > SLOW_MS) {
    counts.slow = (counts.slow ?? 0) + 1;
    console.log(`slow ${seed}: ${what}`);
  }
  if (!["refused", "accepted"].includes(verdict.outcome))
    console.log(`${verdict.outcome} ${seed}: ${verdict.what}`);
}
console.log(JSON.stringify({ files, first, ...counts }));
if (files !== (counts.refused ?? 0) + (counts.accepted ?? 0)) process.exitCode = 1;
