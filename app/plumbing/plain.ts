/** The plumbing as boxes and lines alone, for paper. */

import type { Placed } from "~/core/drawing/placed";
import type { LineUpVerdict } from "~/core/hydraulics/worst";
import type { Network } from "~/core/network/network";
import { partsOf } from "~/core/plan/ports";
import type { PaperDrawing } from "~/state/paper";
import { drawnEdges } from "./edges";

export function plainDrawing(network: Network, placed: Placed, verdict: LineUpVerdict | null): PaperDrawing {
  const { job, plan } = network;
  const named = new Map([...job.tanks, ...partsOf(job, plan)].map(({ id, name }) => [id, name]));
  return {
    width: placed.width,
    height: placed.height,
    lines: drawnEdges(network, placed, verdict).map(({ d, kind }) => ({
      d,
      isBack: kind === "return",
      isIdle: kind === "idle",
    })),
    boxes: [...placed.nodes].flatMap(([id, { x, y, width, height }]) => {
      const name = named.get(id);
      return name === undefined ? [] : [{ name, x, y, width, height }];
    }),
  };
}
