/** What the list tells of a job beside its name: the worst finding, what is due, what is awaited. Worked out once a change. */
import { useEffect, useState } from "react";
import { storageFault } from "~/messages/storage";
import { type Glance, glanceSchema, noted } from "~/schemas/noted";
import { type JobSummary, readSettings, writeSetting } from "~/store/list";
import { say } from "~/ui/toast";

const KEY = "glance:";

/** Null for a job that does not open any more, and where no worker will run: it is tried again at the next visit. */
async function workedOut(id: string, mark: string): Promise<Glance | null> {
  const [
    { readStored },
    { lastChange },
    { readBook },
    { askWorker },
    { findingText },
    { nameOf },
    { changeText },
    care,
  ] = await Promise.all([
    import("~/store/records"),
    import("~/store/history"),
    import("~/store/book"),
    import("~/workers/client"),
    import("~/messages/findings"),
    import("~/messages/notes"),
    import("~/messages/changes"),
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
  const { worst, counts, due, awaited, sketch } = found.value;
  const name = (of: string) => nameOf(job, of);
  const change = await lastChange(id);
  return {
    mark,
    worst: worst ? { grade: worst.grade, title: findingText(worst, job.units, name).title } : null,
    counts,
    due: care
      .calendarDays(job, due, name)
      .map(({ uid, on, summary, description }) => ({ uid, on, text: summary, detail: description })),
    awaited,
    sketch,
    changed: change && changeText(change, name),
  };
}

/** By job; those that changed since are worked out one after the other, and stand as they were until then. */
export function useGlances(jobs: readonly JobSummary[]): ReadonlyMap<string, Glance> {
  const [glances, setGlances] = useState<ReadonlyMap<string, Glance>>(new Map());
  const marks = jobs.map(({ id, mark }) => `${id} ${mark}`).join("\n");
  useEffect(() => {
    let isOver = false;
    const look = async () => {
      const kept = new Map(
        [...(await readSettings(KEY))].flatMap(([key, value]) => {
          const glance = noted(glanceSchema, value);
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
    };
    look().catch((error: unknown) => !isOver && say({ text: storageFault(error), lasts: true }));
    return () => {
      isOver = true;
    };
    // The marks stand for the jobs by content.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [marks]);
  return glances;
}
