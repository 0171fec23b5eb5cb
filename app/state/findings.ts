/** Findings looked for beside the page: what the hand does is drawn first. */
import { useEffect, useRef, useState } from "react";
import type { Book } from "~/core/book/entries";
import type { Finding } from "~/core/findings/index";
import type { BleedOutcome } from "~/core/findings/rule";
import type { Job } from "~/core/plan/types";
import { askWorker } from "~/workers/client";

interface Asked {
  job: Job;
  book: Book;
  bleeds: readonly BleedOutcome[];
}
interface Found extends Asked {
  findings: readonly Finding[];
}

const NONE: readonly Finding[] = [];

/** Where no worker will run, the page looks for them itself. */
async function look({ job, book, bleeds }: Asked): Promise<readonly Finding[]> {
  const never = new AbortController().signal;
  const found = await askWorker(
    "findings",
    (remote, onProgress) => remote.findings(job, [...book], bleeds, onProgress),
    never,
    () => undefined,
  );
  if (found.ok) return found.value;
  const { findingsOf } = await import("~/core/findings/findings");
  return findingsOf(job, book, undefined, undefined, undefined, bleeds);
}

/** The findings of a job, a moment behind it; none are looked for while its book is not there. One search runs at a time; of what came meanwhile only the last is looked at. */
export function useFindings(
  job: Job,
  book: Book | null,
  bleeds: readonly BleedOutcome[],
): { findings: readonly Finding[]; isJudging: boolean } {
  const [found, setFound] = useState<Found | null>(null);
  const next = useRef<Asked | null>(null);
  const isBusy = useRef(false);
  const isShown = useRef(true);
  useEffect(() => {
    isShown.current = true;
    return () => {
      isShown.current = false;
    };
  }, []);
  useEffect(() => {
    next.current = book && { job, book, bleeds };
    if (isBusy.current || !book) return;
    isBusy.current = true;
    void (async () => {
      while (next.current && isShown.current) {
        const asked = next.current;
        next.current = null;
        const findings = await look(asked);
        setFound({ ...asked, findings });
      }
      isBusy.current = false;
    })();
  }, [job, book, bleeds]);
  return { findings: found?.findings ?? NONE, isJudging: found?.job !== job || found.book !== book };
}
