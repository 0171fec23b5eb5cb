import { useCallback, useRef, useState } from "react";

/**
 * What the hand has done and the store has not yet: it stands in for the stored value until the last change is in,
 * so that keys pressed quickly build on one another. Gives the value ahead (null where there is none) and the way
 * to set it, with how it is saved.
 */
export function useAhead<T>(): [T | null, (next: T, save?: () => Promise<unknown>) => void] {
  const [ahead, setAhead] = useState<T | null>(null);
  const last = useRef(0);
  const set = useCallback((next: T, save?: () => Promise<unknown>) => {
    const mine = ++last.current;
    setAhead(next);
    void save?.().finally(() => {
      if (last.current === mine) setAhead(null);
    });
  }, []);
  return [ahead, set];
}
