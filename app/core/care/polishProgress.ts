/** How far a polish has come by its samples, against the course that the plan computes for it. */
import type { Particles } from "../book/entries";
import type { PolishPoint } from "./treatments";

/** A count is told within a step of its scale either way, which is a factor of two (ISO 4406). */
const STEP = 2;

export interface PolishSample {
  hours: number;
  from: Particles["from"];
  /** Of what there was at the first sample from there; a scale number more is twice as much. */
  share: number;
  /** What the course has there; null beyond its end. */
  computed: number | null;
  /** More than a step over the course: something stands still, comes in, or passes the element. */
  isSlow: boolean;
}

/** Of the course at an hour, straight between its points. */
function at(course: readonly PolishPoint[], hours: number, of: "tank" | "line"): number | null {
  const next = course.findIndex((point) => point.hours >= hours);
  const [a, b] = [course[next - 1], course[next]];
  if (!b) return null;
  if (!a || b.hours === a.hours) return b[of];
  return a[of] + ((hours - a.hours) / (b.hours - a.hours)) * (b[of] - a[of]);
}

/** By the number at 6 micron; the first sample from a place is what its others are held against. */
export function polishProgress(
  samples: readonly Pick<Particles, "from" | "code" | "polishedH">[],
  course: readonly PolishPoint[],
): PolishSample[] {
  const first = new Map<Particles["from"], { code: number; hours: number }>();
  return samples.map(({ from, code: [, code6], polishedH: hours }) => {
    const begun = first.get(from) ?? { code: code6, hours };
    first.set(from, begun);
    const share = STEP ** (code6 - begun.code);
    const of = from === "line" ? "line" : "tank";
    const [now, then] = [at(course, hours, of), at(course, begun.hours, of)];
    const computed = now === null || then === null || then === 0 ? null : now / then;
    return { hours, from, share, computed, isSlow: computed !== null && share > STEP * computed };
  });
}
