import { useEffect, useMemo, useRef, useState } from "react";
import type { Network } from "~/core/network/network";
import { type PlumbingGraph, plumbingGraph } from "./graph";
import type { Placed } from "./layout.client";

export type PlumbingState = {
  status: "laying" | "laid" | "failed";
  placed: Placed | null;
  graph: PlumbingGraph;
};

/** The drawing of a network: laid out anew when its shape changes, the last one shown meanwhile. */
export function usePlumbing(network: Network, attempt = 0): PlumbingState {
  const graph = useMemo(() => plumbingGraph(network.job, network.plan, network), [network]);
  const key = useMemo(() => JSON.stringify(graph), [graph]);
  const [state, setState] = useState<{ key: string; placed: Placed | null; failed: boolean }>({
    key: "",
    placed: null,
    failed: false,
  });
  const wanted = useRef(key);
  useEffect(() => {
    wanted.current = key;
    let stopped = false;
    const run = async (triesLeft: number): Promise<void> => {
      try {
        const { layOut } = await import("./layout.client");
        const placed = await layOut(JSON.parse(key) as PlumbingGraph);
        if (!stopped && wanted.current === key) setState({ key, placed, failed: false });
      } catch {
        if (stopped) return;
        if (triesLeft > 0) return run(triesLeft - 1);
        setState((last) => ({ ...last, key, failed: true }));
      }
    };
    void run(1);
    return () => {
      stopped = true;
    };
  }, [key, attempt]);
  const status =
    state.failed && state.key === key ? "failed" : state.placed && state.key === key ? "laid" : "laying";
  return { status, placed: state.placed, graph };
}
