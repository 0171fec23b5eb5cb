import { X } from "lucide-react";
import { useSyncExternalStore } from "react";
import styled from "styled-components";
import { Button } from "./button";

export interface Said {
  text: string;
  /** Stays until it is closed. */
  lasts?: boolean;
  action?: { label: string; run: () => void };
}

interface Kept extends Said {
  id: number;
}

const LASTS_MS = 9000;
let next = 1;
const NONE: readonly Kept[] = [];
let kept = NONE;
const listeners = new Set<() => void>();

function set(items: readonly Kept[]): void {
  kept = items;
  for (const listener of listeners) listener();
}

const close = (id: number) => set(kept.filter((item) => item.id !== id));

/** Says one line to the user, with at most one thing to do about it. */
export function say(said: Said): void {
  const id = next++;
  set([...kept.slice(-2), { ...said, id }]);
  if (!said.lasts) setTimeout(() => close(id), LASTS_MS);
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

const Region = styled.div`
  position: fixed; left: 50%; transform: translateX(-50%); bottom: 16px; z-index: 60;
  display: flex; flex-direction: column; gap: 8px; width: max-content; max-width: calc(100vw - 24px);
`;
const Line = styled.div`
  display: flex; align-items: center; gap: 12px; padding: 6px 6px 6px 14px;
  background: var(--ink); color: var(--raised); border-radius: 3px; box-shadow: 0 4px 16px #0005;
  button { color: inherit; border-color: currentColor; background: transparent; }
`;

export function ToastRegion() {
  // What was said before the first HTML was taken over is shown a moment after.
  const items = useSyncExternalStore(
    subscribe,
    () => kept,
    () => NONE,
  );
  return (
    <Region role="status" aria-live="polite" className="noPrint">
      {items.map((item) => (
        <Line key={item.id}>
          <span>{item.text}</span>
          {item.action && (
            <Button
              onPress={() => {
                item.action?.run();
                close(item.id);
              }}
            >
              {item.action.label}
            </Button>
          )}
          <Button $quiet aria-label="Close this message" onPress={() => close(item.id)}>
            <X size={16} />
          </Button>
        </Line>
      ))}
    </Region>
  );
}
