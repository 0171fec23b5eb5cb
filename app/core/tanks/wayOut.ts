/** Whether a tank comes out through its hatch: the box round it, whichever way it is turned, straight through. Practice 55. */
import type { Tank } from "../plan/types";
import { boundsOf } from "./shape";

/**
 * How much the hatch lacks, by its short and its long side, m; nothing on a side that passes. Null where no hatch was
 * measured. Tilting it through a gap wins a little more: that is tried with a mock-up, not on paper.
 */
export function wayOutLacks({
  shape,
  sump,
  wayOut,
}: Pick<Tank, "shape" | "sump" | "wayOut">): { shortM: number; longM: number } | null {
  if (!wayOut) return null;
  const { x, y, z } = boundsOf(shape);
  const sides = [x[1] - x[0], y[1] - y[0], z[1] - z[0] + (sump?.depthM ?? 0)].sort((a, b) => a - b);
  const [narrow, wide] = [wayOut.widthM, wayOut.heightM].sort((a, b) => a - b) as [number, number];
  return {
    shortM: Math.max(0, (sides[0] as number) - narrow),
    longM: Math.max(0, (sides[1] as number) - wide),
  };
}
