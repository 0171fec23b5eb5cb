/** What a list tells of a job beside its name: its worst finding, how many of each grade, what is due, what has not come. */
import type { Book } from "../book/entries";
import { type Due, dueOf } from "../care/due";
import { trendsOf } from "../care/gaugeTrend";
import { placedOf } from "../drawing/placed";
import { type Sketch, sketchOf } from "../drawing/sketch";
import { findingsOf } from "../findings/findings";
import type { Finding } from "../findings/index";
import type { Grade } from "../findings/rule";
import { buildNetwork } from "../network/network";
import type { Job } from "../plan/types";

export interface JobGlance {
  worst: Finding | null;
  counts: Record<Grade, number>;
  due: Due[];
  /** Parts and hoses that are ordered and have not come. */
  awaited: number;
  /** Null for a plan without anything in it. */
  sketch: Sketch | null;
}

/** Of the current plan; what was set aside is not told. */
export function glanceOf(job: Job, book: Book, now?: Date): JobGlance {
  const network = buildNetwork(job);
  const open = findingsOf(job, book, network, undefined, now).filter(({ setAside }) => !setAside);
  const counts = { stop: 0, mend: 0, watch: 0 };
  for (const { grade } of open) counts[grade]++;
  return {
    worst: open[0] ?? null,
    counts,
    due: dueOf(network, book, trendsOf(network, book)),
    awaited: network.plan.awaited?.length ?? 0,
    sketch: sketchOf(placedOf(network)),
  };
}
