import { expose, type Remote, releaseProxy } from "comlink";
import { bleedTask, provedBleed } from "~/core/air/report";
import { Diagnoser } from "~/core/care/diagnose";
import { study } from "~/core/care/study";
import { tidying } from "~/core/drawing/tidy";
import { findingsOf } from "~/core/findings/findings";
import { propose } from "~/core/fit/arrange";
import { sweepAll } from "~/core/hydraulics/worst";
import { judgePositions } from "~/core/manifold/positions";
import { buildNetwork } from "~/core/network/network";
import { currentPlan } from "~/core/plan/ports";
import type { Job } from "~/core/plan/types";
import { enduranceInDuty, runOverTime } from "~/core/running/run";
import { glanceOf } from "~/core/work/glance";
import type { Answer, KeelWorker, OnBest, OnProgress } from "./messages";

/** Who listens to progress is let go with the answer: its channel would stay open as long as the worker lives. */
function answer<T>(onProgress: OnProgress, work: () => T): Answer<T> {
  try {
    return { ok: true, value: work() };
  } catch (error) {
    return { ok: false, reason: String(error) };
  } finally {
    (onProgress as Remote<OnProgress>)[releaseProxy]();
  }
}

/** The same for work that waits for something. */
async function answerLater<T>(onProgress: OnProgress, work: () => Promise<T>): Promise<Answer<T>> {
  try {
    return { ok: true, value: await work() };
  } catch (error) {
    return { ok: false, reason: String(error) };
  } finally {
    (onProgress as Remote<OnProgress>)[releaseProxy]();
  }
}
/** What reads files is fetched by the worker that is asked to. */
const zip = () => import("~/schemas/zip");

/** Every fault laid over a line-up and solved: kept until another one is asked for. */
let laid: { of: string; diagnoser: Diagnoser } | null = null;
function diagnoserOf(job: Job, lineUpId: string, turned: Readonly<Partial<Record<string, number>>>) {
  const { tanks, consumers, fuel, site } = job;
  const plan = currentPlan(job);
  const of = JSON.stringify([tanks, consumers, fuel, site, plan, lineUpId, turned]);
  if (laid?.of === of) return laid.diagnoser;
  const lineUp = plan.lineUps.find(({ id }) => id === lineUpId);
  if (!lineUp) return null;
  laid = { of, diagnoser: new Diagnoser(buildNetwork(job), lineUp, plan.conditions, turned) };
  return laid.diagnoser;
}

/** Beyond this a line-up 'outlasts' a passage. */
const MOST_H = 200;

const worker: KeelWorker = {
  findings: (job, book, bleeds, onProgress) =>
    answer(onProgress, () => findingsOf(job, book, undefined, undefined, undefined, bleeds)),
  glance: (job, book, onProgress) => answer(onProgress, () => glanceOf(job, book)),
  sweep: (job, sweep, onProgress) =>
    answer(onProgress, () => sweepAll(buildNetwork(job), currentPlan(job).conditions, sweep, onProgress)),
  run: (job, start, duty, ambientC, onProgress) =>
    answer(onProgress, () => {
      const network = buildNetwork(job);
      let told = 0;
      const run = runOverTime(network, start, duty, {
        ambientC,
        onProgress: (done, of) => {
          if (done - told < of / 50) return;
          told = done;
          onProgress(done, of);
        },
      });
      const endurance = network.plan.lineUps
        .filter(({ purpose }) => purpose === "run")
        .map((lineUp) => ({
          lineUpId: lineUp.id,
          ...enduranceInDuty(network, lineUp, start, duty, { ambientC }, MOST_H),
        }));
      return { ...run, endurance };
    }),
  bleed: (job, lineUp, content, how, onProgress) =>
    answer(onProgress, () => {
      const task = bleedTask(job, lineUp, content, how);
      return task && provedBleed(job, task, job.schools, (tries) => onProgress(tries, 0));
    }),
  study: (job, lineUpId, turned, asked, onProgress) =>
    answer(onProgress, () => {
      const diagnoser = diagnoserOf(job, lineUpId, turned);
      return diagnoser && study(diagnoser, asked);
    }),
  positions: (job, onProgress) =>
    answer(onProgress, () => {
      const network = buildNetwork(job);
      return judgePositions(network, network.plan.conditions, onProgress);
    }),
  tidy: (job, all, onProgress) => answer(onProgress, () => tidying(buildNetwork(job), all)),
  arrange: (task, at, search, onBest) => {
    try {
      return { ok: true, value: propose(task, at, search, onBest) };
    } catch (error) {
      return { ok: false, reason: String(error) };
    } finally {
      (onBest as Remote<OnBest>)[releaseProxy]();
    }
  },
  readJobFile: (file, onProgress) => answerLater(onProgress, async () => (await zip()).readJobBlob(file)),
  readAllFile: (file, onProgress) => answerLater(onProgress, async () => (await zip()).readAllBlob(file)),
  die() {
    self.close();
  },
};

expose(worker);
