/** Job files mutated by the thousand: `npm run fuzz -- [files] [first seed]`. Prints its counts, and what did not hold. */
import { readFileSync } from "node:fs";
import { fuzzed, judge } from "~/schemas/fuzz.fixture";

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
for (let seed = first; seed < first + files; seed++) {
  const { text, what, isWrong } = fuzzed(texts, seed);
  const began = performance.now();
  const verdict = judge(text, what, isWrong);
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
