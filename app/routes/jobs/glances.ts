/** What the list tells of a job beside its name: the worst finding, what is due, what is awaited. Worked out once a change. */
import { useEffect, useState } from "react";
import type { Grade } from "~/core/findings/rule";
import { currentPlan } from "~/core/plan/ports";
import { type JobSummary, readSettings, writeSetting } from "~/store/list";

export interface DueLine {
  uid: string;
  on: string;
  text: string;
  detail: string;
}

export interface Glance {
  /** The state of the job that it was worked out from. */
  mark: string;
  worst: { grade: Grade; title: string } | null;
  counts: Record<Grade, number>;
  due: DueLine[];
  /** Parts that have not come. */
  awaited: number;
}

const KEY = "glance:";

/** Of what does not parse any more nothing is told. */
function parsed(value: string): Glance | null {
  try {
    const glance = JSON.parse(value) as Glance;
    return Array.isArray(glance.due) && typeof glance.mark === "string" ? glance : null;
  } catch {
    return null;
  }
}

async function workedOut(id: string, mark: string): Promise<Glance | null> {
  const [{ readStored }, { readBook }, { askWorker }, { findingText }, { nameOf }, care] = await Promise.all([
    import("~/store/records"),
    import("~/store/book"),
    import("~/workers/client"),
    import("~/messages/findings"),
    import("~/messages/notes"),
    import("~/messages/care"),
  ]);
  const stored = await readStored(id);
  if (stored.status !== "open") return null;
  const { job } = stored;
  const { standing } = await readBook(id);
  const found = await askWorker(
    "glance",
    (remote, onProgress) => remote.glance(job, [...standing], onProgress),
    new AbortController().signal,
    () => undefined,
  );
  if (!found.ok) return null;
  const { findings, due } = found.value;
  const open = findings.filter(({ setAside }) => !setAside);
  const counts = { stop: 0, mend: 0, watch: 0 };
  for (const { grade } of open) counts[grade]++;
  const name = (of: string) => nameOf(job, of);
  const [worst] = open;
  return {
    mark,
    worst: worst ? { grade: worst.grade, title: findingText(worst, job.units, name).title } : null,
    counts,
    due: care
      .calendarDays(job, due, name)
      .map(({ uid, on, summary, description }) => ({ uid, on, text: summary, detail: description })),
    awaited: currentPlan(job).awaited?.length ?? 0,
  };
}

/** By job; those that changed since are worked out one after the other, and stand as they were until then. */
export function useGlances(jobs: readonly JobSummary[]): ReadonlyMap<string, Glance> {
  const [glances, setGlances] = useState<ReadonlyMap<string, Glance>>(new Map());
  const marks = jobs.map(({ id, mark }) => `${id} ${mark}`).join("\n");
  useEffect(() => {
    let isOver = false;
    void (async () => {
      const kept = new Map(
        [...(await readSettings(KEY))].flatMap(([key, value]) => {
          const glance = parsed(value);
          return glance ? [[key.slice(KEY.length), glance] as const] : [];
        }),
      );
      if (!isOver) setGlances(new Map(kept));
      for (const { id, mark, isNewer } of jobs) {
        if (isOver) return;
        if (isNewer || kept.get(id)?.mark === mark) continue;
        const glance = await workedOut(id, mark);
        if (!glance) continue;
        kept.set(id, glance);
        await writeSetting(KEY + id, JSON.stringify(glance));
        if (!isOver) setGlances(new Map(kept));
      }
    })();
    return () => {
      isOver = true;
    };
    // The marks stand for the jobs by content.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [marks]);
  return glances;
}
