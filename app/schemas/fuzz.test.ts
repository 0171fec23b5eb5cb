/** The long run is `npm run fuzz`; this one keeps it honest at every test. */
import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { readJobFile } from "./file";
import { fuzzed, judge, judgeTable, judgeZip } from "./fuzz.fixture";
import { writeJobZip } from "./zip";

const texts = ["marram", "unit-12", "reading-van"].map((name) =>
  JSON.stringify(JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8"))),
);

test("mutated files are refused, or read, written and computed with figures that are figures", () => {
  const wrong: string[] = [];
  let accepted = 0;
  for (let seed = 1; seed <= 200; seed++) {
    const { text, what, isWrong } = fuzzed(texts, seed);
    const verdict = judge(text, what, isWrong);
    if (verdict.outcome === "accepted") accepted++;
    else if (verdict.outcome !== "refused") wrong.push(`${seed} ${verdict.outcome}: ${verdict.what}`);
  }
  expect(wrong).toEqual([]);
  expect(accepted).toBeGreaterThan(20);
});

test("ZIP files with changed bytes, and tables that no logger writes, are refused or read; nothing ends in a crash", async () => {
  const read = readJobFile(texts[2] as string);
  if (!read.ok) throw new Error("refused");
  const pictures = new Map([
    ["p", { type: "image/png" as const, full: new Blob([new Uint8Array(300).fill(5)]) }],
  ]);
  const zip = new Uint8Array(await (await writeJobZip({ ...read, pictures })).arrayBuffer());
  const outcomes = new Map<string, number>();
  const wrong: string[] = [];
  for (let seed = 1; seed <= 120; seed++)
    for (const { outcome, what } of [await judgeZip(zip, seed), judgeTable(read.job, seed)]) {
      outcomes.set(outcome, (outcomes.get(outcome) ?? 0) + 1);
      if (outcome !== "accepted" && outcome !== "refused") wrong.push(`${seed} ${outcome}: ${what}`);
    }
  expect(wrong).toEqual([]);
  for (const outcome of ["accepted", "refused"]) expect(outcomes.get(outcome)).toBeGreaterThan(2);
});

test("what was once taken for right: ids twice inside lists, keys that name nothing, bores of nothing", () => {
  const file = JSON.parse(texts[0] as string);
  const spoil = (change: (job: typeof file.job) => void) => {
    const copy = structuredClone(file);
    change(copy.job);
    return judge(JSON.stringify(copy), "", true).outcome;
  };
  const plan = (job: typeof file.job) => job.plans[0];
  expect(
    spoil((job) => plan(job).duty?.push(plan(job).duty?.[0]) ?? plan(job).joints.push(plan(job).joints[0])),
  ).toBe("refused");
  expect(spoil((job) => job.tanks[0].baffles.push(job.tanks[0].baffles[0]))).toBe("refused");
  expect(spoil((job) => (plan(job).conditions.loading.nobody = 2))).toBe("refused");
  expect(spoil((job) => (plan(job).conditions.load.nobody = 1))).toBe("refused");
  expect(spoil((job) => (plan(job).places = { nobody: { x: 1, y: 1 } }))).toBe("refused");
  expect(spoil((job) => (plan(job).runs[0].boreM = 1e-9))).toBe("refused");
  expect(spoil((job) => (plan(job).parts[0].boreM = 1e-6))).toBe("refused");
  expect(spoil((job) => (plan(job).basedOn = "nobody"))).toBe("refused");
});
