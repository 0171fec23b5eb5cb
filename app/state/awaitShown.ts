/**
 * Waits until the page shows a revision that the store already has: the live query hands it on a moment after the
 * commit, and what was held ahead of the store must not be let go before.
 */
import { useCallback, useEffect, useRef } from "react";

/** The query may never hand it on, as when the job was deleted elsewhere. */
const LONGEST_MS = 2000;

interface Waiting {
  revision: number;
  go: () => void;
}

export function useAwaitShown(revision: number): (wanted: number) => Promise<void> {
  const shown = useRef(revision);
  const waiting = useRef<Waiting[]>([]);
  useEffect(() => {
    shown.current = revision;
    const ready = waiting.current.filter((one) => one.revision <= revision);
    waiting.current = waiting.current.filter((one) => one.revision > revision);
    for (const { go } of ready) go();
  }, [revision]);
  return useCallback((wanted: number) => {
    if (wanted <= shown.current) return Promise.resolve();
    return new Promise<void>((done) => {
      const timer = setTimeout(done, LONGEST_MS);
      waiting.current.push({
        revision: wanted,
        go: () => {
          clearTimeout(timer);
          done();
        },
      });
    });
  }, []);
}
