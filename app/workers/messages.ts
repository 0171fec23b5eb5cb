import type { Content } from "~/core/air/content";
import type { ProcedureTask } from "~/core/air/procedure";
import type { Proved } from "~/core/air/report";
import type { BookEntry } from "~/core/book/entries";
import type { Study, StudyAsked } from "~/core/care/study";
import type { Tidied } from "~/core/drawing/tidy";
import type { Finding } from "~/core/findings/index";
import type { BleedOutcome } from "~/core/findings/rule";
import type { BoardTask, Progress, Proposed, Search } from "~/core/fit/arrange";
import type { Hung } from "~/core/fit/panel";
import type { Sweep, SweepCase } from "~/core/hydraulics/worst";
import type { Positions } from "~/core/manifold/positions";
import type { Conditions, DutyStep, Job, LineUp } from "~/core/plan/types";
import type { RunResult } from "~/core/running/run";
import type { JobGlance } from "~/core/work/glance";
import type { ReadFile } from "~/schemas/file";
import type { ReadAll } from "~/schemas/zip";

/** What crosses to the worker and back: failures are values, since a thrown error loses its fields on the way. */
export type Answer<T> = { ok: true; value: T } | { ok: false; reason: string };

export type OnProgress = (done: number, of: number) => void;

export interface Endurance {
  lineUpId: string;
  /** Of every consumer that runs in it, 0..1. */
  load: number;
  /** Null where it outlasts what is looked at. */
  found: { hours: number; burnedM3: number } | null;
}

export type OnBest = (progress: Progress) => void;

export interface KeelWorker {
  findings(
    job: Job,
    book: BookEntry[],
    bleeds: readonly BleedOutcome[],
    onProgress: OnProgress,
  ): Answer<Finding[]>;
  /** What a list tells of a job. */
  glance(job: Job, book: BookEntry[], onProgress: OnProgress): Answer<JobGlance>;
  sweep(job: Job, sweep: Sweep, onProgress: OnProgress): Answer<SweepCase[]>;
  run(
    job: Job,
    start: Conditions,
    duty: DutyStep[],
    ambientC: number,
    onProgress: OnProgress,
  ): Answer<RunResult & { endurance: Endurance[] }>;
  /** Null where nothing leads from a tank to a consumer. Progress counts what was tried. */
  bleed(
    job: Job,
    lineUp: LineUp,
    content: Content,
    how: Pick<ProcedureTask, "endId" | "pumpShare">,
    onProgress: OnProgress,
  ): Answer<Proved | null>;
  /**
   * A search for a fault of a line-up; null where it is not fed. The faults of the last one asked for are kept solved.
   * @param turned what the shop found before, by kind
   */
  study(
    job: Job,
    lineUpId: string,
    turned: Readonly<Partial<Record<string, number>>>,
    asked: StudyAsked,
    onProgress: OnProgress,
  ): Answer<Study | null>;
  /** Null where there are more positions than are gone through. */
  positions(job: Job, onProgress: OnProgress): Answer<Positions | null>;
  /** The drawing laid out anew: round what was put by hand, or all of it. */
  tidy(job: Job, all: boolean, onProgress: OnProgress): Answer<Tidied>;
  /** A board arranged; what is best so far is told as it is found. */
  arrange(task: BoardTask, at: readonly Hung[], search: Search, onBest: OnBest): Answer<Proposed>;
  /** A job's file read and judged, its pictures left where they lie in it. */
  readJobFile(file: Blob, onProgress: OnProgress): Promise<Answer<ReadFile>>;
  readAllFile(file: Blob, onProgress: OnProgress): Promise<Answer<ReadAll>>;
  /** For tests: ends the worker the hard way. */
  die(): void;
}
