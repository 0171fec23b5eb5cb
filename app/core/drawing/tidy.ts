/** What laying a plan out anew would gain: hoses that cross, corners that they turn. */
import type { Network } from "../network/network";
import { PRICE } from "./grid";
import { drawn, type Placed, placedOf } from "./placed";
import { fresh } from "./settle";

export interface Counts {
  crossings: number;
  bends: number;
}

interface Stretch {
  hose: string;
  isLevel: boolean;
  /** The coordinate that it keeps, and its two ends along the other, px. */
  at: number;
  from: number;
  to: number;
}

const NEAR_PX = 0.5;

/** The straight stretches of every hose's drawn way. */
export function stretchesOf({ edges }: Pick<Placed, "edges">): Stretch[] {
  return [...edges].flatMap(([hose, points]) =>
    points.slice(1).map((b, i) => {
      const a = points[i] as (typeof points)[number];
      const isLevel = Math.abs(a.y - b.y) < NEAR_PX;
      const [from, to] = isLevel ? [a.x, b.x] : [a.y, b.y];
      return { hose, isLevel, at: isLevel ? a.y : a.x, from: Math.min(from, to), to: Math.max(from, to) };
    }),
  );
}

/** Two stretches, one level and one upright, cross within both. */
function isCrossing(one: Stretch, other: Stretch): boolean {
  const within = (at: number, { from, to }: Stretch) => at > from + NEAR_PX && at < to - NEAR_PX;
  return (
    one.hose !== other.hose && one.isLevel !== other.isLevel && within(one.at, other) && within(other.at, one)
  );
}

export function countsOf(placed: Pick<Placed, "edges">): Counts {
  const stretches = stretchesOf(placed);
  return {
    crossings: stretches.reduce(
      (sum, one, i) => sum + stretches.slice(0, i).filter((other) => isCrossing(one, other)).length,
      0,
    ),
    bends: [...placed.edges.values()].reduce((sum, points) => sum + Math.max(0, points.length - 2), 0),
  };
}

/** How many crossings and bends fewer the drawing has when it is laid out anew; negative where it has more. */
export function tidyGain(network: Network): Counts {
  const [now, then] = [countsOf(placedOf(network)), countsOf(drawn(network, fresh(network)))];
  return { crossings: now.crossings - then.crossings, bends: now.bends - then.bends };
}

/** Is it worth it, by what crossings and bends are priced at wherever a part is placed; never for more crossings. */
export const isTidier = ({ crossings, bends }: Counts): boolean =>
  crossings >= 0 && crossings * PRICE.crossing + bends * PRICE.bend > 0;
