import { type RefObject, useEffect, useState } from "react";
import { LEAST_FIT } from "~/core/drawing/labels";

/** Left free under the drawing for the buttons of its size. */
export const UNDER_PX = 38;

/** The size at which the drawing fits its room: by width, and by height as far as names can still be read. */
export function useFit(
  canvas: RefObject<HTMLDivElement | null>,
  placed: { width: number; height: number } | null,
): number {
  const [fit, setFit] = useState(1);
  useEffect(() => {
    const box = canvas.current;
    if (!box || !placed) return;
    const measure = () =>
      setFit(
        Math.max(
          0.5,
          Math.min(
            1.15,
            (box.clientWidth - 4) / placed.width,
            Math.max((box.clientHeight - UNDER_PX - 4) / placed.height, LEAST_FIT),
          ),
        ),
      );
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(box);
    return () => observer.disconnect();
  }, [canvas, placed]);
  return fit;
}
