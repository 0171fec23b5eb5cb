/** The laid-out plumbing as a small picture: bodies and hoses in whole units of a card, nothing that is read. */
import { isConsumerKind } from "../kinds/families";
import type { Placed } from "./placed";

/** A small picture of the plumbing, in the units of its card: for a list, made by whoever lays the plumbing out. */
export interface Sketch {
  width: number;
  height: number;
  /** Corners, x and y in turn. */
  hoses: number[][];
  bodies: { is: "tank" | "consumer" | "part"; x: number; y: number; width: number; height: number }[];
}

/** The card's own units; it is drawn at about this many px. */
const WIDTH = 168;
const HEIGHT = 72;
/** A body is never drawn smaller. */
const LEAST = 3;

export function sketchOf(placed: Placed): Sketch | null {
  if (placed.nodes.size === 0) return null;
  const scale = Math.min(WIDTH / Math.max(1, placed.width), HEIGHT / Math.max(1, placed.height));
  const at = (px: number) => Math.round(px * scale);
  return {
    width: Math.max(1, at(placed.width)),
    height: Math.max(1, at(placed.height)),
    hoses: [...placed.edges.values()].map((points) => points.flatMap(({ x, y }) => [at(x), at(y)])),
    bodies: [...placed.nodes.values()].map(({ kind, x, y, width: wide, bodyHeight }) => {
      const is =
        kind === "tank"
          ? ("tank" as const)
          : isConsumerKind(kind)
            ? ("consumer" as const)
            : ("part" as const);
      const [width, tall] = [Math.max(LEAST, at(wide)), Math.max(LEAST, at(bodyHeight))];
      return { is, x: at(x), y: at(y), width, height: tall };
    }),
  };
}
