/** Two fingers on a drawing, by where they are: how large it is under them, and how it is scrolled when they let go. */

interface Point {
  x: number;
  y: number;
}

/** Where two fingers are, px of the screen. */
export interface Fingers {
  mid: Point;
  apart: number;
}

/** What two fingers took hold of: a drawing with its corner at a point, shown at a scale of its natural size. */
export interface Held extends Fingers {
  at: Point;
  scale: number;
}

/** Of the drawing's natural size. */
const [LEAST, MOST] = [0.3, 2];

export function fingersAt(touches: readonly { clientX: number; clientY: number }[]): Fingers | null {
  const [a, b] = touches;
  if (!a || !b || touches.length !== 2) return null;
  return {
    mid: { x: (a.clientX + b.clientX) / 2, y: (a.clientY + b.clientY) / 2 },
    apart: Math.hypot(a.clientX - b.clientX, a.clientY - b.clientY),
  };
}

/** The scale that a drawing has under fingers that moved: as much more as they are farther apart. */
export const pinchedTo = (held: Held, { apart }: Fingers): number =>
  Math.min(MOST, Math.max(LEAST, (held.scale * apart) / Math.max(1, held.apart)));

/** The same as a transform of the drawing's picture, about what was first between the fingers. */
export function transformOf(held: Held, fingers: Fingers): { origin: string; transform: string } {
  const { mid } = fingers;
  return {
    origin: `${held.mid.x - held.at.x}px ${held.mid.y - held.at.y}px`,
    transform: `translate(${mid.x - held.mid.x}px, ${mid.y - held.mid.y}px) scale(${pinchedTo(held, fingers) / held.scale})`,
  };
}

/** How far the view is scrolled on, so that what was between the fingers is there still, once it is drawn anew. */
export function scrolledBy(held: Held, last: Fingers, corner: Point): Point {
  const times = pinchedTo(held, last) / held.scale;
  return {
    x: corner.x + (held.mid.x - held.at.x) * times - last.mid.x,
    y: corner.y + (held.mid.y - held.at.y) * times - last.mid.y,
  };
}
