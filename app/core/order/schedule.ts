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
    for (const need of needs) after.set(need, [...(after.get(need) ?? []), id]);
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

/** Steps one by one by rank, each as early as its needs, hands and place allow: with the right ranks the best there is. */
function listed(
  order: readonly TimedStep[],
  people: number,
  placeHolds: Readonly<Record<string, number>>,
  rank: ReadonlyMap<string, number>,
): Slot[] {
  const byId = new Map(order.map((step) => [step.id, step]));
  const slots = new Map<string, Slot>();
  const after = new Map<string, string[]>();
  const open = new Map<string, number>();
  for (const { id, needs } of order) {
    const own = needs.filter((need) => byId.has(need));
    open.set(id, own.length);
    for (const need of own) after.set(need, [...(after.get(need) ?? []), id]);
  }
  const ready = order.filter(({ id }) => open.get(id) === 0);
  // With one person a step for two is planned as if one could, and the plan carries the hold.
  const hands = (step: TimedStep) => Math.min(step.people, people);
  const working: { startMin: number; workedMin: number; hands: number; place: string }[] = [];
  const fits = (step: TimedStep, at: number, later: typeof working): boolean => {
    const end = at + step.workMin;
    const beside = later.filter(({ startMin, workedMin }) => startMin < end && workedMin > at);
    const most = placeHolds[step.place] ?? Number.POSITIVE_INFINITY;
    return [at, ...beside.map(({ startMin }) => Math.max(at, startMin))].every((moment) => {
      const then = beside.filter(({ startMin, workedMin }) => startMin <= moment && workedMin > moment);
      return (
        then.reduce((sum, one) => sum + one.hands, hands(step)) <= people &&
        then.filter(({ place }) => place === step.place).length < most
      );
    });
  };
  while (ready.length > 0) {
    let pick = 0;
    ready.forEach((one, i) => {
      if ((rank.get(one.id) ?? 0) > (rank.get((ready[pick] as TimedStep).id) ?? 0)) pick = i;
    });
    const [step] = ready.splice(pick, 1) as [TimedStep];
    const least = step.needs.reduce(
      (most, need) => Math.max(most, slots.get(need)?.doneMin ?? 0),
      step.notBeforeMin,
    );
    // What is over by then is in nobody's way.
    const later = working.filter(({ workedMin }) => workedMin > least);
    const moments = [least, ...later.map(({ workedMin }) => workedMin)].sort((x, y) => x - y);
    const startMin = step.workMin === 0 ? least : (moments.find((at) => fits(step, at, later)) ?? least);
    const workedMin = startMin + step.workMin;
    slots.set(step.id, { id: step.id, startMin, workedMin, doneMin: workedMin + step.waitMin });
    if (step.workMin > 0) working.push({ startMin, workedMin, hands: hands(step), place: step.place });
    for (const id of after.get(step.id) ?? []) {
      const left = (open.get(id) ?? 0) - 1;
      open.set(id, left);
      if (left === 0) ready.push(byId.get(id) as TimedStep);
    }
  }
  return [...slots.values()].sort((x, y) => x.startMin - y.startMin);
}

const finishOf = (slots: readonly Slot[]) => slots.reduce((last, { doneMin }) => Math.max(last, doneMin), 0);

/** Other ranks that are tried: so many for a small job, so few for a large one that all stays within a blink. */
const TRIES = 160;
const SMALL = 40;

/** A plan of hours; the same for the same steps. Null where they cannot be ordered. */
export function schedule(
  steps: readonly TimedStep[],
  people: number,
  placeHolds: Readonly<Record<string, number>> = {},
): Slot[] | null {
  const order = inNeed(steps);
  if (!order) return null;
  const tail = tails(order);
  let best = listed(order, people, placeHolds, tail);
  const least = criticalWay(steps)?.minutes ?? 0;
  const random = seeded(1);
  for (let i = 0; i < (order.length <= SMALL ? TRIES : 2) && finishOf(best) > least; i++) {
    const rank = new Map([...tail].map(([id, minutes]) => [id, minutes * (0.5 + random())]));
    const other = listed(order, people, placeHolds, rank);
    if (finishOf(other) < finishOf(best)) best = other;
  }
  return best;
}

export const finishMin = finishOf;
