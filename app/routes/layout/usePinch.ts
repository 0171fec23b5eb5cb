import { type RefObject, useEffect, useRef } from "react";
import { flushSync } from "react-dom";

interface Point {
  x: number;
  y: number;
}
/** Of the drawing's natural size. */
const [LEAST, MOST] = [0.3, 2];
const between = (scale: number) => Math.min(MOST, Math.max(LEAST, scale));

function fingersOf({ touches }: TouchEvent): { mid: Point; apart: number } | null {
  const [a, b] = [touches[0], touches[1]];
  if (!a || !b || touches.length !== 2) return null;
  return {
    mid: { x: (a.clientX + b.clientX) / 2, y: (a.clientY + b.clientY) / 2 },
    apart: Math.hypot(a.clientX - b.clientX, a.clientY - b.clientY),
  };
}

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
    let held: { drawing: SVGSVGElement; at: Point; scale: number; mid: Point; apart: number } | null = null;
    let now: { mid: Point; scale: number } | null = null;
    const begin = (event: TouchEvent) => {
      const fingers = fingersOf(event);
      const drawing = scroller.querySelector<SVGSVGElement>("svg[data-drawing]");
      if (!fingers || !drawing) return;
      const { left, top } = drawing.getBoundingClientRect();
      held = { drawing, at: { x: left, y: top }, scale: latest.current.scale, ...fingers };
      scroller.dataset.pinched = "";
    };
    const move = (event: TouchEvent) => {
      const fingers = fingersOf(event);
      if (!held || !fingers) return;
      if (event.cancelable) event.preventDefault();
      const next = between((held.scale * fingers.apart) / Math.max(1, held.apart));
      now = { mid: fingers.mid, scale: next };
      const { style } = held.drawing;
      style.transformOrigin = `${held.mid.x - held.at.x}px ${held.mid.y - held.at.y}px`;
      style.transform = `translate(${now.mid.x - held.mid.x}px, ${now.mid.y - held.mid.y}px) scale(${next / held.scale})`;
    };
    const end = (event: TouchEvent) => {
      if (!held || event.touches.length >= 2) return;
      const { drawing, at, mid, scale: was } = held;
      drawing.style.transform = "";
      delete scroller.dataset.pinched;
      const last = now;
      held = now = null;
      if (!last || event.type === "touchcancel") return;
      flushSync(() => latest.current.onScale(last.scale));
      // What was between the fingers is between them still.
      const { left, top } = drawing.getBoundingClientRect();
      scroller.scrollLeft += left + ((mid.x - at.x) / was) * last.scale - last.mid.x;
      scroller.scrollTop += top + ((mid.y - at.y) / was) * last.scale - last.mid.y;
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
