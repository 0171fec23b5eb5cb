/** Minutes of bleeding, procedures, and two hundred lines at random that were not looked at while it was written. */
import { readFileSync } from "node:fs";
import { randomLine } from "~/core/air/lines.fixture";
import { bleedProcedure, ENOUGH, replay } from "~/core/air/procedure";
import { bleedTask, provedBleed } from "~/core/air/report";
import { AirSession } from "~/core/air/session";
import { currentPlan } from "~/core/plan/ports";
import type { Job, LineUp } from "~/core/plan/types";
import { show } from "./measure";

const read = (name: string) =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const cpu = () => process.cpuUsage().user / 1e6;
const took = (work: () => void): number => {
  const began = cpu();
  work();
  return cpu() - began;
};

for (const [name, pump, joint] of [
  ["marram", "lift", "engine.feed"],
  ["unit-12", "lift", "engine.feed"],
  ["reading-van", "dose", "heater.feed"],
] as const) {
  const job = read(name);
  const plan = currentPlan(job);
  const lineUp = plan.lineUps[0] as LineUp;
  const task = bleedTask(job, lineUp, { kind: "dry" });
  const session = task && AirSession.start(task.network, lineUp, task.conditions);
  if (!task || !session) continue;
  session.act({ do: "pump", id: pump, on: true });
  session.act({ do: "open", joint });
  const minute = took(() => session.act({ do: "wait", seconds: 60 }));
  show(
    `${name}: a minute of bleeding, dry at first`,
    `${minute.toFixed(2)} s of processor, ${session.model.steps} steps`,
  );
  const found = took(() => bleedProcedure(task, job.schools));
  show(`${name}: its procedure`, `${found.toFixed(2)} s`);
  show(
    `${name}: with its replay and three bad days`,
    `${took(() => provedBleed(job, task, job.schools)).toFixed(2)} s`,
  );
}

const [from, to] = (process.env.SEEDS ?? "700001-700200").split("-").map(Number) as [number, number];
let [done, slowest, unexplained, unlike] = [0, 0, 0, 0];
const reasons = new Map<string, number>();
for (let seed = from; seed <= to; seed++) {
  const job = randomLine(seed);
  const task = bleedTask(job, currentPlan(job).lineUps[0] as LineUp, { kind: "dry" });
  if (!task) continue;
  let procedure: ReturnType<typeof bleedProcedure> = null;
  slowest = Math.max(
    slowest,
    took(() => (procedure = bleedProcedure(task, job.schools))),
  );
  const ended = procedure as ReturnType<typeof bleedProcedure>;
  if (!ended) continue;
  if (Math.abs((replay(task, ended.actions) ?? 1) - ended.left) > 1e-4) unlike += 1;
  if (ended.left <= ENOUGH) done += 1;
  else {
    const first = ended.whyNot[0]?.code;
    if (first === undefined) unexplained += 1;
    else reasons.set(first, (reasons.get(first) ?? 0) + 1);
  }
}
const of = to - from + 1;
show(
  `lines at random, seeds ${from} to ${to}`,
  `${done} of ${of} end under a thousandth; the first reason of the rest: ${[...reasons].map(([code, count]) => `${code} ${count}`).join(", ")}; ${unexplained} without a reason, ${unlike} that do not replay within 1e-4; slowest ${slowest.toFixed(1)} s`,
);
