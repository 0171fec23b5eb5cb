/** So many frames at most until what was asked for is drawn. */
const FRAMES = 30;

/** Gives focus to a part or hose of the drawing as soon as it is there; a hand that went elsewhere meanwhile keeps it. */
export function focusDrawn(id: string): void {
  let left = FRAMES;
  const before = document.activeElement;
  /** On the page itself, in a dialog that shuts, or where it was. */
  const isLeft = () => {
    const now = document.activeElement;
    return (
      now === before ||
      now === document.body ||
      now?.closest('[role="dialog"]') !== null ||
      !before?.isConnected
    );
  };
  const look = () => {
    // In the vehicle it stands in several views: the first that is seen.
    const all = [...document.querySelectorAll<SVGGElement>(`[data-drawing] [data-id="${CSS.escape(id)}"]`)];
    const drawn = all.find((one) => one.getBoundingClientRect().width > 0) ?? all[0];
    const isOpen = document.querySelector('[role="dialog"]') !== null;
    if (drawn && !isOpen) {
      if (isLeft() && drawn.getBoundingClientRect().width > 0) drawn.focus();
      return;
    }
    if (left-- > 0) requestAnimationFrame(look);
  };
  look();
}
