import type { BookEntry } from "~/core/book/entries";
import type { Finding } from "~/core/findings/index";
import type { Sweep, SweepCase } from "~/core/hydraulics/worst";
import type { Positions } from "~/core/manifold/positions";
import type { Conditions, DutyStep, Job } from "~/core/plan/types";
import type { RunResult } from "~/core/running/run";

/** What crosses to the worker and back: failures are values, since a thrown error loses its fields on the way. */
export type Answer<T> = { ok: true; value: T } | { ok: false; reason: string };

export type OnProgress = (done: number, of: number) => void;

export interface Endurance {
  lineUpId: string;
  /** Null where it outlasts what is looked at. */
  found: { hours: number; burnedM3: number } | null;
}

export interface KeelWorker {
  findings(job: Job, book: BookEntry[], onProgress: OnProgress): Answer<Finding[]>;
  sweep(job: Job, sweep: Sweep, onProgress: OnProgress): Answer<SweepCase[]>;
  run(
    job: Job,
    start: Conditions,
    duty: DutyStep[],
    ambientC: number,
    onProgress: OnProgress,
  ): Answer<RunResult & { endurance: Endurance[] }>;
  /** Null where there are more positions than are gone through. */
  positions(job: Job, onProgress: OnProgress): Answer<Positions | null>;
  /** For tests: ends the worker the hard way. */
  die(): void;
}
