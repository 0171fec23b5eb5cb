/** Single keys: a switch turns them off, and they wait while something is typed or chosen. */
import { useEffect, useRef } from "react";
import { keep, kept } from "./kept";

const KEYS_OFF = "keys-off";
export const areKeysOff = () => kept(KEYS_OFF) === "1";
export const turnKeys = (on: boolean) => keep(KEYS_OFF, on ? "0" : "1");

export const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

/** A dialog or a list has the keys to itself. */
export const isAside = () => document.querySelector('[role="dialog"], [role="listbox"]') !== null;

/** One key of a page that has no more of them. */
export function useSingleKey(key: string, run: () => void): void {
  const latest = useRef(run);
  useEffect(() => {
    latest.current = run;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== key || event.ctrlKey || event.metaKey || event.altKey) return;
      if (areKeysOff() || isTyping(event.target) || isAside()) return;
      event.preventDefault();
      latest.current();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [key]);
}
