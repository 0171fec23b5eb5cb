import type { Sweep, SweepCase } from "~/core/hydraulics/worst";
import type { Job } from "~/core/plan/types";

/** What crosses to the worker and back: failures are values, since a thrown error loses its fields on the way. */
export type SweepResult = { ok: true; cases: SweepCase[] } | { ok: false; reason: string };

export interface KeelWorker {
  sweep(job: Job, sweep: Sweep, onProgress: (done: number, of: number) => void): SweepResult;
  /** For tests: ends the worker the hard way. */
  die(): void;
}
