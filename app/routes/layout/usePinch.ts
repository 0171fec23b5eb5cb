import { type RefObject, useEffect, useRef } from "react";
import { flushSync } from "react-dom";
import { type Fingers, fingersAt, type Held, pinchedTo, scrolledBy, transformOf } from "./pinch";

const cornerOf = (drawing: SVGSVGElement) => {
  const { left, top } = drawing.getBoundingClientRect();
  return { x: left, y: top };
};

/**
 * Two fingers on a drawing that scrolls: it grows and shrinks under them as a picture of itself, and is drawn anew, with
 * the same point between them, when they let go. One finger pans, as the browser does it.
 * @param scale of the drawing's natural size, as it is drawn
 */
export function usePinch(
  view: RefObject<HTMLElement | null>,
  scale: number,
  onScale: (scale: number) => void,
): void {
  const latest = useRef({ scale, onScale });
  useEffect(() => {
    latest.current = { scale, onScale };
  });
  useEffect(() => {
    const scroller = view.current;
    if (!scroller) return;
    let held: (Held & { drawing: SVGSVGElement }) | null = null;
    let now: Fingers | null = null;
    const begin = (event: TouchEvent) => {
      const fingers = fingersAt([...event.touches]);
      const drawing = scroller.querySelector<SVGSVGElement>("svg[data-drawing]");
      if (!fingers || !drawing) return;
      held = { drawing, at: cornerOf(drawing), scale: latest.current.scale, ...fingers };
      scroller.dataset.pinched = "";
    };
    const move = (event: TouchEvent) => {
      const fingers = fingersAt([...event.touches]);
      if (!held || !fingers) return;
      if (event.cancelable) event.preventDefault();
      now = fingers;
      const { origin, transform } = transformOf(held, fingers);
      held.drawing.style.transformOrigin = origin;
      held.drawing.style.transform = transform;
    };
    const end = (event: TouchEvent) => {
      if (!held || event.touches.length >= 2) return;
      const [from, last] = [held, now];
      from.drawing.style.transform = "";
      delete scroller.dataset.pinched;
      held = now = null;
      if (!last || event.type === "touchcancel") return;
      flushSync(() => latest.current.onScale(pinchedTo(from, last)));
      const by = scrolledBy(from, last, cornerOf(from.drawing));
      scroller.scrollLeft += by.x;
      scroller.scrollTop += by.y;
    };
    scroller.addEventListener("touchstart", begin, { passive: true });
    scroller.addEventListener("touchmove", move, { passive: false });
    scroller.addEventListener("touchend", end);
    scroller.addEventListener("touchcancel", end);
    return () => {
      scroller.removeEventListener("touchstart", begin);
      scroller.removeEventListener("touchmove", move);
      scroller.removeEventListener("touchend", end);
      scroller.removeEventListener("touchcancel", end);
    };
  }, [view]);
}
