/** Shapes that tests and bench share: a V section, and a hull tank through three sections. */
import type { LoftSection, SectionPoint, TankShape } from "../plan/types";

export const vee: SectionPoint[] = [
  [-0.1, 0],
  [0.1, 0],
  [0.5, 0.4],
  [0.5, 0.7],
  [-0.5, 0.7],
  [-0.5, 0.4],
];
export const hull = {
  kind: "loft" as const,
  sections: [
    {
      xM: 0,
      polygon: [
        [0, 0.3],
        [0.2, 0],
        [0.7, 0.1],
        [0.7, 0.6],
        [0, 0.6],
      ],
    },
    {
      xM: 0.8,
      polygon: [
        [0, 0.25],
        [0.25, 0],
        [0.8, 0.05],
        [0.8, 0.6],
        [0, 0.6],
      ],
    },
    {
      xM: 1.5,
      polygon: [
        [0.1, 0.35],
        [0.3, 0.1],
        [0.6, 0.15],
        [0.6, 0.6],
        [0.1, 0.6],
      ],
    },
  ],
} satisfies TankShape & { sections: LoftSection[] };

/** A flat step, which is not convex, m: 0.62 by 0.56 less 0.25 by 0.2. */
export const STEP_M: [number, number][] = [
  [0, 0.2],
  [0.25, 0.2],
  [0.25, 0],
  [0.62, 0],
  [0.62, 0.56],
  [0, 0.56],
];
