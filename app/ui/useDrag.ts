import { type PointerEvent as ReactPointerEvent, useRef } from "react";
import { useMove } from "react-aria/useMove";

/** How far the hand has come since it took hold, in units of the drawing that is dragged on. */
export interface By {
  x: number;
  y: number;
}

interface Hand<T> {
  press?(item: T, event: ReactPointerEvent<Element>): void;
  move(item: T, by: By): void;
  /** Let go after it was moved. */
  drop?(item: T, by: By): void;
}

/** Screen px of one unit of the drawing round an element, across and down. */
function pxPerUnit(element: Element): By {
  const matrix = element instanceof SVGGraphicsElement ? element.getScreenCTM() : null;
  return matrix ? { x: matrix.a, y: matrix.d } : { x: 1, y: 1 };
}

/**
 * Things that are dragged by mouse, pen or finger; keys are each drawing's own. Gives what stands on a thing's handle.
 * A press that does not move drops nothing: a click follows it.
 */
export function useDrag<T>(
  hand: Hand<T>,
): (item: T) => { onPointerDown: (event: ReactPointerEvent<Element>) => void } {
  const held = useRef<{ item: T; px: By; scale: By } | null>(null);
  const by = (): By => {
    const { px, scale } = held.current ?? { px: { x: 0, y: 0 }, scale: { x: 1, y: 1 } };
    return { x: px.x / scale.x, y: px.y / scale.y };
  };
  const { moveProps } = useMove({
    onMove({ deltaX, deltaY }) {
      if (!held.current) return;
      held.current.px = { x: held.current.px.x + deltaX, y: held.current.px.y + deltaY };
      hand.move(held.current.item, by());
    },
    onMoveEnd() {
      if (held.current) hand.drop?.(held.current.item, by());
      held.current = null;
    },
  });
  return (item) => ({
    onPointerDown(event) {
      if (event.button !== 0) return;
      const element = event.currentTarget;
      if (element instanceof HTMLElement || element instanceof SVGElement)
        element.focus({ preventScroll: true });
      held.current = { item, px: { x: 0, y: 0 }, scale: pxPerUnit(element) };
      hand.press?.(item, event);
      moveProps.onPointerDown?.(event as ReactPointerEvent<HTMLElement>);
    },
  });
}
