import { X } from "lucide-react";
import {
  UNSTABLE_ToastRegion as AriaToastRegion,
  Text,
  UNSTABLE_Toast as Toast,
  UNSTABLE_ToastContent as ToastContent,
  UNSTABLE_ToastQueue as ToastQueue,
} from "react-aria-components";
import styled from "styled-components";
import { Button } from "./button";

export interface Said {
  text: string;
  /** Stays until it is closed. */
  lasts?: boolean;
  action?: { label: string; run: () => void };
}

/** How long a line is shown; the library stops the time while it is pointed at or has the focus. */
const LASTS_MS = 9000;
const queue = new ToastQueue<Said>({ maxVisibleToasts: 3 });

/** Says one line to the user, with at most one thing to do about it. */
export function say(said: Said): void {
  queue.add(said, said.lasts ? {} : { timeout: LASTS_MS });
}

const Region = styled(AriaToastRegion<Said>)`
  position: fixed; left: 50%; transform: translateX(-50%); bottom: 16px; z-index: 60; outline: none;
  display: flex; flex-direction: column; gap: 8px; width: max-content; max-width: calc(100vw - 24px);
  &[data-focus-visible] { outline: 2px solid var(--act); outline-offset: 2px; }
`;
const Line = styled(Toast<Said>)`
  display: flex; align-items: center; gap: 12px; padding: 6px 6px 6px 14px;
  background: var(--ink); color: var(--raised); border-radius: 3px; box-shadow: 0 4px 16px #0005;
  &[data-focus-visible] { outline: 2px solid var(--act); outline-offset: 2px; }
  button { color: inherit; border-color: currentColor; background: transparent; }
`;

export function ToastRegion() {
  return (
    <Region queue={queue} aria-label="What is said" className="noPrint">
      {({ toast }) => (
        <Line toast={toast}>
          <ToastContent>
            <Text slot="title">{toast.content.text}</Text>
          </ToastContent>
          {toast.content.action && (
            <Button
              onPress={() => {
                toast.content.action?.run();
                queue.close(toast.key);
              }}
            >
              {toast.content.action.label}
            </Button>
          )}
          <Button $quiet slot="close" aria-label="Close this message">
            <X size={16} />
          </Button>
        </Line>
      )}
    </Region>
  );
}
