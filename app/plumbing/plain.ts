/** The plumbing as boxes and lines alone, for paper. */
import type { LineUpVerdict } from "~/core/hydraulics/worst";
import type { Network } from "~/core/network/network";
import { partsOf } from "~/core/plan/ports";
import type { PaperDrawing } from "~/state/paper";
import { drawnEdges } from "./edges";
import type { Placed } from "./layout.client";

export function plainDrawing(network: Network, placed: Placed, verdict: LineUpVerdict | null): PaperDrawing {
  const { job, plan } = network;
  const named = new Map([...job.tanks, ...partsOf(job, plan)].map(({ id, name }) => [id, name]));
  const shift = (id: string) => {
    const nudge = plan.nudges[id];
    return { x: nudge?.dx ?? 0, y: nudge?.dy ?? 0 };
  };
  return {
    width: placed.width,
    height: placed.height,
    lines: drawnEdges(network, placed, verdict, shift).map(({ d, kind }) => ({
      d,
      isBack: kind === "return",
      isIdle: kind === "idle",
    })),
    boxes: [...placed.nodes].flatMap(([id, { x, y, width, height }]) => {
      const name = named.get(id);
      const at = shift(id);
      return name === undefined ? [] : [{ name, x: x + at.x, y: y + at.y, width, height }];
    }),
  };
}
