/** Work that the worker does: started when asked, restarted when it dies, stopped when left. */
import type { Remote } from "comlink";
import { useEffect, useMemo, useState } from "react";
import type { Content } from "~/core/air/content";
import type { ProcedureTask } from "~/core/air/procedure";
import type { Proved } from "~/core/air/report";
import type { Study, StudyAsked } from "~/core/care/study";
import type { Tidied } from "~/core/drawing/tidy";
import type { BleedOutcome } from "~/core/findings/rule";
import type { Sweep, SweepCase } from "~/core/hydraulics/worst";
import type { Positions } from "~/core/manifold/positions";
import type { Conditions, DutyStep, Job, LineUp } from "~/core/plan/types";
import type { RunResult } from "~/core/running/run";
import type { WorkKind } from "~/workers/client";
import type { Answer, Endurance, KeelWorker, OnProgress } from "~/workers/messages";

export type WorkState<T> =
  | { status: "working"; done: number; of: number }
  | { status: "done"; value: T }
  | { status: "failed"; reason: string };

type Ask<T> = (remote: Remote<KeelWorker>, onProgress: OnProgress) => Promise<Answer<T>>;

/** What a job's work hangs on, each by itself: names and notes are left out. A change keeps what it does not touch. */
const contentOf = ({ tanks, consumers, plans, currentPlanId, fuel, site }: Job): unknown[] => [
  tanks,
  consumers,
  plans.find(({ id }) => id === currentPlanId),
  fuel,
  site,
];

const isSame = (a: readonly unknown[] | null, b: readonly unknown[] | null): boolean =>
  a === b ||
  (a !== null && b !== null && a.length === b.length && a.every((item, i) => Object.is(item, b[i])));

/** A list that stays the same object while its items do. */
function useKept(items: readonly unknown[] | null): readonly unknown[] | null {
  const [kept, keep] = useState(items);
  if (isSame(kept, items)) return kept;
  keep(items);
  return items;
}

/** One piece of work by what it hangs on; `null` asks for nothing. */
function useWork<T>(kind: WorkKind, items: readonly unknown[] | null, ask: Ask<T>): WorkState<T> {
  const key = useKept(items);
  const [state, setState] = useState<{ key: readonly unknown[] | null; work: WorkState<T> }>({
    key: null,
    work: { status: "failed", reason: "" },
  });
  useEffect(() => {
    if (key === null) return;
    const stop = new AbortController();
    let isOver = false;
    // Progress travels apart from the result and may come after it.
    const tell = (work: WorkState<T>) => {
      if (stop.signal.aborted || isOver) return;
      isOver = work.status !== "working";
      setState({ key, work });
    };
    void (async () => {
      const { askWorker } = await import("~/workers/client");
      const found = await askWorker(kind, ask, stop.signal, (done, of) =>
        tell({ status: "working", done, of }),
      );
      tell(found.ok ? { status: "done", value: found.value } : { status: "failed", reason: found.reason });
    })();
    return () => stop.abort();
    // The key stands for what is asked by content.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return state.key === key ? state.work : { status: "working", done: 0, of: 0 };
}

export const useSweep = (job: Job, sweep: Sweep): WorkState<SweepCase[]> =>
  useWork("sweep", [...contentOf(job), JSON.stringify(sweep)], (remote, onProgress) =>
    remote.sweep(job, sweep, onProgress),
  );

export interface RunAsked {
  start: Conditions;
  duty: DutyStep[];
  ambientC: number;
  /** Asked for again though nothing changed. */
  turn: number;
}

export const useRunOverTime = (
  job: Job,
  asked: RunAsked | null,
): WorkState<RunResult & { endurance: Endurance[] }> =>
  useWork(
    "run",
    asked && [...contentOf(job), asked.start, JSON.stringify(asked.duty), asked.ambientC, asked.turn],
    (remote, onProgress) =>
      remote.run(job, asked?.start as Conditions, asked?.duty ?? [], asked?.ambientC ?? 15, onProgress),
  );

export const usePositions = (job: Job, isAsked: boolean): WorkState<Positions | null> =>
  useWork("positions", isAsked ? contentOf(job) : null, (remote, onProgress) =>
    remote.positions(job, onProgress),
  );

/** The drawing laid out anew, off the page's own thread: a large plan takes seconds. */
export const useTidied = (job: Job, all: boolean): WorkState<Tidied> =>
  useWork("tidy", [...contentOf(job), all], (remote, onProgress) => remote.tidy(job, all, onProgress));

/** The bleed of a line-up, found by trying; `done` counts the tries. */
export const useBleedPlan = (
  job: Job,
  lineUp: LineUp | null,
  content: Content,
  how: Pick<ProcedureTask, "endId" | "pumpShare"> = {},
): WorkState<Proved | null> =>
  useWork(
    "bleed",
    lineUp && [...contentOf(job), job.schools, lineUp, JSON.stringify([content, how])],
    (remote, onProgress) => remote.bleed(job, lineUp as LineUp, content, how, onProgress),
  );

/** What is wrong with a line-up, by what was read; null asks for nothing. */
export const useStudy = (
  job: Job,
  lineUp: LineUp | null,
  turned: Readonly<Partial<Record<string, number>>> | null,
  asked: StudyAsked,
): WorkState<Study | null> =>
  useWork(
    "study",
    lineUp && turned && [...contentOf(job), lineUp.id, JSON.stringify([turned, asked])],
    (remote, onProgress) => remote.study(job, lineUp?.id ?? "", turned ?? {}, asked, onProgress),
  );

/** A plan that nobody changes for so long is looked at whole. */
const REST_MS = 20_000;

/** A value once it has stayed the same for a while; null until then. */
function useRested<T extends object>(value: T, restMs: number): T | null {
  const [rested, rest] = useState<T | null>(null);
  useEffect(() => {
    const timer = setTimeout(() => rest(value), restMs);
    return () => clearTimeout(timer);
  }, [value, restMs]);
  return rested;
}

const FROM_DRY: Content = { kind: "dry" };

/** How the line-up that is looked at can be bled from dry, once the plan has rested: for its finding. */
export function useBleedOutcome(job: Job, lineUp: LineUp | null): BleedOutcome[] {
  const rested = useRested(job, REST_MS);
  const asked = rested && lineUp?.purpose === "run" ? rested : null;
  const work = useWork(
    "bleedProof",
    asked && lineUp && [...contentOf(asked), asked.schools, lineUp],
    (remote, onProgress) => remote.bleed(asked as Job, lineUp as LineUp, FROM_DRY, {}, onProgress),
  );
  const proved = work.status === "done" ? work.value : null;
  return useMemo(() => {
    if (!proved || !lineUp) return NO_OUTCOME;
    const { left, airM3, isBled, whyNot } = proved.procedure;
    return [{ lineUpId: lineUp.id, left, airM3, isBled, whyNot }];
  }, [proved, lineUp]);
}
const NO_OUTCOME: BleedOutcome[] = [];
