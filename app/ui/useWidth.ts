import { type RefObject, useLayoutEffect, useRef, useState } from "react";

/** How wide a box is on the screen, as it changes, px. */
export function useWidth(least = 300, before = 1200): [RefObject<HTMLDivElement | null>, number] {
  const ref = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(before);
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    const observer = new ResizeObserver(
      ([entry]) => entry && setWidth(Math.max(least, entry.contentRect.width)),
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, [least]);
  return [ref, width];
}
