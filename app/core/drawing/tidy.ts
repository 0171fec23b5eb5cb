/** What laying a plan out anew would gain: hoses that cross, corners that they turn, the size that it is shown at. */
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import { onSheet } from "../plan/places";
import type { Cell } from "../plan/types";
import { boxOf, PRICE, priceOf, routed } from "./grid";
import { drawnHoses, drawnNodes } from "./nodes";
import { drawn, type Placed, placedOf } from "./placed";
import { type Box, smallness } from "./room";
import { fresh, type Settled, settled } from "./settle";

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

/** What was put where it stands by hand. */
export const putByHand = ({ plan: { places = {} } }: Network): [Id, Cell][] =>
  Object.entries(places).filter(([, { byHand }]) => byHand);

/** So many things at most are each put beside what is there: it takes as many routings of the whole. */
const MOST_BESIDE = 60;

/** By how much most of what is held stands elsewhere than it would be laid, cells: the middle one of all. */
function offsetOf(held: readonly [Id, Cell][], anew: Settled["places"]): Cell {
  const middle = (of: "x" | "y") =>
    held.map(([id, cell]) => cell[of] - (anew[id]?.[of] ?? cell[of])).sort((a, b) => a - b)[
      Math.floor(held.length / 2)
    ] ?? 0;
  return { x: middle("x"), y: middle("y") };
}

/**
 * A plan laid out anew round what was put by hand, which stays to the cell; with `all` from nothing. Round what is held
 * two ways are tried, the whole moved to where most of it stands and each thing put beside what is there: the cheaper.
 */
function tidied(network: Network, all = false): Settled {
  const anew = fresh(network);
  const held = all ? [] : putByHand(network).filter(([id]) => anew.places[id]);
  if (held.length === 0) return anew;
  const { x, y } = offsetOf(held, anew.places);
  const moved = Object.entries(anew.places).map(([id, cell]): [Id, Cell] => [
    id,
    onSheet({ x: cell.x + x, y: cell.y + y }),
  ]);
  const fixed = new Set(held.map(([id]) => id));
  const loosely = new Set(Object.keys(anew.places).filter((id) => !fixed.has(id)));
  const { sides } = anew;
  const round = settled(network, { places: Object.fromEntries([...moved, ...held]), sides, loosely, fixed });
  if (loosely.size > MOST_BESIDE) return round;
  const beside = settled(network, { places: Object.fromEntries(held), sides, fixed });
  return pricedAs(network, beside) < pricedAs(network, round) ? beside : round;
}

function pricedAs(network: Network, { places, sides }: Settled): number {
  const nodes = drawnNodes(network, sides);
  const at = new Map(Object.entries(places));
  const found = routed(nodes, at, drawnHoses(network, nodes));
  return priceOf(found) + smallness(boxOf(nodes, at, found.ways));
}

/** What a drawing laid out anew has less than before: negative where it has more. */
export interface Gain extends Counts {
  /** How large the drawing was and would be, px. */
  was: Box;
  is: Box;
}

/** A plan laid out anew, and what that gains. */
export interface Tidied {
  settled: Settled;
  gain: Gain;
}

export function tidying(network: Network, all?: boolean): Tidied {
  const then = tidied(network, all);
  const [before, after] = [placedOf(network), drawn(network, then)];
  const [was, is] = [countsOf(before), countsOf(after)];
  const box = ({ width, height }: Placed): Box => ({ width, height });
  const gain = {
    crossings: was.crossings - is.crossings,
    bends: was.bends - is.bends,
    was: box(before),
    is: box(after),
  };
  return { settled: then, gain };
}

/** Is it worth it, by what is priced wherever a part is placed; never more crossings for fewer bends alone. */
export function isTidier({ crossings, bends, was, is }: Gain, room?: Box): boolean {
  const larger = smallness(was, room) - smallness(is, room);
  const crossed = crossings * PRICE.crossing;
  return crossed + bends * PRICE.bend + larger > 0 && (crossings >= 0 || crossed + larger > 0);
}
