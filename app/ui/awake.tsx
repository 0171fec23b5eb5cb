import { useEffect, useState } from "react";
import { ToggleButton } from "./button";

/**
 * Holds the screen awake while it is wanted and the page is seen; the browser lets go when the page is hidden, so it is
 * asked again when it comes back. Says whether it is held: null where this browser, or this address, has no way to.
 */
export function useAwake(isWanted: boolean): boolean | null {
  const [isHeld, setHeld] = useState(false);
  const [can] = useState(() => typeof navigator !== "undefined" && "wakeLock" in navigator);
  useEffect(() => {
    if (!isWanted || !can) return;
    let lock: WakeLockSentinel | null = null;
    let isOver = false;
    const hold = async () => {
      if (document.visibilityState !== "visible" || lock) return;
      try {
        lock = await navigator.wakeLock.request("screen");
      } catch {
        // A low battery refuses it.
        return;
      }
      if (isOver) {
        void lock.release();
        return;
      }
      setHeld(true);
      lock.addEventListener("release", () => {
        lock = null;
        setHeld(false);
      });
    };
    const onSeen = () => void hold();
    void hold();
    document.addEventListener("visibilitychange", onSeen);
    return () => {
      isOver = true;
      document.removeEventListener("visibilitychange", onSeen);
      void lock?.release();
      setHeld(false);
    };
  }, [isWanted, can]);
  return can ? isHeld : null;
}

/** Keeps the screen awake through a procedure, on request; not there where the browser cannot. */
export function KeepAwake() {
  const [isWanted, want] = useState(false);
  const held = useAwake(isWanted);
  if (held === null) return null;
  return (
    <ToggleButton isSelected={isWanted} onChange={want}>
      {isWanted && !held ? "Screen may sleep: refused" : "Screen stays on"}
    </ToggleButton>
  );
}
