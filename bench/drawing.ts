/** The drawing: laid out from nothing, opened by its places, and after an edit; each beside the solution of all line-ups. */
import { readFileSync } from "node:fs";
import { carryOut } from "~/core/drawing/carryOut";
import { placedOf } from "~/core/drawing/placed";
import { randomEdit } from "~/core/drawing/randomEdit.fixture";
import { CommandRefused } from "~/core/edit/command";
import { judgeAll } from "~/core/hydraulics/worst";
import { buildNetwork, type Network } from "~/core/network/network";
import type { Job } from "~/core/plan/types";
import { seeded } from "~/core/random/seeded";
import { bigJob } from "./bigPlan";
import { median, ms, quantile, show } from "./measure";

const read = (name: string) =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const unplaced = (job: Job): Job => ({
  ...job,
  plans: job.plans.map(({ places: _, sides: __, ...plan }) => plan),
});
const TURNS = 9;
const times = (run: (turn: number) => void) =>
  median(Array.from({ length: TURNS }, (_, turn) => ms(() => run(turn))));
/** The same with hoses by other ids: what was routed lately is known by them, and is not what is measured. */
const otherwise = (job: Job, turn: number): Job => ({
  ...job,
  plans: job.plans.map((plan) => ({
    ...plan,
    runs: plan.runs.map((run) => ({ ...run, id: `${run.id}t${turn}` })),
  })),
});

const marram = read("marram");
for (const [name, job] of [
  ["Marram", marram],
  ["Unit 12", read("unit-12")],
  ["200 parts", bigJob(200, { checks: true, feedLH: 60, boreM: 0.008 })],
] as const) {
  const network = buildNetwork(job);
  const each = (of: Job) => Array.from({ length: TURNS }, (_, turn) => buildNetwork(otherwise(of, turn)));
  const [bare, placed] = [each(unplaced(job)), each(job)];
  const solved = times(() => judgeAll(network, network.plan.conditions));
  const fresh = times((turn) => placedOf(bare[turn] as Network));
  const opened = job.plans[0]?.places ? times((turn) => placedOf(placed[turn] as Network)) : null;
  show(
    `${name}: from nothing${opened === null ? "" : ", by its places"}`,
    `${fresh.toFixed(0)} ms${opened === null ? "" : `, ${opened.toFixed(0)} ms`} (${(fresh / solved).toFixed(1)} of all line-ups judged)`,
  );
}

const edits: number[] = [];
for (let seed = 1; seed <= 6; seed++) {
  const random = seeded(seed);
  let job = marram;
  for (let turn = 0; turn < 12; turn++) {
    const command = randomEdit(job, random, turn);
    if (!command) continue;
    try {
      let next = job;
      edits.push(ms(() => (next = carryOut(job, command).job)));
      job = next;
    } catch (error) {
      if (!(error instanceof CommandRefused)) throw error;
    }
  }
}
show(
  `${edits.length} edits at random on Marram, with their drawing`,
  `median ${median(edits).toFixed(0)} ms, 95th percentile ${quantile(edits, 0.95).toFixed(0)} ms`,
);
