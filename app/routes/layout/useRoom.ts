import { type RefObject, useEffect, useState } from "react";
import { type Box, ROOM } from "~/core/drawing/room";

/** Left free under the drawing for the buttons of its size. */
export const UNDER_PX = 38;
const EDGE_PX = 4;

/** The room that the drawing has. */
export function useRoom(canvas: RefObject<HTMLDivElement | null>): Box {
  const [room, setRoom] = useState(ROOM);
  useEffect(() => {
    const box = canvas.current;
    if (!box) return;
    const observer = new ResizeObserver(() =>
      setRoom({ width: box.clientWidth - EDGE_PX, height: box.clientHeight - UNDER_PX - EDGE_PX }),
    );
    observer.observe(box);
    return () => observer.disconnect();
  }, [canvas]);
  return room;
}
