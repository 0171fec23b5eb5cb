/** Keys pressed and drags made one soon after another are one gesture, and one step of undo. */
const APART_MS = 1500;
const last = new Map<string, { id: string; at: number }>();
let count = 0;

/** The gesture that a change to a thing belongs to: the last one to it, if that was a moment ago. */
export function gestureOf(thing: string, now: number = performance.now()): string {
  const known = last.get(thing);
  const id = known && now - known.at < APART_MS ? known.id : `${thing}:${++count}:${Math.round(now)}`;
  last.set(thing, { id, at: now });
  return id;
}
