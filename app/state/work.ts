/** The worker that sweeps line-ups over conditions: started when asked, restarted when it dies, stopped when left. */
import { useEffect, useState } from "react";
import type { Sweep, SweepCase } from "~/core/hydraulics/worst";
import type { Job } from "~/core/plan/types";

export type SweepState =
  | { status: "working"; done: number; of: number }
  | { status: "done"; cases: SweepCase[]; ms: number }
  | { status: "failed" };

export function useSweep(job: Job, sweep: Sweep): SweepState {
  const key = JSON.stringify([job.tanks, job.consumers, job.plans, job.fuel, job.site, sweep]);
  const [state, setState] = useState<{ key: string; sweep: SweepState }>({
    key: "",
    sweep: { status: "failed" },
  });
  useEffect(() => {
    const stop = new AbortController();
    let isOver = false;
    // Progress travels apart from the result and may come after it.
    const tell = (sweep: SweepState) => {
      if (stop.signal.aborted || isOver) return;
      isOver = sweep.status !== "working";
      setState({ key, sweep });
    };
    void (async () => {
      const { sweepInWorker } = await import("~/workers/client");
      const started = performance.now();
      const result = await sweepInWorker(job, sweep, stop.signal, (done, of) =>
        tell({ status: "working", done, of }),
      );
      tell(
        result.ok
          ? { status: "done", cases: result.cases, ms: performance.now() - started }
          : { status: "failed" },
      );
    })();
    return () => stop.abort();
    // The key stands for the job and the sweep by content.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return state.key === key ? state.sweep : { status: "working", done: 0, of: 0 };
}
