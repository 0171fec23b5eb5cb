import { type KeyboardEvent, type RefObject, useEffect, useRef, useState } from "react";
import type { Id } from "~/core/kinds/record";
import { type Arrow, isArrow } from "./walk";

/** What can be come to on a drawing, where it begins, and where an arrow leads. */
interface Walked {
  has: (id: Id) => boolean;
  first: Id | null;
  step: (id: Id, arrow: Arrow) => Id | null;
}

/**
 * A drawing as one stop of the Tab key, walked by arrows; the focus stays on it when what had it is taken away, and
 * goes on from what is chosen. What can have the focus carries `data-id`.
 */
export function useWalk(
  group: RefObject<Element | null>,
  { has, first, step }: Walked,
  selectedId: Id | null,
) {
  const [at, setAt] = useState<Id | null>(null);
  const isHere = useRef(false);
  const isDrawn = (id: Id | null): id is Id => id !== null && has(id);
  const stop = isDrawn(at) ? at : isDrawn(selectedId) ? selectedId : first;
  const focus = (id: Id | null) => {
    if (id !== null) group.current?.querySelector<SVGGElement>(`[data-id="${CSS.escape(id)}"]`)?.focus();
  };
  useEffect(() => {
    if (isHere.current && document.activeElement === document.body) focus(stop);
  });
  return {
    stop,
    onFocus: ({ target }: { target: EventTarget }) => {
      isHere.current = true;
      const id = (target as Element).closest("[data-id]")?.getAttribute("data-id");
      if (id) setAt(id);
    },
    onBlur: ({ target }: { target: EventTarget }) => {
      // What is taken away with the focus on it leaves the focus here.
      if ((target as Element).isConnected) isHere.current = false;
    },
    onKeyDown: (event: KeyboardEvent) => {
      if (event.altKey || event.ctrlKey || event.metaKey || !isArrow(event.key) || stop === null) return;
      event.preventDefault();
      event.stopPropagation();
      focus(step(stop, event.key));
    },
  };
}
