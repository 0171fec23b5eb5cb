/** So many frames at most until what was asked for is drawn. */
const FRAMES = 30;

/** Gives focus to a part or hose of the drawing as soon as it is there; a hand that went elsewhere meanwhile keeps it. */
export function focusDrawn(id: string): void {
  let left = FRAMES;
  const look = () => {
    const drawn = document.querySelector<SVGGElement>(`[data-drawing] [data-id="${CSS.escape(id)}"]`);
    const isOpen = document.querySelector('[role="dialog"]') !== null;
    if (drawn && !isOpen) {
      if (drawn.getBoundingClientRect().width > 0) drawn.focus({ preventScroll: false });
      return;
    }
    if (left-- > 0) requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
}
