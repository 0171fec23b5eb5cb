import { type PointerEvent as ReactPointerEvent, useRef } from "react";
import { useMove } from "react-aria/useMove";

/** How far the hand has come since it took hold, in units of the drawing that is dragged on; and where it is on the screen, px. */
export interface By {
  x: number;
  y: number;
  clientX: number;
  clientY: number;
}

interface Hand<T> {
  /** Takes hold; false where this press is none. */
  press?(item: T, event: ReactPointerEvent<Element>): boolean | undefined;
  move(item: T, by: By): void;
  /** Let go after it was moved. */
  drop?(item: T, by: By): void;
}

interface Held<T> {
  item: T;
  start: { clientX: number; clientY: number };
  moved: { x: number; y: number };
  /** Screen px of one unit of the drawing. */
  scale: { x: number; y: number };
  isDrag: boolean;
}

function scaleOf(element: Element): { x: number; y: number } {
  const matrix = element instanceof SVGGraphicsElement ? element.getScreenCTM() : null;
  return matrix ? { x: matrix.a, y: matrix.d } : { x: 1, y: 1 };
}

const byOf = <T>({ start, moved, scale }: Held<T>): By => ({
  x: moved.x / scale.x,
  y: moved.y / scale.y,
  clientX: start.clientX + moved.x,
  clientY: start.clientY + moved.y,
});

/**
 * Things that are dragged by mouse, pen or finger; keys are each drawing's own. Gives what stands on a thing's handle.
 * A press that wanders less than `tapPx` on the screen moves nothing and drops nothing: a click follows it.
 */
export function useDrag<T>(
  hand: Hand<T>,
  tapPx = 0,
): (item: T) => { onPointerDown: (event: ReactPointerEvent<Element>) => void } {
  const held = useRef<Held<T> | null>(null);
  const { moveProps } = useMove({
    onMove({ deltaX, deltaY }) {
      const now = held.current;
      if (!now) return;
      now.moved = { x: now.moved.x + deltaX, y: now.moved.y + deltaY };
      now.isDrag ||= Math.hypot(now.moved.x, now.moved.y) >= tapPx;
      if (now.isDrag) hand.move(now.item, byOf(now));
    },
    onMoveEnd() {
      const now = held.current;
      held.current = null;
      if (now?.isDrag) hand.drop?.(now.item, byOf(now));
    },
  });
  return (item) => ({
    onPointerDown(event) {
      if (event.button !== 0 || hand.press?.(item, event) === false) return;
      const element = event.currentTarget;
      if (element instanceof HTMLElement || element instanceof SVGElement)
        element.focus({ preventScroll: true });
      const { clientX, clientY } = event;
      held.current = {
        item,
        start: { clientX, clientY },
        moved: { x: 0, y: 0 },
        scale: scaleOf(element),
        isDrag: false,
      };
      moveProps.onPointerDown?.(event as ReactPointerEvent<HTMLElement>);
    },
  });
}
