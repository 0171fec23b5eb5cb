/** The sweep worker seen from the page: a time limit, a stop, and a new worker when the old one died. */
import { proxy, type Remote, wrap } from "comlink";
import type { Sweep } from "~/core/hydraulics/worst";
import type { Job } from "~/core/plan/types";
import type { KeelWorker, SweepResult } from "./messages";

const LIMIT_MS = 15000;
const TRIES = 2;

interface Running {
  worker: Worker;
  remote: Remote<KeelWorker>;
  crash: Promise<never>;
}

let running: Running | null = null;

function start(): Running {
  const worker = new Worker(new URL("./keel.worker.ts", import.meta.url), { type: "module" });
  const crash = new Promise<never>((_, reject) => {
    worker.addEventListener("error", () => reject(new Error("the worker died")));
    worker.addEventListener("messageerror", () => reject(new Error("the worker could not be understood")));
  });
  crash.catch(() => undefined);
  return { worker, remote: wrap<KeelWorker>(worker), crash };
}

function end(): void {
  running?.worker.terminate();
  running = null;
}

/** Runs a sweep; a worker that dies, hangs or is stopped is ended, and the work is tried once more unless it was stopped. */
export async function sweepInWorker(
  job: Job,
  sweep: Sweep,
  signal: AbortSignal,
  onProgress: (done: number, of: number) => void,
): Promise<SweepResult> {
  for (let attempt = 0; attempt < TRIES; attempt++) {
    if (signal.aborted) return { ok: false, reason: "stopped" };
    running ??= start();
    const { remote, crash } = running;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const late = new Promise<never>((_, reject) => {
      timer = setTimeout(() => reject(new Error("the worker took too long")), LIMIT_MS);
    });
    const stopped = new Promise<never>((_, reject) =>
      signal.addEventListener("abort", () => reject(new Error("stopped")), { once: true }),
    );
    stopped.catch(() => undefined);
    try {
      return await Promise.race([remote.sweep(job, sweep, proxy(onProgress)), crash, late, stopped]);
    } catch {
      end();
    } finally {
      clearTimeout(timer);
    }
  }
  return { ok: false, reason: "the worker died twice" };
}
