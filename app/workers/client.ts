/** The worker seen from the page: a time limit, a stop, and a new worker when the old one died. */
import { proxy, type Remote, wrap } from "comlink";
import type { Answer, KeelWorker, OnProgress } from "./messages";

const LIMIT_MS = 15000;
const TRIES = 2;
const TOO_LONG = "the worker took too long";

interface Running {
  worker: Worker;
  remote: Remote<KeelWorker>;
  crash: Promise<never>;
}

/** A worker for each kind of work: stopping one does not stop the others. */
export type WorkKind =
  | "findings"
  | "file"
  | "sweep"
  | "run"
  | "positions"
  | "arrange"
  | "bleed"
  | "study"
  | "bleedProof"
  | "glance"
  | "tidy";
const running = new Map<WorkKind, Running>();

function start(): Running {
  const worker = new Worker(new URL("./keel.worker.ts", import.meta.url), { type: "module" });
  const crash = new Promise<never>((_, reject) => {
    worker.addEventListener("error", (event) => reject(new Error(event.message || "the worker died")));
    worker.addEventListener("messageerror", () => reject(new Error("the worker could not be understood")));
  });
  crash.catch(() => undefined);
  return { worker, remote: wrap<KeelWorker>(worker), crash };
}

/** Nobody is to be given a worker that was ended. */
function end(kind: WorkKind, own: Running): void {
  own.worker.terminate();
  if (running.get(kind) === own) running.delete(kind);
}

/** Asks the worker; one that dies, hangs or is stopped is ended. Only after a death is the work tried once more. */
export async function askWorker<T>(
  kind: WorkKind,
  ask: (remote: Remote<KeelWorker>, onProgress: OnProgress) => Promise<Answer<T>>,
  signal: AbortSignal,
  onProgress: OnProgress,
  limitMs = LIMIT_MS,
): Promise<Answer<T>> {
  let reason = "the worker died";
  for (let attempt = 0; attempt < TRIES; attempt++) {
    if (signal.aborted) return { ok: false, reason: "stopped" };
    const own = running.get(kind) ?? start();
    running.set(kind, own);
    const { remote, crash } = own;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let stop = () => undefined as void;
    const late = new Promise<never>((_, reject) => {
      timer = setTimeout(() => reject(new Error(TOO_LONG)), limitMs);
    });
    const stopped = new Promise<never>((_, reject) => {
      stop = () => {
        // At once: what is asked next must not be handed to it.
        end(kind, own);
        reject(new Error("stopped"));
      };
      signal.addEventListener("abort", stop, { once: true });
    });
    try {
      return await Promise.race([ask(remote, proxy(onProgress)), crash, late, stopped]);
    } catch (error) {
      end(kind, own);
      reason = error instanceof Error ? error.message : String(error);
      if (signal.aborted) return { ok: false, reason: "stopped" };
      // What took too long once would take as long again.
      if (reason === TOO_LONG) break;
    } finally {
      clearTimeout(timer);
      signal.removeEventListener("abort", stop);
    }
  }
  return { ok: false, reason };
}
