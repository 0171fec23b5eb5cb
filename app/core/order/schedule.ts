/**
 * When work can be done, by how many hands: the longest way through the needs, and a finish by list scheduling (longest
 * tail first; J. E. Kelley, The critical-path method, 1963), tried with other ranks as well and the best kept.
 */

import { seeded } from "../random/seeded";

export interface TimedStep {
  id: string;
  workMin: number;
  /** After the work, without hands: drain, dry, cure. */
  waitMin: number;
  people: number;
  notBeforeMin: number;
  place: string;
  needs: readonly string[];
}

export interface Slot {
  id: string;
  startMin: number;
  /** Hands are free again. */
  workedMin: number;
  /** What waits for it can begin. */
  doneMin: number;
}

/** Steps in an order that keeps their needs; null where they need each other in a ring. */
export function inNeed<T extends { id: string; needs: readonly string[] }>(steps: readonly T[]): T[] | null {
  const byId = new Map(steps.map((step) => [step.id, step]));
  const open = new Map(steps.map(({ id, needs }) => [id, needs.filter((need) => byId.has(need)).length]));
  const after = new Map<string, string[]>();
  for (const { id, needs } of steps)
    for (const need of needs) {
      const there = after.get(need);
      if (there) there.push(id);
      else after.set(need, [id]);
    }
  const ready = steps.filter(({ id }) => open.get(id) === 0);
  const order: T[] = [];
  for (let step = ready.shift(); step; step = ready.shift()) {
    order.push(step);
    for (const id of after.get(step.id) ?? []) {
      const left = (open.get(id) ?? 0) - 1;
      open.set(id, left);
      if (left === 0) ready.push(byId.get(id) as T);
    }
  }
  return order.length === steps.length ? order : null;
}

const lastsMin = ({ workMin, waitMin }: TimedStep) => workMin + waitMin;

/** Minutes from the beginning of each step to the end of all, hands aside. */
function tails(order: readonly TimedStep[]): Map<string, number> {
  const tail = new Map<string, number>();
  for (const step of [...order].reverse()) {
    const rest = tail.get(step.id) ?? 0;
    const own = rest + lastsMin(step);
    tail.set(step.id, own);
    for (const need of step.needs) tail.set(need, Math.max(tail.get(need) ?? 0, own));
  }
  return tail;
}

export interface Critical {
  minutes: number;
  /** Steps of one longest way, in order. */
  ids: string[];
}

/** The longest way, waits and not-befores with it, hands and places left out. */
export function criticalWay(steps: readonly TimedStep[]): Critical | null {
  const order = inNeed(steps);
  if (!order) return null;
  const done = new Map<string, { minutes: number; from: string | null }>();
  for (const step of order) {
    let [start, from]: [number, string | null] = [step.notBeforeMin, null];
    for (const need of step.needs) {
      const one = done.get(need)?.minutes ?? 0;
      if (one > start || (one === start && from === null && done.has(need))) [start, from] = [one, need];
    }
    done.set(step.id, { minutes: start + lastsMin(step), from });
  }
  let last: string | null = null;
  for (const { id } of order)
    if (last === null || (done.get(id)?.minutes ?? 0) > (done.get(last)?.minutes ?? 0)) last = id;
  const minutes = last === null ? 0 : (done.get(last)?.minutes ?? 0);
  const ids: string[] = [];
  for (let at = last; at !== null; at = done.get(at)?.from ?? null) ids.unshift(at);
  return { minutes, ids };
}

/** Steps as numbers, worked out once for all ranks that are tried. */
interface Numbered {
  ids: string[];
  workMin: Float64Array;
  waitMin: Float64Array;
  notBeforeMin: Float64Array;
  hands: Int32Array;
  place: Int32Array;
  mostAt: number[];
  needs: number[][];
  after: number[][];
}

function numbered(
  order: readonly TimedStep[],
  people: number,
  placeHolds: Readonly<Record<string, number>>,
): Numbered {
  const index = new Map(order.map(({ id }, i) => [id, i]));
  const places = [...new Set(order.map(({ place }) => place))];
  const needs = order.map((step) => step.needs.flatMap((need) => index.get(need) ?? []));
  const after: number[][] = order.map(() => []);
  needs.forEach((own, i) => {
    for (const need of own) after[need]?.push(i);
  });
  return {
    ids: order.map(({ id }) => id),
    workMin: Float64Array.from(order, ({ workMin }) => workMin),
    waitMin: Float64Array.from(order, ({ waitMin }) => waitMin),
    notBeforeMin: Float64Array.from(order, ({ notBeforeMin }) => notBeforeMin),
    // With one person a step for two is planned as if one could, and the plan carries the hold.
    hands: Int32Array.from(order, (step) => Math.min(step.people, people)),
    place: Int32Array.from(order, ({ place }) => places.indexOf(place)),
    mostAt: places.map((place) => placeHolds[place] ?? Number.POSITIVE_INFINITY),
    needs,
    after,
  };
}

/** Hands and bodies in use from one moment to the next; after the last of them nobody works. */
class Day {
  private readonly from = [0];
  private readonly hands = [0];
  private readonly at: number[][];

  constructor(
    private readonly people: number,
    private readonly mostAt: readonly number[],
  ) {
    this.at = [mostAt.map(() => 0)];
  }

  /** The first stretch that ends after a moment. */
  private stretch(moment: number): number {
    let [low, high] = [0, this.from.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if ((this.from[middle] as number) <= moment) low = middle;
      else high = middle - 1;
    }
    return low;
  }

  private split(moment: number): number {
    const i = this.stretch(moment);
    if (this.from[i] === moment) return i;
    this.from.splice(i + 1, 0, moment);
    this.hands.splice(i + 1, 0, this.hands[i] as number);
    this.at.splice(i + 1, 0, [...(this.at[i] as number[])]);
    return i + 1;
  }

  /** Takes the first time from `least` on in which so many hands and one body more have room, and gives its start. */
  take(least: number, longMin: number, hands: number, place: number): number {
    let start = least;
    for (
      let i = this.stretch(least);
      i < this.from.length && (this.from[i] as number) < start + longMin;
      i++
    ) {
      const isFull =
        (this.hands[i] as number) + hands > this.people ||
        (this.at[i]?.[place] as number) >= (this.mostAt[place] as number);
      if (isFull) start = this.from[i + 1] ?? start;
    }
    const [first, last] = [this.split(start), this.split(start + longMin)];
    for (let i = first; i < last; i++) {
      (this.hands[i] as number) += hands;
      ((this.at[i] as number[])[place] as number)++;
    }
    return start;
  }
}

/** Steps one by one by rank, each as early as its needs, hands and place allow: with the right ranks the best there is. */
function listed(steps: Numbered, people: number, rank: ArrayLike<number>): Slot[] {
  const count = steps.ids.length;
  const open = Int32Array.from(steps.needs, ({ length }) => length);
  const ready = steps.ids.flatMap((_, i) => (open[i] === 0 ? [i] : []));
  const doneMin = new Float64Array(count);
  const slots: Slot[] = [];
  const day = new Day(people, steps.mostAt);
  while (ready.length > 0) {
    let pick = 0;
    for (let k = 1; k < ready.length; k++)
      if ((rank[ready[k] as number] as number) > (rank[ready[pick] as number] as number)) pick = k;
    const [i] = ready.splice(pick, 1) as [number];
    let least = steps.notBeforeMin[i] as number;
    for (const need of steps.needs[i] as number[]) least = Math.max(least, doneMin[need] as number);
    const workMin = steps.workMin[i] as number;
    const startMin =
      workMin === 0 ? least : day.take(least, workMin, steps.hands[i] as number, steps.place[i] as number);
    const workedMin = startMin + workMin;
    doneMin[i] = workedMin + (steps.waitMin[i] as number);
    slots.push({ id: steps.ids[i] as string, startMin, workedMin, doneMin: doneMin[i] as number });
    for (const next of steps.after[i] as number[]) {
      (open[next] as number)--;
      if (open[next] === 0) ready.push(next);
    }
  }
  return slots.sort((x, y) => x.startMin - y.startMin);
}

const finishOf = (slots: readonly Slot[]) => slots.reduce((last, { doneMin }) => Math.max(last, doneMin), 0);

/** Other ranks that are tried: so many for a small job, so few for a large one that all stays within a blink. */
const TRIES = 160;
const SMALL = 40;

/** A plan of hours; the same for the same steps. Null where they cannot be ordered. */
export function schedule(
  timed: readonly TimedStep[],
  people: number,
  placeHolds: Readonly<Record<string, number>> = {},
): Slot[] | null {
  const order = inNeed(timed);
  if (!order) return null;
  const byId = tails(order);
  const tail = Float64Array.from(order, ({ id }) => byId.get(id) ?? 0);
  const steps = numbered(order, people, placeHolds);
  let best = listed(steps, people, tail);
  const least = criticalWay(timed)?.minutes ?? 0;
  const random = seeded(1);
  for (let i = 0; i < (order.length <= SMALL ? TRIES : 2) && finishOf(best) > least; i++) {
    const rank = tail.map((minutes) => minutes * (0.5 + random()));
    const other = listed(steps, people, rank);
    if (finishOf(other) < finishOf(best)) best = other;
  }
  return best;
}

export const finishMin = finishOf;
