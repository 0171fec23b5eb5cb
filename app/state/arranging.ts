/** A board arranged in the worker: started, followed, stopped; what is best so far stays. */
import { useCallback, useEffect, useRef, useState } from "react";
import type { BoardTask, Progress, Proposed, Search } from "~/core/fit/arrange";
import type { Hung } from "~/core/fit/panel";

/** A search shows what it has as it goes, and is stopped by hand: it may take longer than other work. */
const LONGEST_MS = 90_000;

export type Arranging =
  | { status: "idle" }
  | { status: "working"; progress: Progress | null }
  | { status: "done"; proposed: Proposed }
  /** Stopped by hand: the best until then, if anything was found. */
  | { status: "stopped"; progress: Progress | null }
  /** The worker died or took too long; the best until then stays. */
  | { status: "failed"; progress: Progress | null; reason: string };

export function useArranging() {
  const [state, setState] = useState<Arranging>({ status: "idle" });
  const running = useRef<AbortController | null>(null);
  useEffect(() => () => running.current?.abort(), []);
  const start = useCallback(async (task: BoardTask, at: readonly Hung[], search: Search) => {
    running.current?.abort();
    const stop = new AbortController();
    running.current = stop;
    let last: Progress | null = null;
    setState({ status: "working", progress: null });
    const [{ askWorker }, { proxy }] = await Promise.all([import("~/workers/client"), import("comlink")]);
    const found = await askWorker<Proposed>(
      "arrange",
      (remote) =>
        remote.arrange(
          task,
          at,
          search,
          proxy((progress: Progress) => {
            last = progress;
            if (!stop.signal.aborted) setState({ status: "working", progress });
          }),
        ),
      stop.signal,
      () => undefined,
      LONGEST_MS,
    );
    if (running.current !== stop) return;
    if (found.ok) setState({ status: "done", proposed: found.value });
    else if (stop.signal.aborted) setState({ status: "stopped", progress: last });
    else setState({ status: "failed", progress: last, reason: found.reason });
  }, []);
  const stop = useCallback(() => running.current?.abort(), []);
  const clear = useCallback(() => setState({ status: "idle" }), []);
  return { state, start, stop, clear };
}
