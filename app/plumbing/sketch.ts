/** The laid-out plumbing as a small picture: bodies and hoses in whole units of a card, nothing that is read. */
import { isConsumerKind } from "~/core/kinds/families";
import type { Sketch } from "~/core/work/glance";
import type { PlumbingGraph } from "./graph";
import type { Placed } from "./layout.client";

/** The card's own units; it is drawn at about this many px. */
const WIDTH = 168;
const HEIGHT = 72;
/** A body is never drawn smaller. */
const LEAST = 3;

export function sketchOf({ nodes }: PlumbingGraph, placed: Placed): Sketch {
  const scale = Math.min(WIDTH / Math.max(1, placed.width), HEIGHT / Math.max(1, placed.height));
  const at = (px: number) => Math.round(px * scale);
  return {
    width: Math.max(1, at(placed.width)),
    height: Math.max(1, at(placed.height)),
    hoses: [...placed.edges.values()].map((points) => points.flatMap(({ x, y }) => [at(x), at(y)])),
    bodies: nodes.flatMap(({ id, kind, height }) => {
      const own = placed.nodes.get(id);
      if (!own) return [];
      const is =
        kind === "tank"
          ? ("tank" as const)
          : isConsumerKind(kind)
            ? ("consumer" as const)
            : ("part" as const);
      const [width, tall] = [Math.max(LEAST, at(own.width)), Math.max(LEAST, at(height))];
      return [{ is, x: at(own.x), y: at(own.y), width, height: tall }];
    }),
  };
}
